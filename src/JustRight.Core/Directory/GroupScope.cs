namespace JustRight.Core.Directory;

/// <summary>The scope of a domain group.</summary>
public enum GroupScope
{
    /// <summary>Holds users and global groups of its own domain.</summary>
    Global,

    /// <summary>Holds principals of the whole forest.</summary>
    Universal,

    /// <summary>Holds principals of trusted domains too; counts only in its own domain.</summary>
    DomainLocal,
}
