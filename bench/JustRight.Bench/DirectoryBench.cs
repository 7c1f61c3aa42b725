using System.Diagnostics;
using System.DirectoryServices.Protocols;
using System.Globalization;
using System.Net;
using JustRight.Connectors;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Tests.Shared;

namespace JustRight.Bench;

/// <summary>
/// A sweep of 20,000 people for one account and three attributes, end to end over LDAPS, against an ordinary client that pages
/// through the same attributes of the same objects; and how many requests the groups of 10,000 accounts take.
/// </summary>
internal static class DirectoryBench
{
    private const string Root = "DC=fennmoor,DC=example";
    private const string People = "OU=Swept," + Root;
    private const int Branches = 20;
    private const int PeopleInEach = 1000;
    private const int Groups = 200;
    private const int Rounds = 5;

    /// <summary>Starts a controller, lays the objects, and measures each reading in processes of their own, in turn.</summary>
    public static async Task<int> RunAsync()
    {
        var controller = new Controller();
        await controller.InitializeAsync();
        await using var _ = controller;
        Environment.SetEnvironmentVariable("BENCH_PASSWORD", controller.Password);
        Lay(new RawClient(controller.Target, controller.Target.SignInAs, controller.Password));
        var times = new Dictionary<string, List<double>> { ["paging"] = [], ["sweep"] = [] };
        for (var round = 0; round < Rounds; round++)
            foreach (var reading in times.Keys) times[reading].Add(await InProcessAsync(reading, controller));
        await InProcessAsync("closure", controller);
        var (paging, sweep) = (Median(times["paging"]), Median(times["sweep"]));
        Console.WriteLine(string.Create(
            CultureInfo.InvariantCulture, $"sweep / paging: {sweep / paging:0.00} (the mark is 1.15), medians of {Rounds}"));
        return 0;
    }

    /// <summary>One reading: prints seconds, peak memory and what came out.</summary>
    public static async Task<int> MeasureAsync(string reading, string place, string caFolder)
    {
        var password = Environment.GetEnvironmentVariable("BENCH_PASSWORD")!;
        var target = new LdapTarget(
            Controller.Domain, place, 636, caFolder, "Administrator@fennmoor.example", new NewPassword(password));
        var directory = new LdapDirectory(target, new DirectorySchemas(), TimeProvider.System);
        // a running service has read it once and knows it by its version
        if (reading == "sweep") await directory.SchemaAsync(default);
        var clock = Stopwatch.StartNew();
        var result = reading switch
        {
            "paging" => Page(target, password),
            "sweep" => await SweepAsync(directory),
            _ => await ClosureAsync(directory),
        };
        var seconds = clock.Elapsed.TotalSeconds;
        Console.WriteLine(string.Create(
            CultureInfo.InvariantCulture,
            $"{reading,-8} {seconds:0.00} s, peak {Process.GetCurrentProcess().PeakWorkingSet64 / 1_000_000.0:0} MB, {result}"));
        return 0;
    }

    private static string Page(LdapTarget target, string password)
    {
        using var connection = new LdapConnection(
            new LdapDirectoryIdentifier(target.Controller, target.Port, true, false),
            new NetworkCredential(target.SignInAs, password), AuthType.Basic);
        connection.SessionOptions.ProtocolVersion = 3;
        connection.SessionOptions.SecureSocketLayer = true;
        if (!OperatingSystem.IsWindows())
        {
            connection.SessionOptions.TrustedCertificatesDirectory = target.CaFolder;
            connection.SessionOptions.StartNewTlsSessionContext();
        }

        connection.Bind();
        var paging = new PageResultRequestControl(500);
        long objects = 0, bytes = 0;
        do
        {
            var request = new SearchRequest(
                People, "(objectClass=*)", SearchScope.Subtree, "nTSecurityDescriptor", "objectClass", "objectSid", "adminCount");
            request.Controls.Add(paging);
            request.Controls.Add(
                new SecurityDescriptorFlagControl(SecurityMasks.Owner | SecurityMasks.Group | SecurityMasks.Dacl));
            var response = (SearchResponse)connection.SendRequest(request);
            foreach (SearchResultEntry entry in response.Entries)
            {
                objects++;
                foreach (DirectoryAttribute attribute in entry.Attributes.Values)
                    foreach (byte[] value in attribute.GetValues(typeof(byte[]))) bytes += value.Length;
            }

            paging.Cookie = response.Controls.OfType<PageResultResponseControl>().First().Cookie;
        }
        while (paging.Cookie.Length > 0);
        return $"{objects} objects, {bytes} bytes";
    }

