using JustRight.Core.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Differential;

/// <summary>
/// One account, one host and one instance of the SQL Server family with one database, in names: who is in what, who stands on
/// which list. Local groups are written with their host's sign, <c>@Operators</c>.
/// </summary>
internal sealed record SmallWorld
{
    public const string Account = "svc-poller";
    public const string Host = "fm-temp01";
    public const string Instance = "fm-sql01";
    public const string Database = "Store";
    public const string Everyone = "Everyone";
    public const string DomainUsers = "Domain Users";
    public const string Service = "SERVICE";
    public const string Public = "public";

    public static readonly string[] Groups = ["g0", "g1", "g2", "g3"];
    public static readonly string[] LocalGroups = ["Administrators", "Operators"];

    public static readonly string[] Lists =
    [
        "SeServiceLogonRight", "SeDenyServiceLogonRight", "SeBatchLogonRight", "SeDenyBatchLogonRight",
        "SeIncreaseQuotaPrivilege",
    ];

    public static readonly string[] InstanceRoles = ["sysadmin", "dbcreator", "pourers"];
    public static readonly string[] DatabaseRoles = ["db_owner", "db_datareader", "db_denydatareader", "clerks"];

    /// <summary>The members of each domain group.</summary>
    public required IReadOnlyDictionary<string, string[]> Members { get; init; }

    /// <summary>Groups for mail alone: they carry nothing.</summary>
    public required IReadOnlySet<string> ForMail { get; init; }

    /// <summary>The members of each local group.</summary>
    public required IReadOnlyDictionary<string, string[]> Local { get; init; }

    /// <summary>Who stands on each list of the host.</summary>
    public required IReadOnlyDictionary<string, string[]> OnList { get; init; }

    /// <summary>Who has a login.</summary>
    public required IReadOnlyList<Entrant> Logins { get; init; }

    /// <summary>The roles of the instance: their members by name, and other roles with a colon before their name.</summary>
    public required IReadOnlyDictionary<string, string[]> Roles { get; init; }

    /// <summary>What is granted and denied at the instance.</summary>
    public required IReadOnlyList<Entry> Entries { get; init; }

    /// <summary>Who is a user of the database.</summary>
    public required IReadOnlyList<Entrant> Users { get; init; }

    /// <summary>The roles of the database, as those of the instance.</summary>
    public required IReadOnlyDictionary<string, string[]> RolesWithin { get; init; }

    /// <summary>What is granted and denied in the database.</summary>
    public required IReadOnlyList<Entry> EntriesWithin { get; init; }

    /// <summary>Whether the account owns the database.</summary>
    public required bool IsOwner { get; init; }

    /// <summary>Whether whoever has a login may enter the database.</summary>
    public required bool AdmitsGuests { get; init; }

    /// <summary>The world as a survey tells it, with some parts of it hidden from the reader.</summary>
    public FitScene Scene(Hidden hidden)
    {
        var scene = new FitScene().Account(SmallWorld.Account);
        foreach (var group in Groups) scene.Group(group);
        foreach (var group in Groups)
        {
            var isHidden = hidden.Groups.Contains(group);
            scene.Replace(group, p => p with
            {
                Members = isHidden ? [] : [.. Members[group].Select(m => SidOf(scene, m))],
                MembersUnread = isHidden ? "access denied" : null,
                IsSecurity = !ForMail.Contains(group),
            });
        }

        scene.Host(Host, []).Of(Host, h => HostOf(scene, h, hidden));
        scene.Instance(Instance, []).OfInstance(Instance, i => InstanceOf(scene, i, hidden));
        return scene;
    }

    private HostSnapshot HostOf(FitScene scene, HostSnapshot empty, Hidden hidden)
    {
        if (hidden.Host) return HostSnapshot.NotRead(Host, empty.ReadAt, "no answer");
        return empty with
        {
            LocalGroups =
            [
                .. LocalGroups.Where(g => !hidden.LocalGroups && !hidden.Lists.Contains(g))
                    .Select(g => new LocalGroup(g, LocalSid(g), [.. Local[g].Select(m => SidOf(scene, m))])),
            ],
            LogonLists =
            [
                .. Lists.Where(l => !hidden.Lists.Contains(l))
                    .Select(l => new LogonList(l, [.. OnList[l].Select(m => SidOf(scene, m))])),
            ],
            UnreadParts =
            [
                .. hidden.Lists.Select(l => new UnreadPart(l, "access denied")),
                .. new[] { HostSnapshot.LocalGroupsPart }.Where(_ => hidden.LocalGroups)
                    .Select(p => new UnreadPart(p, "access denied")),
            ],
        };
    }

