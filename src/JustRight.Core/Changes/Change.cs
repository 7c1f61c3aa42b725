using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Hosts;
using JustRight.Core.Sheets;

namespace JustRight.Core.Changes;

/// <summary>
/// A change of the estate, as data: who can make it, where, what it does, and what undoes it. The simulation, a live connector
/// and a
/// script all take the same changes. Principals are named <c>DOMAIN\name</c>; no change ever carries a secret.
/// </summary>
public abstract record Change
{
    private protected Change()
    {
    }

    /// <summary>The team that can make it.</summary>
    public abstract Team Team { get; }

    /// <summary>Where it is made: the domain, a host, an instance.</summary>
    public abstract string Place { get; }

    /// <summary>One line that says what it does.</summary>
    public abstract string Words { get; }

    /// <summary>What undoes it, or null when nothing does.</summary>
    public abstract Change? Inverse { get; }

    /// <summary>The logon name of the account whose own object it changes; null for what is about rights, or about others.</summary>
    public virtual string? OwnObject => null;

    /// <summary>What is there once it is made, for others to rest on, by the names of <see cref="Thing"/>.</summary>
    internal virtual IReadOnlyList<string> Makes => [];

    /// <summary>What must be there before it can be made, where another change makes it.</summary>
    internal virtual IReadOnlyList<string> RestsOn => [];

    /// <summary>
    /// The one change that does what this and another do, where both are of one thing that is only changed whole; null otherwise.
    /// </summary>
    internal virtual Change? Joined(Change other) => null;

    /// <summary>Whether it changes nothing by itself but makes an earlier change count: a restart, a refresh.</summary>
    public virtual bool OnlySettles => false;

    /// <summary>Its stable identity: the same change always has the same key.</summary>
    public virtual string Key => Words.ToLowerInvariant();

    /// <summary>What it does. Not its members: an inverse has an inverse.</summary>
    public sealed override string ToString() => Words;
}

/// <summary>A change of the directory.</summary>
public abstract record DirectoryChange(string Domain) : Change
{
    /// <inheritdoc/>
    public override Team Team => Team.Directory;

    /// <inheritdoc/>
    public override string Place => Domain;
}

/// <summary>Creates a branch; its parent must exist.</summary>
public sealed record CreateBranch(string Domain, string Dn) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"create the OU {Dn}";

    /// <inheritdoc/>
    public override Change? Inverse => new DeleteBranch(Domain, Dn);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Branch(Dn)];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.BranchOf(Dn)];
}

/// <summary>Deletes a branch, if it is empty.</summary>
public sealed record DeleteBranch(string Domain, string Dn) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"delete the empty OU {Dn}";

    /// <inheritdoc/>
    public override Change? Inverse => new CreateBranch(Domain, Dn);
}

/// <summary>Creates an account, enabled, with a password of its own that the maker generates.</summary>
/// <param name="Name">The logon name.</param>
/// <param name="Upn">The user principal name.</param>
public sealed record CreateAccount(
    string Domain, string Name, string Dn, string Upn, string Description, bool PasswordNeverExpires)
    : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string? OwnObject => Name;

    /// <summary>
    /// Who made it, when and what for, kept with the object; by this it is known again when it is to be deleted.
    /// </summary>
    public string Note { get; init; } = "";

    /// <inheritdoc/>
    public override string Words => $"create the account {Domain}\\{Name}";

    /// <inheritdoc/>
    public override Change? Inverse => new DeleteAccount(Domain, Name, Dn) { Note = Note };

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Principal(Name)];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.BranchOf(Dn)];
}

/// <summary>Deletes an account. Its SID is gone for good: making it again gives another.</summary>
public sealed record DeleteAccount(string Domain, string Name, string Dn) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string? OwnObject => Name;

    /// <summary>
    /// The note that was written when it was made; an account that does not carry it is another, and is left alone. Empty for
    /// any.
    /// </summary>
    public string Note { get; init; } = "";

    /// <inheritdoc/>
    public override string Words => $"delete the account {Domain}\\{Name}";

    /// <inheritdoc/>
    public override Change? Inverse => null;

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Without(Thing.Principal(Name))];
}

/// <summary>Sets the description of an account and whether its password expires.</summary>
/// <param name="OldDescription">What it said before, for undoing.</param>
/// <param name="OldPasswordNeverExpires">What it was before, for undoing.</param>
public sealed record DescribeAccount(
    string Domain, string Name, string Description, bool PasswordNeverExpires, string OldDescription,
    bool OldPasswordNeverExpires) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string? OwnObject => Name;

    /// <inheritdoc/>
    public override string Words => $"set description and password expiry of {Domain}\\{Name}";

    /// <inheritdoc/>
    public override Change? Inverse =>
        new DescribeAccount(Domain, Name, OldDescription, OldPasswordNeverExpires, Description, PasswordNeverExpires);
}

/// <summary>Sets the password of an account. The password is given beside the change and never in it.</summary>
/// <param name="SetBefore">When it was last set before, by the directory's clock: another time afterwards shows that it was
/// set. Null when it never was, or that could not be read.</param>
public sealed record SetPassword(string Domain, string Name, DateTimeOffset? SetBefore) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string? OwnObject => Name;

    /// <inheritdoc/>
    public override string Words => $"set the password of {Domain}\\{Name}";

    /// <inheritdoc/>
    public override Change? Inverse => null;
}

