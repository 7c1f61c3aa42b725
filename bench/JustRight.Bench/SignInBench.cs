using System.Diagnostics;
using System.DirectoryServices.Protocols;
using System.Globalization;
using System.Net;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.SignInTests;
using JustRight.Tests.Shared;

namespace JustRight.Bench;

/// <summary>A sign-in test against a real inetOrgPerson directory (Debian's slapd) of 70,000 people and 5,000 groups nested six deep, beside an ordinary client.</summary>
internal static class SignInBench
{
    private const string Root = "dc=bench,dc=example", Keeper = $"cn=keeper,{Root}", Password = "only for the bench";
    private const int Groups = 5_000, Runs = 5;
    private static readonly int[] Levels = [1, 4, 16, 64, 256, Groups - 341];
    private static readonly Origin Here = new("bench", 1, 1);

    /// <summary>Lays the objects, measures each reading in a process of its own, and says the ratio.</summary>
    public static async Task<int> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("justright-bench-").FullName;
        var port = Loopback.FreePort();
        try
        {
            await LayAsync(folder);
            var slapd = await SlapdServer.StartAsync(Path.Combine(folder, "slapd.conf"), $"ldap://127.0.0.1:{port}/", port);
            try
            {
                await OnceAsync("client", port); // the server's own caches must not count for either
                var ratios = new List<double>();
                for (var i = 0; i < Runs; i++)
                {
                    var client = await OnceAsync("client", port);
                    ratios.Add(await OnceAsync("ours", port) / client);
                }

                ratios.Sort();
                Console.WriteLine($"ratio of counting and comparing 20,000 people to the client's paging: {ratios[0]:0.00} to {ratios[^1]:0.00}, median {ratios[Runs / 2]:0.00} (the mark is 1.15)");
                await OnceAsync("test", port);
            }
            finally
            {
                await slapd.EndAsync();
            }
        }
        finally
        {
            Directory.Delete(folder, true);
        }

