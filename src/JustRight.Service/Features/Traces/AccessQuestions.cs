using JustRight.Contracts;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Plans;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Traces;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Traces;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Traces;

/// <summary>Answers many questions about access from one reading of the directory.</summary>
internal sealed class AccessQuestions(ConnectorStore connectorStore, FitService fits, SurveyStore surveys)
{
    /// <summary>How many questions are answered at once.</summary>
    public const int Most = 10_000;

    private const int MostFaults = 20;

    /// <summary>A question with its names found.</summary>
    private sealed record Settled(string Account, BranchAsked Asked, string? Object);

    /// <summary>Answers, or says which questions cannot be asked.</summary>
    public async Task<(AccessAnswersView? Answers, ProblemHttpResult? Problem)> AnswerAsync(
        Estate estate, AccessOrder order, CancellationToken cancel)
    {
        var asked = order.Questions ?? [];
        if (asked.Count is 0 or > Most)
            return (null, Problems.Bad("questions", "How many questions?", $"1 to {Most} questions", $"{asked.Count}"));
        var names = await DirectoryNames.OfAsync(
            estate, asked.SelectMany(a => new[] { a.Account, a.At }), fits, surveys, cancel);
        var schema = await surveys.SchemaAsync(estate.Name, cancel)
            ?? (estate.IsSimulated ? BuiltInSchema.Schema : null);
        var faults = new List<Fault>();
        var settled = new List<Settled>();
        for (var i = 0; i < asked.Count && faults.Count < MostFaults; i++)
            if (Settle(asked[i], $"questions[{i}]", names, schema, faults) is { } good) settled.Add(good);
        if (faults.Count > 0) return (null, Problems.Bad(faults));
        return (await ReadAsync(estate, settled, cancel), null);
    }

    private async Task<AccessAnswersView> ReadAsync(Estate estate, List<Settled> asked, CancellationToken cancel)
    {
        var connectors = await connectorStore.OpenAsync(estate, cancel);
        var reading = await DirectoryReading.TakeAsync(
            connectors.Directory, Distinct(asked.Select(s => s.Account)),
            Distinct(asked.Where(s => s.Object is null).Select(s => s.Asked.Branch)),
            [.. asked.Select(s => s.Object).OfType<string>()], cancel);
        var nodes = Distinct(asked.Select(s => s.Account)).ToDictionary(
            a => a, a => reading.NodeOf(a, estate), StringComparer.OrdinalIgnoreCase);
        var answers = AccessAnswers.Of(reading.Tree, reading.Graph);
        var objects = new Queue<string>(reading.Objects);
        var views = new List<AccessAnswerView>(asked.Count);
        foreach (var one in asked)
        {
            cancel.ThrowIfCancellationRequested();
            var node = nodes[one.Account];
            var at = one.Object is null ? one.Asked.Branch : objects.Dequeue();
            var reply = one.Object is null ? answers.Below(node, one.Asked)
                : reading.Tree.IndexOf(at) is >= 0 and var index ? answers.OfObject(node, one.Asked, index)
                : AccessReply.NotSeen("it does not exist, or may not be seen");
            views.Add(new AccessAnswerView(
                reading.Graph.NameOf(node), one.Object is null || one.Asked.Of.Length > 0 ? one.Asked.Words : one.Asked.What, at,
                AnswerWord(reply.Answer), reply.Can, reply.Cannot, reply.Unseen, reply.Words));
        }

        return new AccessAnswersView(
            estate.Name, estate.IsSimulated, reading.Read.ReadFrom, reading.Read.ReadAt, views, WholeAccesses.Unread(reading));
    }

    /// <summary>An answer as a word: what is not known was not seen.</summary>
    public static string AnswerWord(AccessAnswer answer) => answer switch
    {
        AccessAnswer.Yes => "yes",
        AccessAnswer.No => "no",
        AccessAnswer.Unknown => "unseen",
    };

    private static List<string> Distinct(IEnumerable<string> names) => [.. names.Distinct(StringComparer.OrdinalIgnoreCase)];

    private static Settled? Settle(
        AccessQuestionOrder order, string field, DirectoryNames names, DirectorySchema? schema, List<Fault> faults)
    {
        var (before, start) = (faults.Count, new Origin("", 0, 0));
        if (DirectoryActs.Of(order.Act ?? "") is not { } act)
        {
            faults.Add(new Fault("bad-request", start, field + ".act", "This is not an act.")
            {
                Found = order.Act,
                Expected = string.Join(", ", DirectoryActs.All.Select(a => a.Words)),
                Nearest = order.Act is null ? null : Spelling.Nearest(order.Act, DirectoryActs.All.Select(a => a.Words)),
            });
            return null;
        }

        if (string.IsNullOrEmpty(order.Account))
            faults.Add(new Fault("bad-request", start, field + ".account", "Whose rights?") { Expected = "an account" });
        if (order.At is null == order.Below is null)
            faults.Add(new Fault("bad-request", start, field + ".at", "Where?") { Expected = "an object or a branch (below)" });
        var branch = order.Below is { } below ? names.Branch(below) : "";
        if (branch is null)
            faults.Add(new Fault("bad-request", start, field + ".below", "This is not a branch of the estate.")
            {
                Found = order.Below,
                Expected = "a branch of the estate, a distinguished name below the domain, or everywhere",
            });
        // given objects are judged as their own class
        var own = order.At is not null && act.Act != DirectoryAct.Create;
        var of = own ? "" : order.Of ?? act.Class ?? "user";
        faults.AddRange(SheetRules.CheckAct(act, order.Attributes ?? [], of, start, field));
        if (faults.Count == before && schema is not null)
            faults.AddRange(
                DirectoryNeedRules.Check(act, order.Attributes ?? [], of, schema, start)
                    .Select(f => f with { Field = $"{field}.{f.Field}" }));
        return faults.Count > before
            ? null
            : new Settled(
                names.Principal(order.Account!), BranchAsked.Make(act, order.Attributes ?? [], of, branch!),
                order.At is { } at ? names.Object(at) : null);
    }
}
