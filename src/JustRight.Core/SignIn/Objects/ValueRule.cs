namespace JustRight.Core.SignIn.Objects;

/// <summary>By which rule values of an attribute are compared [RFC 4517 4.2].</summary>
public enum ValueRule
{
    /// <summary>Text without regard to case and to how much space stands between words.</summary>
    CaseIgnore,

    /// <summary>Text with regard to case, without regard to how much space stands between words.</summary>
    CaseExact,

    /// <summary>Telephone numbers: without regard to case, spaces and hyphens.</summary>
    Telephone,

    /// <summary>Digits, without regard to spaces.</summary>
    Numeric,

    /// <summary>UUIDs [RFC 4530], without regard to case.</summary>
    Uuid,

    /// <summary>Whole numbers.</summary>
    WholeNumber,

    /// <summary>Distinguished names.</summary>
    Name,

    /// <summary>Names of classes: the class itself or one below it.</summary>
    Class,

    /// <summary>Moments in generalized time.</summary>
    Time,

    /// <summary><c>TRUE</c> or <c>FALSE</c>.</summary>
    Boolean,

    /// <summary>Octets, compared one by one.</summary>
    Octets,
}
