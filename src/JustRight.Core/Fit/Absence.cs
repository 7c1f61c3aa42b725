using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit;

/// <summary>Something that a right is a right in, and that was looked for and is not there: a database, a group.</summary>
/// <param name="What">What is not there, without an article.</param>
/// <param name="Nearest">What is there and is called nearly the same, or null.</param>
internal sealed record Absence(string What, string? Nearest)
{
    /// <summary>What is not there that a right needs, or null when it is there, or nothing need be, or it was not read.</summary>
    public static Absence? Of(SurveyView view, Plan plan, Right right) => right switch
    {
        DatabaseRoleRight r => OfDatabase(view, r.Instance, r.Database),
        DatabasePermissionRight r => OfDatabase(view, r.Instance, r.Database),
        DatabaseOwnerRight r => OfDatabase(view, r.Instance, r.Database),
        LocalGroupRight r => OfLocalGroup(view, r),
        DomainGroupRight r => OfDomainGroup(view, plan, r),
        _ => null,
    };

    /// <summary>Whether setup is still to make it.</summary>
    public static bool IsPending(Plan plan, PlannedGrant grant) => grant.MadeBySetup && plan.Stage == Stage.Planned;

    /// <summary>A verdict that waits for setup to make it.</summary>
    public Judgement Pending(Judgement judgement) => judgement with
    {
        Reason = judgement.Grant is { GivenBy: GivenBy.Setup } ? "setup gives it"
            : $"setup makes the {What}, and then it is ours to give",
        Absent = What,
    };

    /// <summary>That it is not there, in words.</summary>
    public string Words(PlannedGrant grant) =>
        grant.MadeBySetup ? $"waiting for the {What}, which setup should have made"
        : Nearest is null ? $"there is no {What}" : $"there is no {What}; did you mean '{Nearest}'?";

    private static Absence? OfDatabase(SurveyView view, string at, string database)
    {
        if (view.Instance(at) is not { Unread: null } instance) return null;
        if (instance.Databases.Any(d => Same(d.Name, database))) return null;
        return new Absence(
            $"database {instance.Name}/{database}", Spelling.Nearest(database, instance.Databases.Select(d => d.Name)));
    }

    private static Absence? OfLocalGroup(SurveyView view, LocalGroupRight right)
    {
        if (view.Host(right.Host) is not { Unread: null, Role: not HostRole.Controller } host) return null;
        if (view.WhyUnread(right) is not null || host.LocalGroups.Any(g => Same(g.Name, right.Group))) return null;
        return new Absence(
            $"local group {right.Group} on {host.Name}", Spelling.Nearest(right.Group, host.LocalGroups.Select(g => g.Name)));
    }

    private static Absence? OfDomainGroup(SurveyView view, Plan plan, DomainGroupRight right)
    {
        if (view.Survey.Directory.Unread is not null || view.Graph.IndexOf(right.Group) >= 0) return null;
        if (!view.Survey.Directory.AskedFor.Contains(right.Group, StringComparer.OrdinalIgnoreCase)) return null;
        if (plan.Groups.Any(g => Same(g.Name, right.Group))) return null; // ours to make
        var groups = view.Survey.Directory.Principals.Where(p => p.Kind == PrincipalKind.Group).Select(p => p.Name);
        return new Absence($"group {right.Group} in {plan.Domain}", Spelling.Nearest(right.Group, groups));
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
