using JustRight.Core.Directory;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Rights.Access;

/// <summary>Names for the SIDs of access lists.</summary>
public static class AccessNames
{
    /// <summary>The name of a SID: <c>DOMAIN\name</c>, the name everybody knows it by, or the SID itself.</summary>
    public static string Of(MembershipGraph graph, Sid sid) =>
        graph.IndexOf(sid) is >= 0 and var node ? graph.NameOf(node) : WellKnownSids.NameOf(sid) ?? sid.ToString();
}
