using System.Collections.Frozen;
using JustRight.Core.Hosts;

namespace JustRight.Core.Sheets;

/// <summary>The team that can make a grant.</summary>
public enum Team
{
    /// <summary>Owns the directory.</summary>
    Directory,

    /// <summary>Owns the servers.</summary>
    Host,

    /// <summary>Owns the database instances.</summary>
    Database,

    /// <summary>Runs the product itself.</summary>
    Product,
}

/// <summary>The kinds of place a need can hold at.</summary>
public enum PlaceKind
{
    /// <summary>One or more hosts in one role.</summary>
    Host,

    /// <summary>A database instance.</summary>
    Instance,

    /// <summary>One database of an instance.</summary>
    Database,

    /// <summary>A branch of a directory.</summary>
    Branch,
}

/// <summary>The kinds of need of the sheet language.</summary>
public enum NeedKind
{
    /// <summary>A log-on right.</summary>
    Logon,

    /// <summary>The denying twin of a log-on right: the account is kept out.</summary>
    KeptOut,

    /// <summary>A privilege.</summary>
    Privilege,

    /// <summary>Membership of a host's local group.</summary>
    LocalGroup,

    /// <summary>Membership of a domain group.</summary>
    DomainGroup,

    /// <summary>A service principal name of the account itself.</summary>
    Spn,

    /// <summary>Acting at a service, named by its service principal name, as whoever signed in to the account's own.</summary>
    Delegation,

    /// <summary>A role of a database instance.</summary>
    InstanceRole,

    /// <summary>A permission on a database instance.</summary>
    InstancePermission,

    /// <summary>A role in a database.</summary>
    DatabaseRole,

    /// <summary>A permission in a database.</summary>
    DatabasePermission,

    /// <summary>Ownership of a database.</summary>
    DatabaseOwner,

    /// <summary>A right over a branch of the directory.</summary>
    Directory,

    /// <summary>A role inside the product.</summary>
    ProductRole,

    /// <summary>A task: something that a person does, and that no reader can see.</summary>
    Task,

    /// <summary>A service and what it runs as: never written as a need, it follows from the sheet's services.</summary>
    Service,
}

/// <summary>What the language knows of one kind of need. A new kind starts with a row of <see cref="NeedKinds.All"/>.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Key">Its key in a sheet.</param>
/// <param name="Qualifier">The key that names its place, or null when it has none.</param>
/// <param name="Places">The kinds of place that the qualifier may name.</param>
/// <param name="Team">Who can give it.</param>
/// <param name="Values">The only values it takes, or null when any name will do.</param>
public sealed record NeedKindRow(
    NeedKind Kind, string Key, string? Qualifier, IReadOnlyList<PlaceKind> Places, Team Team, IReadOnlyList<string>? Values)
{
    /// <summary>Whether it may be asked for without a place.</summary>
    public bool PlaceIsOptional { get; init; }

    /// <summary>Whether its value is a key of the sheet's own, and no name of something that is there.</summary>
    public bool ValueIsKey { get; init; }
}

/// <summary>The table of need kinds.</summary>
public static class NeedKinds
{
    /// <summary>Every kind, in the order in which the reference lists them.</summary>
    public static IReadOnlyList<NeedKindRow> All { get; } =
    [
        new(NeedKind.Logon, "logon", "on", [PlaceKind.Host], Team.Host, LogonKind.All),
        new(NeedKind.KeptOut, "kept-out", "on", [PlaceKind.Host], Team.Host, LogonKind.All),
        new(NeedKind.Privilege, "privilege", "on", [PlaceKind.Host], Team.Host, Privileges.Constants),
        new(NeedKind.LocalGroup, "local-group", "on", [PlaceKind.Host], Team.Host, null),
        new(NeedKind.DomainGroup, "domain-group", null, [], Team.Directory, null),
        new(NeedKind.Spn, "spn", "on", [PlaceKind.Host, PlaceKind.Instance], Team.Directory, null) { PlaceIsOptional = true },
        new(NeedKind.Delegation, "delegates-to", "on", [PlaceKind.Host, PlaceKind.Instance], Team.Directory, null)
        {
            PlaceIsOptional = true,
        },
        new(NeedKind.InstanceRole, "instance-role", "at", [PlaceKind.Instance, PlaceKind.Database], Team.Database, null),
        new(
            NeedKind.InstancePermission, "instance-permission", "at", [PlaceKind.Instance, PlaceKind.Database], Team.Database,
            null),
        new(NeedKind.DatabaseRole, "database-role", "in", [PlaceKind.Database, PlaceKind.Instance], Team.Database, null),
        new(
            NeedKind.DatabasePermission, "database-permission", "in", [PlaceKind.Database, PlaceKind.Instance], Team.Database,
            null),
        new(NeedKind.DatabaseOwner, "database-owner", "in", [PlaceKind.Database, PlaceKind.Instance], Team.Database, ["yes"]),
        new(
            NeedKind.Directory, "directory", "below", [PlaceKind.Branch], Team.Directory,
            [.. DirectoryActs.All.Select(a => a.Words)]),
        new(NeedKind.ProductRole, "product-role", null, [], Team.Product, null),
        new(
            NeedKind.Task, "task", "on", [PlaceKind.Host, PlaceKind.Instance, PlaceKind.Database, PlaceKind.Branch],
            Team.Product, null)
        {
            PlaceIsOptional = true,
            ValueIsKey = true,
        },
    ];

    /// <summary>The rows by kind, with that of services, which are no needs of their own.</summary>
    public static FrozenDictionary<NeedKind, NeedKindRow> ByKind { get; } =
        All.Append(new NeedKindRow(NeedKind.Service, "service", "on", [PlaceKind.Host], Team.Host, null))
            .ToFrozenDictionary(r => r.Kind);

    /// <summary>Every qualifier that names a place.</summary>
    public static IReadOnlyList<string> Qualifiers { get; } = ["on", "at", "in", "below"];
}
