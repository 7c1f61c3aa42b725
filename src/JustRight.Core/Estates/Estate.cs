using System.Globalization;
using JustRight.Core.Conditions;
using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;

namespace JustRight.Core.Estates;

/// <summary>The administrator's own surroundings.</summary>
public sealed record Estate(
    string Name,
    string Title,
    Domain Domain,
    DirectoryReach Directory,
    IReadOnlyList<Branch> Branches,
    Naming Naming,
    IReadOnlyList<EstateHost> Hosts,
    IReadOnlyList<EstateInstance> Instances,
    OrganizationRules Rules,
    Origin At)
{
    private readonly Lazy<Dictionary<string, EstateHost>> _hosts = new(() =>
        Hosts.ToDictionary(h => h.Name, StringComparer.OrdinalIgnoreCase));
    private readonly Lazy<ILookup<string, EstateInstance>> _instances = new(() =>
        Instances.SelectMany(i => i.Names.Select(n => (n, i))).ToLookup(n => n.n, n => n.i, StringComparer.OrdinalIgnoreCase));

    /// <summary>What an install writes for a branch place that is the whole domain.</summary>
    public const string WholeDomain = "everywhere";

    /// <summary>The directories that people sign in to products with.</summary>
    public IReadOnlyList<PeopleDirectory> PeopleDirectories { get; init; } = [];

    /// <summary>How many hosts are read at a time.</summary>
    public int HostsSideBySide { get; init; } = 16;

    /// <summary>Whether anything of this estate is simulated.</summary>
    public bool IsSimulated => Directory.Reach == Reach.Simulation;

    /// <summary>The estate that this one is a rehearsal of; null for any other.</summary>
    public string? Rehearses { get; init; }

    /// <summary>
    /// Whether it is a rehearsal: its names are those of real systems, and nothing of it may reach one, or come from one.
    /// </summary>
    public bool IsRehearsal => Rehearses is not null;

    /// <summary>A host by name, without regard to case, or null.</summary>
    public EstateHost? Host(string name) => _hosts.Value.GetValueOrDefault(name);

    /// <summary>An instance by any of its names, without regard to case, or null.</summary>
    public EstateInstance? Instance(string name) => _instances.Value[name].FirstOrDefault();

    /// <summary>Names that more than one instance has, with these.</summary>
    public IEnumerable<(string Name, IReadOnlyList<EstateInstance> Instances)> AmbiguousInstances =>
        _instances.Value.Select(g => (g.Key, (IReadOnlyList<EstateInstance>)[.. g.Distinct()])).Where(n => n.Item2.Count > 1);

    /// <summary>
    /// The other instances that may come to run the databases of one: those that it names as partner or that name it, and
    /// theirs in turn; in the order of the estate.
    /// </summary>
    public IReadOnlyList<EstateInstance> PartnersOf(EstateInstance instance)
    {
        var together = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { instance.Name };
        while (Instances.FirstOrDefault(i =>
            PartnerOf(i) is { } partner && together.Contains(i.Name) != together.Contains(partner)) is { } more)
            together.UnionWith([more.Name, PartnerOf(more)!]);
        return [.. Instances.Where(i => i.Name != instance.Name && together.Contains(i.Name))];

        string? PartnerOf(EstateInstance i) => i.Partner is { } partner ? Instance(partner)?.Name : null;
    }
}

/// <summary>A domain of the directory.</summary>
/// <param name="DnsName">Such as <c>fennmoor.example</c>.</param>
/// <param name="ShortName">Such as <c>FENNMOOR</c>.</param>
public sealed record Domain(string DnsName, string ShortName)
{
    /// <summary>The distinguished name of the domain's root.</summary>
    public string Root => string.Join(',', DnsName.Split('.').Select(p => "DC=" + p));
}

/// <summary>How a part of the estate is reached.</summary>
public enum Reach
{
    /// <summary>The simulated estate that ships with the product.</summary>
    Simulation,

    /// <summary>A directory over LDAP with TLS from the start.</summary>
    Ldaps,

    /// <summary>A directory that no connection is allowed to: read from a file that somebody else wrote, never changed.</summary>
    File,

    /// <summary>A host over SSH.</summary>
    Ssh,

    /// <summary>A host that its owner reads and changes: scripts go out, host facts come in.</summary>
    HandedOver,

    /// <summary>A database instance over its own protocol with TLS.</summary>
    Tls,

