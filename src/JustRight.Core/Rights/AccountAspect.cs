using JustRight.Core.Estates;

namespace JustRight.Core.Rights;

/// <summary>What an account needs of itself.</summary>
public enum AccountAspect
{
    /// <summary>It exists.</summary>
    Exists,

    /// <summary>It is in the planned branch.</summary>
    Branch,

    /// <summary>Its password expires, or does not, as planned.</summary>
    PasswordExpiry,

    /// <summary>It may not change its own password, as planned.</summary>
    PasswordChange,

    /// <summary>Its description is the planned one.</summary>
    Description,

    /// <summary>It is neither disabled, expired, locked, nor is its password expired.</summary>
    Usable,
}
