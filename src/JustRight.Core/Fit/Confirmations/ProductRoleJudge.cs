using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Fit.Confirmations;

/// <summary>Judges an account's mapping to an identity inside a product by what a person last said they saw there.</summary>
/// <param name="zone">The organization's time zone, in which days are told.</param>
public sealed class ProductRoleJudge(ConfirmationIndex confirmationIndex, SurveyView view, Present present, TimeZoneInfo zone)
{
    private static readonly TimeSpan Soon = TimeSpan.FromDays(30);

    /// <summary>The verdict: a word that has lapsed, or was given for something else, leaves it unseen.</summary>
    public Judgement Judge(Plan plan, PlannedAccount account, PlannedGrant grant)
    {
        var inside = grant.Right.Inside!;
        var stands = NeedsIndex.Stands(grant, plan.Stage);
        var noLonger = plan.Stage == Stage.Retiring ? "no longer needed" : "needed for setup only";
        if (confirmationIndex.LatestOf(plan.Install, grant.Id) is not { } word)
        {
            if (grant.GivenBy == GivenBy.Setup && plan.Stage == Stage.Planned)
                return Say(grant, Verdict.Pending, "setup gives it");
            if (plan.Stage == Stage.Retiring)
                return Say(grant, Verdict.Done, "no longer needed; nobody confirmed it inside the product that is being retired");
            return Say(
                grant, Verdict.Unseen,
                stands
                    ? "a person must look it up inside the product; nobody has confirmed it yet"
                    : $"{noLonger}, and nobody has confirmed that it is not there");
        }

        var said = $"{word.By}, {word.At.UtcDateTime.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture)} UTC";
        if (WhyLapsed(word, inside, PrincipalOf(plan, account, grant)) is { } lapsed)
            return Say(grant, Verdict.Unseen, $"{lapsed} ({said}): look it up and confirm it again") with { Confirmation = word };
        var confirmed = $"confirmed by a person until {Day(word.Until)}: {said}";
        var judged = (stands, word.Held) switch
        {
            (true, true) => Say(grant, Verdict.Met, confirmed),
            (true, false) when grant.GivenBy == GivenBy.Setup && plan.Stage == Stage.Planned =>
                Say(grant, Verdict.Pending, "setup gives it"),
            (true, false) => Say(grant, Verdict.Missing, $"not there; {confirmed}"),
            (false, true) =>
                Say(grant, Verdict.Excess, $"{(plan.Stage == Stage.Retiring ? noLonger : "left over from setup")}; {confirmed}"),
            (false, false) => Say(grant, Verdict.Done, $"{noLonger}, and not there; {confirmed}"),
        };
        return judged with { Confirmation = word, Notes = present.HasReached(word.Until - Soon) ? [EndsIn(word)] : [] };
    }

    /// <summary>The logon name of what is mapped: the group it goes through, or the account.</summary>
    public static string PrincipalOf(Plan plan, PlannedAccount account, PlannedGrant grant) =>
        grant.Through is { } through && plan.Groups.FirstOrDefault(g => g.Key == through) is { } group
            ? group.Name
            : account.Name;

    private string EndsIn(Confirmation word)
    {
        var days = present.UnitsUntil(word.Until, TimeSpan.FromDays(1));
        return $"that ends in {days} {(days == 1 ? "day" : "days")}: look again soon";
    }

    private string? WhyLapsed(Confirmation word, InsideProduct inside, string principal)
    {
        if (present.HasReached(word.Until)) return $"a person's confirmation expired on {Day(word.Until)}";
        if (!string.Equals(word.Principal, principal, StringComparison.OrdinalIgnoreCase))
            return $"a person confirmed it for {word.Principal}, not for {principal}";
        if (word.Sid is { } sid && SidOf(principal) is { } found && found != sid)
            return $"a person confirmed it for another {principal}, which has been made anew since";
        return inside.Lets.ToHashSet(StringComparer.OrdinalIgnoreCase).SetEquals(word.Lets)
            ? null
            : $"a person confirmed it for other operations: {(word.Lets.Count == 0 ? "none named" : string.Join(", ", word.Lets))}";
    }

    private string Day(DateTimeOffset at) =>
        TimeZoneInfo.ConvertTime(at, zone).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private Sid? SidOf(string principal) => view.Graph.IndexOf(principal) is >= 0 and var node ? view.Graph.SidOf(node) : null;

    private static Judgement Say(PlannedGrant grant, Verdict verdict, string reason) =>
        new(grant.Id, grant.Account, grant.Right, verdict, reason, [])
        {
            Grant = grant,
        };
}