        return 0;
    }

    /// <summary>One reading: <c>client</c> pages through 20,000 people, <c>ours</c> counts and compares them, <c>test</c> tries a sign-in among 50,000 with all groups.</summary>
    public static async Task<int> MeasureAsync(string reading, string portText)
    {
        var port = int.Parse(portText, CultureInfo.InvariantCulture);
        var (seconds, result) = reading == "client" ? Client(port) : await SignInTestAsync(reading, port);
        Console.WriteLine($"{reading,-7} {seconds:0.000} s   peak {Process.GetCurrentProcess().PeakWorkingSet64 / 1_000_000.0:0} MB   {result}");
        return 0;
    }

    private static Task<double> OnceAsync(string reading, int port) =>
        OwnProcess.MeasureAsync(1, "sign-in", reading, port.ToString(CultureInfo.InvariantCulture));

    private static (double Seconds, string Result) Client(int port)
    {
        using var connection = new LdapConnection(new LdapDirectoryIdentifier("127.0.0.1", port, true, false), new NetworkCredential(Keeper, Password), AuthType.Basic);
        connection.SessionOptions.ProtocolVersion = 3;
        connection.Bind();
        var clock = Stopwatch.StartNew();
        var names = new List<string>();
        byte[] cookie = [];
        do
        {
            var request = new SearchRequest($"ou=Twenty,{Root}", "(objectClass=inetOrgPerson)", SearchScope.Subtree, "uid");
            request.Controls.Add(new PageResultRequestControl(500) { Cookie = cookie });
            var response = (SearchResponse)connection.SendRequest(request);
            foreach (SearchResultEntry entry in response.Entries) names.Add((string)entry.Attributes["uid"][0]);
            cookie = response.Controls.OfType<PageResultResponseControl>().First().Cookie;
        }
        while (cookie.Length > 0);
        return (clock.Elapsed.TotalSeconds, $"{names.Count} people");
    }

    private static async Task<(double Seconds, string Result)> SignInTestAsync(string reading, int port)
    {
        var twenty = reading == "ours";
        var directory = new PeopleDirectory(
            "bench", DirectoryFamily.InetOrgPerson, "127.0.0.1", new Dictionary<WireSecurity, int> { [WireSecurity.Plain] = port }, DistinguishedName.Parse(Root), DistinguishedName.Parse($"ou={(twenty ? "Twenty" : "Fifty")},{Root}"),
            DistinguishedName.Parse($"ou=Groups,{Root}"), GroupKind.GroupOfNames, false, Here);
        var wants = new SheetSignIn(
            [DirectoryFamily.InetOrgPerson], null, BindForm.Dn, [WireSecurity.Plain], ProductBases.Separate, twenty ? null : "all", NestedGroups.ByProduct, null, new SheetGroupList([], false, Here), 500,
            [new SheetSettings("web", "x", SettingsForm.List, [], Here)], Here);
        var install = new InstallSignIn("bench", Here)
        {
            ExpectedNames = twenty ? [.. Enumerable.Range(0, 20_000).Select(i => $"t{i}")] : [],
            ExpectedPeople = twenty ? 20_000 : 50_000,
            MayEnter = twenty ? "t7" : "f7",
        };
        var plan = new PlannedSignIn(directory, wants, install, WireSecurity.Plain) { HostsOfPlaces = new Dictionary<string, IReadOnlyList<string>>(), Domain = new Domain("bench.example", "BENCH"), BindDn = Keeper, EnterName = twenty ? null : "g0-0", EnterDn = twenty ? null : Group(0, 0) };
        var watcher = new ScheduledSurveys();
        var test = await SignInTestRunner.RunAsync("bench", false, plan, new LdapPeopleDirectory(directory), new SignInTestPasswords(new NewPassword(Password), null), TimeProvider.System, watcher, CancellationToken.None);
        var seconds = twenty ? (watcher.At["people-expected"] - watcher.At["bases"]).TotalSeconds : watcher.Clock.Elapsed.TotalSeconds;
        return (seconds, $"{test.People?.Found} people of {test.People?.Expected} expected, {test.Groups?.Found} groups, told {watcher.Told} times how far it is; {test.Words}");
    }

    private static string Group(int level, int i) => $"cn=g{level}-{i},ou=Groups,{Root}";

    private static async Task LayAsync(string folder)
    {
        Directory.CreateDirectory(Path.Combine(folder, "db"));
        await File.WriteAllTextAsync(Path.Combine(folder, "slapd.conf"), $"""
            include /etc/ldap/schema/core.schema
            include /etc/ldap/schema/cosine.schema
            include /etc/ldap/schema/inetorgperson.schema
            modulepath /usr/lib/ldap
            moduleload back_mdb
            database mdb
            maxsize 4294967296
            suffix "{Root}"
            rootdn "{Keeper}"
            rootpw "{Password}"
            directory {folder}/db
            index objectClass,uid,member eq
            dbnosync
            """);
        await using (var ldif = new StreamWriter(Path.Combine(folder, "bench.ldif")))
        {
            await ldif.WriteAsync($"dn: {Root}\nobjectClass: dcObject\nobjectClass: organization\ndc: bench\no: bench\n\n");
            foreach (var branch in new[] { "Twenty", "Fifty", "Groups" }) await ldif.WriteAsync($"dn: ou={branch},{Root}\nobjectClass: organizationalUnit\nou: {branch}\n\n");
            foreach (var (branch, letter, count) in new[] { ("Twenty", 't', 20_000), ("Fifty", 'f', 50_000) })
                for (var i = 0; i < count; i++) await ldif.WriteAsync($"dn: uid={letter}{i},ou={branch},{Root}\nobjectClass: inetOrgPerson\nuid: {letter}{i}\ncn: Person {i}\nsn: Person\nmail: {letter}{i}@bench.example\n\n");
            for (var level = 0; level < Levels.Length; level++)
            {
                for (var i = 0; i < Levels[level]; i++)
                {
                    await ldif.WriteAsync($"dn: {Group(level, i)}\nobjectClass: groupOfNames\ncn: g{level}-{i}\n");
                    if (level < Levels.Length - 1)
                        for (var inner = i; inner < Levels[level + 1]; inner += Levels[level]) await ldif.WriteAsync($"member: {Group(level + 1, inner)}\n");
                    else
                        for (var person = i; person < 50_000; person += Levels[level]) await ldif.WriteAsync($"member: uid=f{person},ou=Fifty,{Root}\n");
                    await ldif.WriteAsync('\n');
                }
            }
        }

        await Programs.MustRunAsync("/usr/sbin/slapadd", "-q", "-f", Path.Combine(folder, "slapd.conf"), "-l", Path.Combine(folder, "bench.ldif"));
    }

    private sealed class ScheduledSurveys : ISignInTestObserver
    {
        public Stopwatch Clock { get; } = Stopwatch.StartNew();

        public Dictionary<string, TimeSpan> At { get; } = [];

        public int Told { get; private set; }

        public void Asking(string asks)
        {
        }

        public void Said(SignInCheck check) => At[check.Id] = Clock.Elapsed;

        public void Counting(string what, int sofar) => Told++;
    }
}
