using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Surveys;
using JustRight.Core.Traces;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Traces;

/// <summary>Traces for the wire.</summary>
internal static class TraceViews
{
    private const int MostObjects = 1000;
    private const int MostTouched = 200;

    /// <summary>A trace.</summary>
    /// <param name="asked">The question in words.</param>
    public static TraceView Of(AccessTrace trace, string id, string estate, bool simulated, string asked, DirectorySnapshot read)
    {
        var (tree, answer) = (trace.Tree, trace.Answer);
        return new TraceView(
            id, estate, simulated, trace.Question.Principal, asked, OfWhat(trace),
            trace.Question.Asked.Branch is { Length: > 0 } below ? below : null, read.ReadFrom, read.ReadAt, Words(trace),
            answer.Can, answer.Cannot, answer.Unseen,
            [.. answer.Failures.Select((f, i) => new TraceFailureView(
                i + 1, f.Cause.Word(), f.Words, [.. f.At.Select(a => tree[a].Dn)], f.Objects.Count,
                [.. f.Objects.Take(MostObjects).Select(o => tree[o].Dn)], [.. trace.Remedies[i].Select(Of)])
            {
                Asked = [.. f.Demands.Select(d => d.Words)],
            })],
            trace.NotFound, [.. tree.Snapshot.Unread.Select(u =>
                new UnreadPartView(u.Part, u.Reason, read.ReadAt))], [.. answer.Uncovered.Select(u =>
                    tree[u].Dn)], [.. Supposed(trace)],
            [.. TraceBranches.Of(trace).Select(b =>
                new TraceBranchView(
                    tree[b.Index].Dn, NameOf(tree[b.Index].Dn, b.Depth), b.Depth, b.Inherits, b.Can, b.Cannot, b.Unseen,
                    b.IsCause))]);
    }

    /// <summary>The answer in one line: says whether it is about one object or many.</summary>
    public static string Words(AccessTrace trace)
    {
        var answer = trace.Answer;
        var all = answer.Can + answer.Cannot + answer.Unseen;
        var of = trace.Question.Asked.Of;
        if (all == 0)
            return trace.NotFound.Count > 0 ? "none of the given objects was found"
                : trace.Tree.Snapshot.Unread.Count > 0 ? $"no {of} could be seen there, and not everything there could be read"
                : answer.Uncovered.Count == 0 ? $"there is no {of} there yet; a new one would grant it"
                : $"there is no {of} there yet; a new one would refuse it";
        var what = all == 1 ? "one object" : $"{all} objects";
        var words = new List<string>();
        if (answer.Cannot > 0) words.Add(Count(answer.Cannot, "refuses it", "refuse it"));
        if (answer.Unseen > 0) words.Add(Count(answer.Unseen, "could not be judged", "could not be judged"));
        if (answer.Can > 0) words.Add(Count(answer.Can, "grants it", "grant it"));
        return $"{what}: {string.Join(", ", words)}";

        string Count(int count, string one, string many) => all == 1 ? one : $"{count} {(count == 1 ? one : many)}";
    }

    /// <summary>The class that was asked about, or those of the given objects.</summary>
    private static string OfWhat(AccessTrace trace) =>
        trace.Question.Asked.Of is { Length: > 0 } of
            ? of
            : string.Join(
                ", ",
                trace.Answer.Objects.Select(i => trace.Tree[i].Class).Where(c => c.Length > 0)
                    .Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.OrdinalIgnoreCase));

    private static IEnumerable<string> Supposed(AccessTrace trace) =>
        trace.Question.IfMemberOf.Select(g => $"that it is in {g}")
            .Concat(trace.Question.IfInheriting.Select(dn => $"that inheritance is on at {dn}"));

    private static RemedyView Of(Remedy remedy) => new(
        remedy.Id, remedy.Title, [.. remedy.Changes.Select(c => c.Words)], remedy.Preview.Touched.Count,
        [.. remedy.Preview.Touched.Take(MostTouched)], remedy.Preview.Fixed, remedy.Preview.StillFailing,
        [.. remedy.Preview.Gained.Select(Of)], [.. remedy.Preview.Lost.Select(Of)], [.. remedy.Preview.Lists.Select(l =>
            new ListPreviewView(l.Dn, l.Before, l.After))]);

    private static RightFlowView Of(RightFlow flow) => new(flow.Who, flow.What, flow.Denies, flow.Objects);

    private static string NameOf(string dn, int depth)
    {
        if (depth == 0 || !DistinguishedName.TryParse(dn, out var name)) return dn;
        return name.Parts[0].Value;
    }
}
