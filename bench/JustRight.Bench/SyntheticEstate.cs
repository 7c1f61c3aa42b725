using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Bench;

/// <summary>
/// A made-up estate of any size, the same for the same size. At size 1: 100,000 accounts, 20,000 groups nested 8 deep, 2,000
/// hosts, and 1,000 installs of 10 accounts on 20 hosts each.
/// </summary>
internal sealed class SyntheticEstate
{
    private const int AccountsOfInstall = 10;
    private const int HostsOfInstall = 20;
    private const int Depth = 8;
    private static readonly Sid DomainSid = Sid.Parse("S-1-5-21-1-2-3");
    private static readonly Origin Line = new("synthetic.yaml", 1, 1);
    private readonly int _accounts;
    private readonly int _groups;
    private readonly int _hosts;

    public SyntheticEstate(double size)
    {
        _accounts = (int)(100_000 * size);
        _groups = (int)(20_000 * size);
        _hosts = (int)(2_000 * size);
        Installs = (int)(1_000 * size);
        Sheet = MakeSheet();
        Estate = MakeEstate();
    }

    public int Installs { get; }

    public Sheet Sheet { get; }

    public Estate Estate { get; }

    /// <summary>Install <paramref name="number"/>: its own ten accounts, and twenty hosts of which it shares some with others.</summary>
    public Install Install(int number) => new(
        $"install-{number}", "sample", "1.0", "synthetic", Stage.Installed,
        new Dictionary<string, PlaceBinding>
        {
            ["web"] = new(
            [.. Enumerable.Range(0, HostsOfInstall).Select(h => Host(((number * 2) + (h * 7)) % _hosts))], Line)
        },
        Enumerable.Range(0, AccountsOfInstall)
            .ToDictionary(a => $"a{a}", a => new NameChoice($"u{((number * AccountsOfInstall) + a) % _accounts}", true, Line)),
        new Dictionary<string, NameChoice>(), new Dictionary<string, Answer>(), new Dictionary<string, AlternativeChoice>(),
        Line);

    /// <summary>The directory: each account is in two groups, and groups are nested in chains of eight that share their tops.</summary>
    public DirectorySnapshot Directory()
    {
        var members = new List<Sid>[_groups];
        for (var g = 0; g < _groups; g++) members[g] = [];
        for (var a = 0; a < _accounts; a++)
        {
            members[a * Depth % _groups].Add(User(a));
            members[(a * Depth * 3) % _groups].Add(User(a));
        }

        for (var g = 0; g < _groups; g++)
            if (g % Depth != Depth - 1) members[g + 1].Add(Group(g));
        var principals = new List<DirectoryPrincipal>(
            _accounts + _groups + 1) { new(DomainSid.Append(513), PrincipalKind.Group, "Domain Users", "CN=Domain Users") };
        for (var a = 0; a < _accounts; a++)
            principals.Add(new DirectoryPrincipal(
                User(a), PrincipalKind.User, $"u{a}", $"CN=u{a},OU=x")
            { PrimaryGroupRid = 513 });
        for (var g = 0; g < _groups; g++)
            principals.Add(new DirectoryPrincipal(
                Group(g), PrincipalKind.Group, $"g{g}", $"CN=g{g},OU=x")
            { Members = members[g] });
        return new DirectorySnapshot("SYNTH", DomainSid, "none", DateTimeOffset.UnixEpoch, principals, [], null);
    }

    /// <summary>The survey: the directory, and hosts whose Administrators hold the tops of chains and some accounts.</summary>
    public Survey Survey() =>
        new("synthetic", DateTimeOffset.UnixEpoch, true, Directory(), [.. Enumerable.Range(0, _hosts).Select(HostSnapshot)], []);

    private HostSnapshot HostSnapshot(int number)
    {
        var tops = Enumerable.Range(0, 10).Select(i => Group(((((number * 13) + i) * Depth) + Depth - 1) % _groups)).Distinct();
        var users = Enumerable.Range(0, 20).Select(i => User(((number * 5) + i) % _accounts));
        return new HostSnapshot(
            Host(number), DateTimeOffset.UnixEpoch, null,
            [
                new LocalGroup("Administrators", Sid.Parse("S-1-5-32-544"), [.. tops]),
                new LocalGroup("Users", Sid.Parse("S-1-5-32-545"), [DomainSid.Append(513)])],
            [
                new LogonList("SeServiceLogonRight", [.. users]),
                new LogonList("SeBatchLogonRight", [Sid.Parse("S-1-5-32-544")])], []);
    }

    private static Sheet MakeSheet()
    {
        var needs = new NeedClause[]
        {
            new Need(NeedKind.LocalGroup, "Administrators", "web", null, null, GivenBy.Us, Until.Always, null, null, null, Line),
            new Need(NeedKind.Logon, "service", "web", null, null, GivenBy.Us, Until.Always, null, null, null, Line),
        };
        return new Sheet(
            "sample", "1.0", "Sample", "none", [new Place("web", PlaceKind.Host, 1, int.MaxValue, null, null, Line)], [], [], [],
            [.. Enumerable.Range(0, AccountsOfInstall).Select(a =>
                new SheetAccount($"a{a}", "runs", WorksAs.Service, false, needs, [], Line))], [], [], Line);
    }

    private Estate MakeEstate() => new(
        "synthetic", "Synthetic", new Domain("synth.example", "SYNTH"), new DirectoryReach(
            Reach.Simulation, null, 636, null, null, null, Line),
        [new Branch("x", DistinguishedName.Parse("OU=x,DC=synth,DC=example"), Line)],
        new Naming(
            "svc-{product}-{account}", "app-{product}-{group}", "", "x", "x", new Dictionary<string, string>(),
            new Dictionary<string, Origin>(), Line),
        [.. Enumerable.Range(0, _hosts).Select(h =>
            new EstateHost(Host(h), Reach.Simulation, Line))], [], new OrganizationRules([], null, []), Line);

    private static Sid User(int number) => DomainSid.Append(1_000_000 + (uint)number);

    private static Sid Group(int number) => DomainSid.Append(10_000 + (uint)number);

    private static string Host(int number) => $"h{number}";
}
