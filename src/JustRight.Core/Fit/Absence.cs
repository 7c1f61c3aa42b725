using JustRight.Core.Engines;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Fit;

/// <summary>What the verdict says of something that a right is a right in and that is not there.</summary>
internal sealed record Absence(AbsentThing Thing)
{
    /// <summary>What is not there, without an article.</summary>
    public string What => Thing.What;

    /// <summary>What is not there that a right needs, or null when it is there, or nothing need be, or it was not read.</summary>
    public static Absence? Of(SurveyView view, Plan plan, Right right)
    {
        if (right.AbsentIn(view) is not { } absent) return null;
        var isOursToMake = plan.Groups.Any(g => !g.Existing && AllEngines.Membership(plan.Domain, g.Name) == right);
        return isOursToMake ? null : new Absence(absent);
    }

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
        : Thing.Nearest is null ? $"there is no {What}" : $"there is no {What}; did you mean '{Thing.Nearest}'?";
}
