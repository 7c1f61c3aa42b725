using JustRight.Core.Sheets;

namespace JustRight.Core.Changes;

/// <summary>A change of a database instance.</summary>
public abstract record InstanceChange(string Instance, string Principal) : Change
{
    /// <inheritdoc/>
    public override Team Team => Team.Database;

    /// <inheritdoc/>
    public override string Place => Instance;

    /// <summary>One family folds no names: two changes that differ by case alone are two.</summary>
    public sealed override string Key => Words;
}

/// <summary>Creates a login for a domain principal.</summary>
public sealed record CreateLogin(string Instance, string Principal) : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"create the login {Principal} on {Instance}";

    /// <inheritdoc/>
    public override Change? Inverse => new DropLogin(Instance, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Login(Instance, Principal)];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Principal)];
}

/// <summary>Drops a login.</summary>
public sealed record DropLogin(string Instance, string Principal) : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"drop the login {Principal} on {Instance}";

    /// <inheritdoc/>
    public override Change? Inverse => new CreateLogin(Instance, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Principal))];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Without(Thing.Login(Instance, Principal))];
}

/// <summary>Puts a login into a role of the instance.</summary>
public sealed record AddInstanceRoleMember(string Instance, string Role, string Principal) : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"add {Principal} to the role {Role} of {Instance}";

    /// <inheritdoc/>
    public override Change? Inverse => new RemoveInstanceRoleMember(Instance, Role, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Login(Instance, Principal)];
}

/// <summary>Takes a login out of a role of the instance.</summary>
public sealed record RemoveInstanceRoleMember(string Instance, string Role, string Principal)
    : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"remove {Principal} from the role {Role} of {Instance}";

    /// <inheritdoc/>
    public override Change? Inverse => new AddInstanceRoleMember(Instance, Role, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Login(Instance, Principal))];
}

/// <summary>Gives a database another owner.</summary>
/// <param name="Former">Who owned it, as the instance calls it; null when that is not known, and then it cannot be
/// undone.</param>
public sealed record ChangeDatabaseOwner(string Instance, string Database, string Principal, string? Former)
    : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"make {Principal} the owner of {Instance}/{Database}";

    /// <inheritdoc/>
    public override Change? Inverse => Former is null ? null : new ChangeDatabaseOwner(Instance, Database, Former, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn =>
        [Thing.Login(Instance, Principal), Thing.Without(Thing.User(Instance, Database, Principal))];
}

/// <summary>Creates a user of a database for a login.</summary>
public sealed record CreateDatabaseUser(string Instance, string Database, string Principal) : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"create the user {Principal} in {Instance}/{Database}";

    /// <inheritdoc/>
    public override Change? Inverse => new DropDatabaseUser(Instance, Database, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.User(Instance, Database, Principal)];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Login(Instance, Principal)];
}

/// <summary>Drops a user of a database.</summary>
public sealed record DropDatabaseUser(string Instance, string Database, string Principal) : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"drop the user {Principal} in {Instance}/{Database}";

    /// <inheritdoc/>
    public override Change? Inverse => new CreateDatabaseUser(Instance, Database, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes =>
        [Thing.Without(Thing.Login(Instance, Principal)), Thing.Without(Thing.User(Instance, Database, Principal))];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Without(Thing.User(Instance, Database, Principal))];
}

/// <summary>Puts a user into a role of a database.</summary>
public sealed record AddDatabaseRoleMember(string Instance, string Database, string Role, string Principal)
    : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"add {Principal} to the role {Role} in {Instance}/{Database}";

    /// <inheritdoc/>
    public override Change? Inverse => new RemoveDatabaseRoleMember(Instance, Database, Role, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.User(Instance, Database, Principal)];
}

/// <summary>Takes a user out of a role of a database.</summary>
public sealed record RemoveDatabaseRoleMember(string Instance, string Database, string Role, string Principal)
    : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"remove {Principal} from the role {Role} in {Instance}/{Database}";

    /// <inheritdoc/>
    public override Change? Inverse => new AddDatabaseRoleMember(Instance, Database, Role, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.User(Instance, Database, Principal))];
}

/// <summary>Grants a permission at an instance to a login.</summary>
public sealed record GrantInstancePermission(string Instance, string Permission, string Principal)
    : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"grant {Permission} on {Instance} to {Principal}";

    /// <inheritdoc/>
    public override Change? Inverse => new RevokeInstancePermission(Instance, Permission, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Login(Instance, Principal)];
}

/// <summary>Takes a granted permission at an instance away from a login.</summary>
public sealed record RevokeInstancePermission(string Instance, string Permission, string Principal)
    : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words => $"revoke {Permission} on {Instance} from {Principal}";

    /// <inheritdoc/>
    public override Change? Inverse => new GrantInstancePermission(Instance, Permission, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Login(Instance, Principal))];
}

/// <summary>Grants a permission in a database to a user of it.</summary>
/// <param name="On"><c>SCHEMA::name</c>, <c>OBJECT::schema.name</c>, or null for the database itself.</param>
public sealed record GrantDatabasePermission(string Instance, string Database, string Permission, string? On, string Principal)
    : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words =>
        $"grant {Permission}{(On is null ? "" : $" on {On}")} in {Instance}/{Database} to {Principal}";

    /// <inheritdoc/>
    public override Change? Inverse => new RevokeDatabasePermission(Instance, Database, Permission, On, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn =>
        [Thing.User(Instance, Database, Principal), Thing.Login(Instance, Principal)];
}

/// <summary>Takes a granted permission in a database away from a user of it.</summary>
/// <param name="On"><c>SCHEMA::name</c>, <c>OBJECT::schema.name</c>, or null for the database itself.</param>
public sealed record RevokeDatabasePermission(string Instance, string Database, string Permission, string? On, string Principal)
    : InstanceChange(Instance, Principal)
{
    /// <inheritdoc/>
    public override string Words =>
        $"revoke {Permission}{(On is null ? "" : $" on {On}")} in {Instance}/{Database} from {Principal}";

    /// <inheritdoc/>
    public override Change? Inverse => new GrantDatabasePermission(Instance, Database, Permission, On, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.User(Instance, Database, Principal))];
}
