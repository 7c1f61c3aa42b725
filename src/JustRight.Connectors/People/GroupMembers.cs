namespace JustRight.Connectors.People;

/// <summary>Who is in a group, where people do not carry their groups and the product looks it up in the group.</summary>
internal static class GroupMembers
{
    /// <summary>The members, by distinguished name or logon name as the directory keeps them; with those of groups inside where the product follows them.</summary>
    public static HashSet<string> Of(TrialRun run, IPeopleSession session, string group)
    {
        var members = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { group };
        var next = new Queue<string>([group]);
        while (next.TryDequeue(out var dn))
        {
            if (session.Read(dn, "objectClass", run.Map.Member) is not { } read || !read.All("objectClass").Contains(run.Map.GroupClass, StringComparer.OrdinalIgnoreCase)) continue;
            foreach (var member in read.All(run.Map.Member))
            {
                members.Add(member);
                if (run.Plan.NestedCount && run.Map.MemberIsName && seen.Add(member)) next.Enqueue(member);
            }
        }

        return members;
    }
}
