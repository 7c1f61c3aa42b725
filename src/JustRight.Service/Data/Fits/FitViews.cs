using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Views;
using SecretStore = JustRight.Service.Data.Secrets.SecretStore;

namespace JustRight.Service.Data.Fits;

/// <summary>Fits, worklists and surveys for the wire.</summary>
internal static class FitViews
{
    public static FitCountsView Of(FitCounts counts, int unreadParts, string words) =>
        new(
            counts.Met, counts.Missing, counts.Pending, counts.Unseen, counts.Excess, counts.Forbidden, unreadParts, words,
            counts.Accepted);

    public static FitView Of(InstallFit fit)
    {
        var columns = new FitColumns(fit.Plan);
        var accounts = fit.Accounts.Select(a => new AccountFitView(
            a.Account.Key, a.Account.Name, a.Account.Purpose, a.Account.Dn, Of(a.Counts, 0, fit.WordsOf(a)),
            [.. a.Judgements.Select(j => Of(j, a.Account.Name, columns.Of(j)))])).ToList();
        return new FitView(
            fit.Plan.Install, fit.Plan.Sheet, fit.Plan.Title, fit.Plan.Estate, DocumentViews.Stage(fit.Plan.Stage), fit.Simulated,
            fit.SurveyedAt,
            Of(fit.Counts, fit.UnreadParts.Count, fit.Words), columns.All(fit), accounts, Findings(fit),
            UnreadParts(fit.UnreadParts), [.. fit.Plan.Decisions.Select(PlanViews.Of)], fit.Plan.Notes);
    }

    public static IReadOnlyList<FindingView> Findings(InstallFit fit) =>
        [.. fit.Findings.Select(f => new FindingView(f.Id, f.Place, f.Text, f.IsExcess, Of(f.Accepted)))];

    public static JudgementView Of(Judgement judgement, string account, string? column = null) => new(
        judgement.Id, account, judgement.Right.Kind is { } kind
            ? NeedKinds.ByKind[kind].Key
            : "account", judgement.Right.Words, judgement.Right.Place,
        column ?? judgement.Grant?.Place ?? judgement.Right.Place, judgement.Verdict.Word(), judgement.Reason,
        judgement.Grant?.Why,
        judgement.Grant?.Team.Word(), judgement.Grant?.GivenBy.Word(), judgement.Grant?.Through,
        (judgement.Grant?.At ?? judgement.Rule?.At)?.ToString(), [.. judgement.Paths.Select(Of)],
        [.. judgement.DeniedBy.Select(Of)], judgement.Notes, judgement.Brings, Branch(judgement), Confirmable(judgement),
        Of(judgement.Accepted));

    public static AcceptedView? Of(AcceptedException? exception) =>
        exception is null ? null : new AcceptedView(exception.Id, exception.By, exception.Why, exception.Until)
        {
            LastDay = exception.LastDay,
        };

    /// <param name="unknown">The accounts whose password services are to be given and that is not known here.</param>
    public static WorklistView Worklist(JudgedInstall judged, IReadOnlySet<string> unknown) => new(
        judged.Fit.Plan.Install, judged.Fit.Simulated, judged.Fit.SurveyedAt,
        [.. judged.Worklist.Give.Select(s => Of(s) with { Asks = Asked(AskedPasswords.Of(s.Change), unknown) })],
        [.. judged.Worklist.Remove.Select(Of)],
        judged.Worklist.LeftToSetup, [.. judged.Worklist.NotOffered.Select(n => new NotOfferedView(n.For, n.Reason))]);

    private static AskedPasswordView? Asked(string? account, IReadOnlySet<string> unknown) =>
        account is not null && unknown.Contains(account) ? new AskedPasswordView(account, SecretStore.NameFor(account)) : null;

    public static Contracts.SurveyView Of(Survey survey) => new(
        survey.TakenAt, survey.Directory.ReadAt, survey.Simulated, survey.Directory.ReadFrom,
        survey.Directory.Principals.Count(p => p.Kind != PrincipalKind.Group), survey.Directory.Principals.Count(p =>
            p.Kind == PrincipalKind.Group),
        survey.Hosts.Count(h => h.Unread is null), survey.Instances.Count(i => i.Unread is null), UnreadParts(
            [.. survey.UnreadParts()]), survey.Directory.Remarks);

    public static UnreadPartView[] UnreadParts(IReadOnlyList<UnreadPlace> unreadParts) =>
        [.. unreadParts.Select(c => new UnreadPartView(c.Place, c.Reason, c.At))];

    private static BranchView? Branch(Judgement judgement) => judgement is { Branch: { } facts, Right.Below: { } right }
        ? new BranchView(
            DirectoryActs.ByAct[right.Act].Words, right.Attributes, right.Of, right.Branch, facts.Can, facts.Cannot, facts.Unseen,
            [.. facts.Failures.Select(f =>
                new BranchFailureView(f.Cause.Word(), f.Words, f.At, f.Count, f.Samples))], facts.Uncovered)
        : null;

    private static ConfirmableView? Confirmable(Judgement judgement)
    {
        if (judgement.Right.Confirmable is not { } asked) return null;
        var (task, word) = (asked as TaskAsked, judgement.Confirmation);
        return new ConfirmableView(
            asked.Name, task is null ? asked.Details : [], task?.Work, task?.DoneWhen, task?.WaitsFor ?? [],
            (int)asked.ConfirmedFor.TotalDays, word?.By, word?.Held, word?.At, word?.Until);
    }

    public static StepView Of(Step step) => new(
        step.Id, step.Number, step.Change.Words, NextStep.TeamName(step.Change.Team), step.Change.Place, step.Why, step.Blocked,
        step.For, step.At.ToString())
    {
        HangsOn = step.HangsOn,
    };

    public static PathView Of(RightPath path) => new([.. path.Steps.Select(s => new PathStepView(s.Kind.Word(), s.Name))]);
}
