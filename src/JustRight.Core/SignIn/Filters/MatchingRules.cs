namespace JustRight.Core.SignIn.Filters;

/// <summary>The matching rules of AD-like directories [MS-ADTS 3.1.1.3.4.4] that sign-in filters use.</summary>
public static class MatchingRules
{
    /// <summary>Every bit of the value is set: <c>LDAP_MATCHING_RULE_BIT_AND</c>.</summary>
    public const string AllBits = "1.2.840.113556.1.4.803";

    /// <summary>A bit of the value is set: <c>LDAP_MATCHING_RULE_BIT_OR</c>.</summary>
    public const string AnyBit = "1.2.840.113556.1.4.804";

    /// <summary>
    /// The named object, or one reached by following the attribute from object to object:
    /// <c>LDAP_MATCHING_RULE_TRANSITIVE_EVAL</c>.
    /// </summary>
    public const string Chain = "1.2.840.113556.1.4.1941";
}
