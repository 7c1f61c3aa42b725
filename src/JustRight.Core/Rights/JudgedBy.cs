using JustRight.Core.Estates;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>Who can tell whether a right is held, or whether what is asked like a right is so.</summary>
public enum JudgedBy
{
    /// <summary>A survey: it is a right, held along paths.</summary>
    Survey,

    /// <summary>A survey, object by object: it is a right over all that lies below a branch.</summary>
    Branch,

    /// <summary>A person who looks at it and says what they saw.</summary>
    Person,

    /// <summary>What a host says of a service.</summary>
    Service,

    /// <summary>What the directory says of the account itself.</summary>
    Account,

    /// <summary>Nobody yet: this release cannot judge it, and it is always unseen.</summary>
    Nobody,
}