    /// <summary>Not at all yet: everything there is unseen.</summary>
    None,
}

/// <summary>How the directory is reached.</summary>
/// <param name="Controller">The controller's host name, which its certificate must carry.</param>
/// <param name="Port">TCP port; 636 unless said otherwise.</param>
/// <param name="CaFolder">A folder with the certificates of the authorities to trust, PEM.</param>
/// <param name="SignInAs">The account to bind as: a DN, a UPN or <c>DOMAIN\name</c>.</param>
/// <param name="Secret">The name of the secret, kept by the service, that holds its password.</param>
public sealed record DirectoryReach(
    Reach Reach, string? Controller, int Port, string? CaFolder, string? SignInAs, string? Secret, Origin At)
{
    /// <summary>
    /// Further controllers of the domain, as host or <c>host:port</c>, asked in this order when the first does not answer.
    /// </summary>
    public IReadOnlyList<string> MoreControllers { get; init; } = [];

    /// <summary>
    /// A folder with a copy of the policies' templates, as they lie on the controllers' file share under <c>Policies</c>; null
    /// when there is none.
    /// </summary>
    public string? PolicyFolder { get; init; }
}

/// <summary>A branch of the directory, by a key of the organization's own.</summary>
public sealed record Branch(string Key, DistinguishedName Name, Origin At);

/// <summary>How the organization names things.</summary>
/// <param name="Accounts">Pattern for accounts, with <c>{product}</c> and <c>{account}</c>.</param>
/// <param name="Groups">Pattern for groups, with <c>{product}</c> and <c>{group}</c>.</param>
/// <param name="Description">Pattern for descriptions, with <c>{purpose} {title} {product} {release} {install}</c>.</param>
/// <param name="AccountsIn">Where accounts are kept, as <see cref="ProductBranches"/> reads it.</param>
/// <param name="GroupsIn">Where groups are kept, likewise.</param>
/// <param name="ShortNames">Shorter names for products, for use in names.</param>
/// <param name="Lines">Where each key stands, for faults.</param>
public sealed record Naming(
    string Accounts, string Groups, string Description, string AccountsIn, string GroupsIn, IReadOnlyDictionary<string,
    string> ShortNames,
    IReadOnlyDictionary<string, Origin> Lines, Origin At)
{
    /// <summary>
    /// Where accounts are kept that products bind as, likewise; where accounts are unless the organization says otherwise.
    /// </summary>
    public string BindAccountsIn { get; init; } = AccountsIn;
}

/// <summary>A host.</summary>
public sealed record EstateHost(string Name, Reach Reach, Origin At)
{
    /// <summary>When its services may be restarted; null for at any time.</summary>
    public DailyWindow? Restarts { get; init; }

    /// <summary>How it is reached over SSH; null for other hosts.</summary>
    public SshReach? Ssh { get; init; }
}

/// <summary>How a host is reached over SSH.</summary>
/// <param name="Address">Name or address to connect to.</param>
/// <param name="Port">TCP port; 22 unless said otherwise.</param>
/// <param name="HostKey">The fingerprint of its host key, as <c>SHA256:…</c>: another key is refused.</param>
/// <param name="SignInAs">The account to sign in as.</param>
/// <param name="Secret">The name of the secret, kept by the service, that holds its private key or its password.</param>
/// <param name="Timeout">How long one run of a script may take.</param>
public sealed record SshReach(string Address, int Port, string HostKey, string SignInAs, string Secret, TimeSpan Timeout);

/// <summary>A database instance.</summary>
/// <param name="Release">Its release, or null when the organization has not said.</param>
public sealed record EstateInstance(string Name, string Host, string Engine, DottedNumber? Release, Reach Reach, Origin At)
{
    /// <summary>How it is reached over TLS; null for other instances.</summary>
    public InstanceReach? Tls { get; init; }

    /// <summary>Its TCP port: as it is reached, or else the usual one of its family.</summary>
    public int Port => Tls?.Port ?? UsualPort(Engine);

    /// <summary>The TCP port on which a family of databases listens unless it is told otherwise.</summary>
    public static int UsualPort(string engine) => engine == "postgresql" ? 5432 : 1433;

    /// <summary>What it is called elsewhere: by its port, as a named instance, by the name of its cluster or listener.</summary>
    public IReadOnlyList<string> OtherNames { get; init; } = [];

