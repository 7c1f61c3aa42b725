using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;

namespace JustRight.Core.Fit;

/// <summary>
/// Where the alternative that the plan took is not wholly met, another one may meet the need. It is judged by all that decides
/// any other verdict: what is denied, or has no way in, or is taken back by a policy, meets nothing.
/// </summary>
/// <param name="judge">The verdict on a right as if the plan had taken it.</param>
internal sealed class OtherAlternatives(Plan plan, PlannedAccount account, Func<PlannedGrant, Judgement> judge)
{
    /// <summary>The verdicts with those that another alternative decides put in place.</summary>
    public IReadOnlyList<Judgement> Of(IReadOnlyList<Judgement> judged)
    {
        var result = judged.ToList();
        foreach (var decision in plan.Decisions.Where(d => d.Account == account.Key))
        {
            var mine = result.Where(j => j.Grant?.Decision == decision.Id).ToList();
            if (mine.Count == 0 || mine.All(j => j.Verdict == Verdict.Met)) continue;
            var others = decision.Alternatives.Where(a => a.Label != decision.Taken && a.Rights.Count > 0)
                .Select(a => (a.Label, Judged: Judged(a, mine[0].Grant!))).ToList();
            var met = others.FirstOrDefault(o => o.Judged.All(j => j.Verdict == Verdict.Met));
            var open = others.FirstOrDefault(o => o.Judged.All(j => j.Verdict is Verdict.Met or Verdict.Unseen));
            foreach (var judgement in mine)
            {
                var at = result.IndexOf(judgement);
                if (met.Judged is not null) result[at] = Met(judgement, met.Label, met.Judged);
                else if (open.Judged is not null) result[at] = Unseen(judgement, open.Label, open.Judged);
            }
        }

        return result;
    }

    private List<Judgement> Judged(Alternative alternative, PlannedGrant taken) =>
    [
        .. alternative.Rights.Select(r => judge(taken with
        {
            Id = $"{account.Key}/{r.Key}",
            Right = r,
            Through = null,
            GivenBy = GivenBy.Us,
            Until = Until.Always,
        })),
    ];

    private static Judgement Met(Judgement judgement, string label, List<Judgement> other) => judgement.Verdict switch
    {
        Verdict.Missing or Verdict.Pending or Verdict.Unseen => judgement with
        {
            Verdict = Verdict.Met,
            Reason = $"met by the other alternative: {label}",
            AsPlanned = false,
            Paths = [.. other.SelectMany(j => j.Paths)],
            DeniedBy = [],
        },
        Verdict.Met or Verdict.Excess or Verdict.Forbidden or Verdict.Done => judgement,
    };

    /// <summary>What is missing of the one taken is not known to be missing while the other may be held.</summary>
    private static Judgement Unseen(Judgement judgement, string label, List<Judgement> other) => judgement.Verdict switch
    {
        Verdict.Missing => judgement with
        {
            Verdict = Verdict.Unseen,
            Reason = $"{judgement.Reason}; whether the other alternative is met, {label}, is not known: "
                + other.First(j => j.Verdict == Verdict.Unseen).Reason,
        },
        Verdict.Met or Verdict.Pending or Verdict.Unseen or Verdict.Excess or Verdict.Forbidden or Verdict.Done => judgement,
    };
}