    private static async Task<string> SweepAsync(LdapDirectory directory)
    {
        var read = await directory.ReadAsync(
            new DirectoryScope([], ["svc-sweep"]) { Access = new AccessScope([People], [], AllContainers: false) }, default);
        var graph = new MembershipGraph(read);
        var right = new BranchAsked(DirectoryAct.WriteAttributes, ["mail", "roomNumber", "wWWHomePage"], "user", People);
        var sweep = new AccessSweep(new AccessTree(read.Access!), AccessTokens.Of(graph, graph.IndexOf("svc-sweep")));
        var (answer, unseen) = new BranchJudge(sweep, read.DomainSid, sid => ProtectedGroups.Holds(graph, sid)).Judge(right);
        return answer is null ? unseen! : $"{answer.Can} can, {answer.Cannot} cannot, {read.Requests} requests";
    }

    private static async Task<string> ClosureAsync(LdapDirectory directory)
    {
        var read = await directory.ReadAsync(
            new DirectoryScope([.. Enumerable.Range(0, Branches / 2).Select(Branch)], []), default);
        var graph = new MembershipGraph(read);
        var accounts = Enumerable.Range(0, graph.Count).Where(n => graph.PrincipalOf(n) is { PrimaryGroupRid: > 0 }).ToList();
        var memberships = accounts.Sum(a => graph.Closure(a).Count);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{accounts.Count} accounts, {memberships} memberships, {read.Requests} requests: one for every {(double)accounts.Count / read.Requests:0} accounts (the mark is 20)");
    }

    private static string Branch(int number) => $"OU=branch{number},{People}";

    private static void Lay(RawClient raw)
    {
        raw.Do(new AddRequest(People, "organizationalUnit"));
        raw.Do(new AddRequest($"CN=svc-sweep,CN=Users,{Root}", [new("objectClass", "user"), new("sAMAccountName", "svc-sweep")]));
        var clock = Stopwatch.StartNew();
        for (var branch = 0; branch < Branches; branch++)
        {
            raw.Do(new AddRequest(Branch(branch), "organizationalUnit"));
            for (var i = 0; i < PeopleInEach; i++)
                raw.Do(new AddRequest(
                    $"CN=p{branch}-{i},{Branch(branch)}", [new("objectClass", "user"), new("sAMAccountName", $"p{branch}-{i}")]));
            Console.Error.WriteLine($"{(branch + 1) * PeopleInEach} objects laid in {clock.Elapsed.TotalSeconds:0} s");
        }

        for (var group = 0; group < Groups; group++)
        {
            var members = Enumerable.Range(0, 150)
                .Select(i =>
                    $"CN=p{(group + i) % Branches}-{((group * 37) + (i * 11)) % PeopleInEach},{Branch((group + i) % Branches)}")
                .Distinct();
            raw.Do(new AddRequest($"CN=g{group},CN=Users,{Root}", [
                new("objectClass", "group"), new("sAMAccountName", $"g{group}"),
                new(
                    "member",
                    [.. members.Append(group % 5 > 0 ? $"CN=g{group - 1},CN=Users,{Root}" : $"CN=svc-sweep,CN=Users,{Root}")]),
            ]));
        }
    }

    private static Task<double> InProcessAsync(string reading, Controller controller) =>
        OwnProcess.MeasureAsync(1, "directory", reading, Controller.Address, controller.CaFolder);

    private static double Median(List<double> values) => values.Order().ElementAt(values.Count / 2);
}
