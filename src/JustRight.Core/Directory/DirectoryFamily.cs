namespace JustRight.Core.Directory;

/// <summary>The two families of directory that people sign in with.</summary>
public enum DirectoryFamily
{
    /// <summary>
    /// Users and groups as Windows domains have them: <c>sAMAccountName</c>, <c>member</c> with the back link <c>memberOf</c>.
    /// </summary>
    AdLike,

    /// <summary>
    /// <c>inetOrgPerson</c> [RFC 2798] with <c>uid</c>, and groups of names, of unique names or of user identifiers.
    /// </summary>
    InetOrgPerson,
}