    /// <summary>All that it is called: its name first.</summary>
    public IEnumerable<string> Names =>
    [
        Name, .. OtherNames,
        .. Tls is { } tls
            ? new[] { tls.Address, Host }.Distinct(StringComparer.OrdinalIgnoreCase).SelectMany(WithPort)
            : [],
    ];

    private IEnumerable<string> WithPort(string host) =>
        new[] { ',', ':' }.Select(parted => string.Create(CultureInfo.InvariantCulture, $"{host}{parted}{Tls!.Port}"));

    /// <summary>
    /// The instance that takes its databases over when it fails, and whose it takes over; null when there is none.
    /// </summary>
    public string? Partner { get; init; }
}

/// <summary>How a database instance is reached over its own protocol with TLS.</summary>
/// <param name="Address">Name or address to connect to, which its certificate must carry unless that one certificate is
/// named.</param>
/// <param name="Port">TCP port.</param>
/// <param name="Certificate">A PEM file: for the SQL Server family the very certificate it must show, for the PostgreSQL family
/// the authority to trust; null to trust what the system trusts.</param>
/// <param name="SignInAs">The login to sign in as: one of the instance's own, with a password.</param>
/// <param name="Secret">The name of the secret, kept by the service, that holds its password.</param>
/// <param name="Timeout">How long one query may take.</param>
public sealed record InstanceReach(
    string Address, int Port, string? Certificate, string SignInAs, string Secret, TimeSpan Timeout);

/// <summary>The organization's own rules.</summary>
/// <param name="Forbidden">What no service account may hold.</param>
/// <param name="SurveyNoOlderThan">The age beyond which a survey proves nothing, or null for no limit.</param>
/// <param name="AllowedSharing">Accounts that a sheet separates and the organization lets be one, with the reason.</param>
public sealed record OrganizationRules(
    IReadOnlyList<ForbiddenHolding> Forbidden, TimeSpan? SurveyNoOlderThan, IReadOnlyList<AllowedSharing> AllowedSharing)
{
    /// <summary>The age beyond which what was read of a host proves nothing; null for the same as surveys.</summary>
    public TimeSpan? HostFactsNoOlderThan { get; init; }

    /// <summary>What holds for passwords that we change.</summary>
    public PasswordRules Passwords { get; init; } = PasswordRules.Usual;

    /// <summary>The organization's time zone, for times of day.</summary>
    public TimeZoneInfo TimeZone { get; init; } = TimeZoneInfo.Utc;

    /// <summary>What holds for reviews.</summary>
    public ReviewRules Reviews { get; init; } = ReviewRules.Usual;

    /// <summary>What holds for what is retired.</summary>
    public RetireRules Retire { get; init; } = RetireRules.Usual;

    /// <summary>
    /// Who owns a database after an account that shall not own it any more: by instance, a login or a role that is there.
    /// </summary>
    public IReadOnlyDictionary<string, string> NewOwners { get; init; } = new Dictionary<string, string>(
        StringComparer.OrdinalIgnoreCase);

    /// <summary>What accounts are kept from, whatever their sheets say.</summary>
    public IReadOnlyList<KeptOutRule> KeptOut { get; init; } = [];

    /// <summary>Whether what changes the estate needs a second person's approval.</summary>
    public bool TwoPersonApproval { get; init; }

    /// <summary>How often the estate is looked at by itself; null when it is not.</summary>
    public ScheduleRules? Schedule { get; init; }

    /// <summary>Who is told.</summary>
    public NotificationRules Notifications { get; init; } = NotificationRules.Nobody;

    /// <summary>
    /// A day stands for its noon in the organization: that is the same day for whoever reads it elsewhere, and no clock changes
    /// then.
    /// </summary>
    public DateTimeOffset NoonOf(DateOnly day)
    {
        var noon = day.ToDateTime(new TimeOnly(12, 0));
        return new DateTimeOffset(noon, TimeZone.GetUtcOffset(noon));
    }

    /// <summary>
    /// The moment at which a day is over in the organization. Where the clock jumps at that midnight, it is the moment of the
    /// jump.
    /// </summary>
    public DateTimeOffset EndOf(DateOnly day)
    {
        var midnight = day.AddDays(1).ToDateTime(TimeOnly.MinValue);
        return new DateTimeOffset(midnight, TimeZone.GetUtcOffset(midnight));
    }
}

/// <summary>A sharing that the organization allows.</summary>
public sealed record AllowedSharing(string Install, IReadOnlyList<string> Accounts, string Why, Origin At);
