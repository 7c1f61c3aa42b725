namespace JustRight.Core.SignIn.Filters;

/// <summary>
/// Whether a filter holds for an object [RFC 4511 4.5.1.7]. In this order, so that the least of several is their <c>and</c>,
/// and the greatest their <c>or</c>.
/// </summary>
public enum Truth : byte
{
    /// <summary>It does not hold.</summary>
    False,

    /// <summary>
    /// It cannot be said: the directory does not know the attribute or the rule, or the value is none that the attribute can
    /// have. The object is not found, nor is it by the opposite.
    /// </summary>
    Undefined,

    /// <summary>It holds.</summary>
    True,
}
