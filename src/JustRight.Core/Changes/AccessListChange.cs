using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Changes;

/// <summary>A change of the access list of an object.</summary>
/// <param name="Dn">The object.</param>
public abstract record AccessListChange(string Domain, string Dn) : DirectoryChange(Domain)
{
    /// <summary>The principal that an entry is for; null where no entry is named.</summary>
    public virtual string? Trustee => null;
}

/// <summary>Puts an entry into the access list of an object.</summary>
/// <param name="Dn">The object.</param>
/// <param name="Says">The entry in words.</param>
/// <param name="Position">Where among all entries it belongs, to restore a list exactly; null for the canonical place.</param>
public sealed record AddAccessRule(string Domain, string Dn, AccessRule Rule, string Says, int? Position = null)
    : AccessListChange(Domain, Dn)
{
    /// <inheritdoc/>
    public override string Words =>
        $"{(Rule.Denies ? $"forbid {Rule.Principal} to" : $"let {Rule.Principal}")} {Says}, by an ACE on {Dn}";

    /// <inheritdoc/>
    public override Change? Inverse => new RemoveAccessRule(Domain, Dn, Rule, Says, Position);

    /// <inheritdoc/>
    public override string? Trustee => Rule.Principal;

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Rule.Principal), Thing.Branch(Dn)];
}

/// <summary>Takes an entry out of the access list of an object.</summary>
/// <param name="Dn">The object.</param>
/// <param name="Says">The entry in words.</param>
/// <param name="Position">Where among all entries it stands, so that undoing puts it back there; null when it does not
/// matter.</param>
public sealed record RemoveAccessRule(string Domain, string Dn, AccessRule Rule, string Says, int? Position = null)
    : AccessListChange(Domain, Dn)
{
    /// <inheritdoc/>
    public override string Words =>
        $"no longer {(Rule.Denies ? $"forbid {Rule.Principal} to" : $"let {Rule.Principal}")} {Says}: remove the ACE on {Dn}";

    /// <inheritdoc/>
    public override Change? Inverse => new AddAccessRule(Domain, Dn, Rule, Says, Position);

    /// <inheritdoc/>
    public override string? Trustee => Rule.Principal;

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Rule.Principal))];
}

/// <summary>Enables inheritance at an object, or disables it.</summary>
/// <param name="Dn">The object.</param>
/// <param name="On">Whether it shall inherit.</param>
/// <param name="OwnList">The access list it has, or had, while it did not inherit, in SDDL: what must be there before, and what
/// undoing restores.</param>
public sealed record SwitchInheritance(string Domain, string Dn, bool On, string OwnList) : AccessListChange(Domain, Dn)
{
    /// <inheritdoc/>
    public override string Words => $"{(On ? "enable" : "disable")} inheritance at {Dn}";

    /// <inheritdoc/>
    public override Change? Inverse => this with { On = !On };
}