    private InstanceSnapshot InstanceOf(FitScene scene, InstanceSnapshot empty, Hidden hidden)
    {
        if (hidden.Instance) return InstanceSnapshot.NotRead(Instance, "sqlserver", empty.ReadAt, "no answer");
        return empty with
        {
            Host = Host,
            Logins = [.. Logins.Select(l => LoginOf(scene, l))],
            Roles = [.. InstanceRoles.Select(r => RoleOf(scene, r, Roles[r]))],
            Permissions = hidden.Permissions ? [] : [.. Entries.Select(e => EntryOf(scene, e))],
            UnreadParts = hidden.Permissions ? [new UnreadPart(InstanceSnapshot.PermissionsPart, "access denied")] : [],
            Databases = [hidden.Database
                ? new DatabaseSnapshot(Database, IsOwner ? scene.SidOf(Account) : default, "access denied", [], [])
                : new DatabaseSnapshot(
                    Database, IsOwner ? scene.SidOf(Account) : default, null, [.. Users.Select(u => LoginOf(scene, u))],
                    [.. DatabaseRoles.Select(r => RoleOf(scene, r, RolesWithin[r]))])
                {
                    Permissions = hidden.Permissions ? [] : [.. EntriesWithin.Select(e => EntryOf(scene, e))],
                    AdmitsGuests = AdmitsGuests,
                }],
        };
    }

    private static InstanceLogin LoginOf(FitScene scene, Entrant who) =>
        new(SidOf(scene, who.Name), who.Name.StartsWith('@') ? $"{Host}\\{who.Name[1..]}" : who.Name)
        {
            Disabled = who.Disabled,
            MayConnect = who.MayConnect,
        };

    private static RoleMembers RoleOf(FitScene scene, string role, string[] members) => new(
        role, [.. members.Where(m => !m.StartsWith(':')).Select(m => SidOf(scene, m))],
        [.. members.Where(m => m.StartsWith(':')).Select(m => m[1..])]);

    private static PermissionEntry EntryOf(FitScene scene, Entry entry) => new(
        entry.Permission, entry.Denies ? PermissionState.Deny : PermissionState.Grant,
        entry.Holder.StartsWith(':') ? default : SidOf(scene, entry.Holder),
        entry.Holder.StartsWith(':') ? entry.Holder[1..] : null)
    {
        On = entry.On,
    };

    private static Sid LocalSid(string group) => group == "Administrators"
        ? Sid.Parse("S-1-5-32-544")
        : Sid.Parse("S-1-5-21-77-78-79-1005");

    private static Sid SidOf(FitScene scene, string name) => name switch
    {
        Everyone => Sid.Everyone,
        Service => Sid.Parse("S-1-5-6"),
        _ when name.StartsWith('@') => LocalSid(name[1..]),
        _ => scene.SidOf(name),
    };
}

/// <summary>Somebody with a login or a user.</summary>
internal sealed record Entrant(string Name, bool Disabled, bool MayConnect);

/// <summary>Something granted or denied.</summary>
/// <param name="Holder">By name, or a role with a colon before its name.</param>
internal sealed record Entry(string Permission, string? On, bool Denies, string Holder);

/// <summary>What the reader of a world may not see.</summary>
internal sealed record Hidden
{
    public static Hidden Nothing { get; } = new();

    public IReadOnlyList<string> Groups { get; init; } = [];

    public IReadOnlyList<string> Lists { get; init; } = [];

    public bool LocalGroups { get; init; }

    public bool Host { get; init; }

    public bool Permissions { get; init; }

    public bool Database { get; init; }

    public bool Instance { get; init; }

    public override string ToString()
    {
        (bool Is, string Name)[] wholes =
        [
            (LocalGroups, "local groups"), (Host, "host"), (Permissions, "permissions"), (Database, "database"),
            (Instance, "instance"),
        ];
        return string.Join(", ", [.. Groups, .. Lists, .. wholes.Where(w => w.Is).Select(w => w.Name)]);
    }
}