/// <summary>Creates a security group.</summary>
public sealed record CreateGroup(string Domain, string Name, string Dn, GroupScope Scope, string Description)
    : DirectoryChange(Domain)
{
    /// <inheritdoc cref="CreateAccount.Note"/>
    public string Note { get; init; } = "";

    /// <inheritdoc/>
    public override string Words => $"create the group {Domain}\\{Name}";

    /// <inheritdoc/>
    public override Change? Inverse => new DeleteGroup(Domain, Name, Dn) { Note = Note };

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Principal(Name)];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.BranchOf(Dn)];
}

/// <summary>Deletes a group, if it has no members.</summary>
public sealed record DeleteGroup(string Domain, string Name, string Dn) : DirectoryChange(Domain)
{
    /// <inheritdoc cref="DeleteAccount.Note"/>
    public string Note { get; init; } = "";

    /// <inheritdoc/>
    public override string Words => $"delete the empty group {Domain}\\{Name}";

    /// <inheritdoc/>
    public override Change? Inverse => null;

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Without(Thing.Principal(Name))];
}

/// <summary>Puts an account or group into a domain group.</summary>
public sealed record AddMember(string Domain, string Group, string Member) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"add {Domain}\\{Member} to {Domain}\\{Group}";

    /// <inheritdoc/>
    public override Change? Inverse => new RemoveMember(Domain, Group, Member);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Group), Thing.Principal(Member)];
}

/// <summary>Takes an account or group out of a domain group.</summary>
public sealed record RemoveMember(string Domain, string Group, string Member) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"remove {Domain}\\{Member} from {Domain}\\{Group}";

    /// <inheritdoc/>
    public override Change? Inverse => new AddMember(Domain, Group, Member);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes =>
        [Thing.Without(Thing.Principal(Group)), Thing.Without(Thing.Principal(Member))];
}

/// <summary>A change on a host.</summary>
public abstract record HostChange(string Host) : Change
{
    /// <inheritdoc/>
    public override Team Team => Team.Host;

    /// <inheritdoc/>
    public override string Place => Host;
}

/// <summary>Puts a domain principal into a local group.</summary>
public sealed record AddLocalGroupMember(string Host, string Group, string Principal) : HostChange(Host)
{
    /// <inheritdoc/>
    public override string Words => $"add {Principal} to {Host}\\{Group}";

    /// <inheritdoc/>
    public override Change? Inverse => new RemoveLocalGroupMember(Host, Group, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Principal)];
}

/// <summary>Takes a domain principal out of a local group.</summary>
public sealed record RemoveLocalGroupMember(string Host, string Group, string Principal) : HostChange(Host)
{
    /// <inheritdoc/>
    public override string Words => $"remove {Principal} from {Host}\\{Group}";

    /// <inheritdoc/>
    public override Change? Inverse => new AddLocalGroupMember(Host, Group, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Principal))];
}

/// <summary>Grants a log-on right.</summary>
public sealed record GrantLogonRight(string Host, string Type, string Principal) : HostChange(Host)
{
    /// <inheritdoc/>
    public override string Words => $"let {Principal} {LogonRights.Words(Type)} on {Host}";

    /// <inheritdoc/>
    public override Change? Inverse => new RevokeLogonRight(Host, Type, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.OnList(Host, LogonRights.Constant(Type), Principal)];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Principal)];
}

/// <summary>Takes a log-on right away.</summary>
public sealed record RevokeLogonRight(string Host, string Type, string Principal) : HostChange(Host)
{
    /// <inheritdoc/>
    public override string Words => $"no longer let {Principal} {LogonRights.Words(Type)} on {Host}";

    /// <inheritdoc/>
    public override Change? Inverse => new GrantLogonRight(Host, Type, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Principal))];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.PolicyList(Host, LogonRights.Constant(Type))];
}

/// <summary>Grants a privilege.</summary>
/// <param name="Constant">Such as <c>SeAssignPrimaryTokenPrivilege</c>.</param>
public sealed record GrantPrivilege(string Host, string Constant, string Principal) : HostChange(Host)
{
    /// <inheritdoc/>
    public override string Words => $"let {Principal} {Privileges.Words(Constant)} on {Host} ({Constant})";

    /// <inheritdoc/>
    public override Change? Inverse => new RevokePrivilege(Host, Constant, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.OnList(Host, Constant, Principal)];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Principal)];
}

/// <summary>Takes a privilege away.</summary>
/// <param name="Constant">Such as <c>SeAssignPrimaryTokenPrivilege</c>.</param>
public sealed record RevokePrivilege(string Host, string Constant, string Principal) : HostChange(Host)
{
    /// <inheritdoc/>
    public override string Words => $"no longer let {Principal} {Privileges.Words(Constant)} on {Host} ({Constant})";

    /// <inheritdoc/>
    public override Change? Inverse => new GrantPrivilege(Host, Constant, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Principal))];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.PolicyList(Host, Constant)];
}
