namespace JustRight.Core.Rights;

/// <summary>
/// Something of a host or an instance that a right is a right in, and that must be there before the right can be given. A closed
/// hierarchy.
/// </summary>
public abstract record PlacePart
{
    private protected PlacePart()
    {
    }
}

/// <summary>A local group of a host.</summary>
public sealed record LocalGroupPart(string Host, string Group) : PlacePart;

/// <summary>A role of a database instance.</summary>
public sealed record InstanceRolePart(string Instance, string Role) : PlacePart;

/// <summary>A database.</summary>
public sealed record DatabasePart(string Instance, string Database) : PlacePart;

/// <summary>A role in a database.</summary>
public sealed record DatabaseRolePart(string Instance, string Database, string Role) : PlacePart;
