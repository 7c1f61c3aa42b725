using JustRight.Core.Estates;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Fit.Retirement;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;

namespace JustRight.Core.Fit;

/// <summary>Judges plans against a survey. Verdicts rest on the survey alone and come in a fixed order.</summary>
/// <param name="view">The survey, made ready.</param>
/// <param name="needs">What all installs of the estate need.</param>
/// <param name="rules">The organization rule.</param>
/// <param name="present">The present, against which the survey's age and the ends of people's words are held.</param>
public sealed class FitJudge(SurveyView view, NeedsIndex needs, OrganizationRules rules, Present present)
{
    /// <summary>How far two machines' clocks may be apart: what was read later than that cannot be given an age.</summary>
    private static readonly TimeSpan ClocksApart = TimeSpan.FromMinutes(10);

    /// <summary>What people confirmed where no survey reads.</summary>
    public ConfirmationIndex Confirmations { get; init; } = ConfirmationIndex.Empty;

    /// <summary>What people accepted that is off.</summary>
    public ExceptionIndex Exceptions { get; init; } = ExceptionIndex.Empty;

    /// <summary>The fit of one install.</summary>
    public InstallFit Judge(Plan plan)
    {
        var stale = Staleness();
        var services = new ServiceJudge(view, plan);
        var accounts = plan.Accounts.Select(a => Seen(JudgeAccount(plan, a, services, stale))).ToList();
        return new InstallFit(
            plan, view.Survey.TakenAt, view.Survey.Simulated, accounts,
            [.. PlaceFindings.Of(plan, view, needs).Select(f => Exceptions.Apply(f, present))], view.UnreadParts);
    }

    /// <summary>With what people accepted of it, and what the directory says of the account itself.</summary>
    private AccountFit Seen(AccountFit fit)
    {
        var account = fit.Account;
        var found = view.Graph.IndexOf(account.Name) is >= 0 and var at ? view.Graph.PrincipalOf(at) : null;
        var ours = account.Password.ChangedBy == PasswordKeeper.Us && !account.Name.EndsWith('$')
            && account.WorksAs != WorksAs.Person;
        return new AccountFit(account, fit.Found, [.. fit.Judgements.Select(j => Exceptions.Apply(KnownExcess(account, j), present))])
        {
            Dn = found?.Dn,
            PasswordSetAt = ours ? found?.PasswordSetAt : null,
        };
    }

    /// <summary>What an install that cannot be planned may need is not known to be excess.</summary>
    private Judgement KnownExcess(PlannedAccount account, Judgement judgement) =>
        judgement.Verdict == Verdict.Excess && needs.WhyUnknown(account.Name, judgement.Right) is { } why
            ? judgement with { Verdict = Verdict.Unseen, Reason = why }
            : judgement;

    private string? Staleness()
    {
        // a file may be older than the survey that used it
        var read = view.Survey.Directory.ReadAt < view.Survey.TakenAt ? view.Survey.Directory.ReadAt : view.Survey.TakenAt;
        return TooOld(read, rules.SurveyNoOlderThan) is { } age ? $"{age}; take a new survey" : null;
    }

    /// <summary>
    /// Host facts have an age of their own: those that somebody handed over may be older than the survey that used them.
    /// </summary>
    private string? StaleHost(Right right) =>
        right.OnHost is { } name && view.Host(name) is { Unread: null } host
            && TooOld(host.ReadAt, rules.HostFactsNoOlderThan ?? rules.SurveyNoOlderThan) is { } age
            ? $"{host.Name} was {age}; read it again"
            : null;

    /// <summary>Why what was read then proves nothing now; null while it does.</summary>
    private string? TooOld(DateTimeOffset read, TimeSpan? limit)
    {
        if (limit is not { } longest) return null;
        if (!present.HasReached(read - ClocksApart))
            return $"read at {read.UtcDateTime:yyyy-MM-dd HH:mm}Z, which this machine's clock has not reached";
        if (!present.IsPast(read + longest)) return null;
        return present.HasReached(read + TimeSpan.FromDays(2))
            ? $"read {present.WholeSince(read, TimeSpan.FromDays(1))} days ago"
            : $"read {present.WholeSince(read, TimeSpan.FromHours(1))} hours ago";
    }

    private AccountFit JudgeAccount(Plan plan, PlannedAccount account, ServiceJudge services, string? stale)
    {
        var grants = plan.GrantsOf(account.Key).Where(services.Says).ToList();
        var node = view.Graph.IndexOf(account.Name);
        if (stale is not null)
        {
            return new AccountFit(account, node >= 0, [
                .. AccountNeeds.Rights(account, plan.Domain)
                    .Select(r => new Judgement($"{account.Key}/{r.Key}", account.Key, r, Verdict.Unseen, stale, [])),
                .. grants.Select(g =>
                    g.Right.JudgedBy == JudgedBy.Person ? JudgeByPerson(plan, account, g) : Say(g, Verdict.Unseen, stale)),
            ]);
        }

        var own = Own(plan, account, node);
        if (node < 0)
            return new AccountFit(account, false, [.. own, .. grants.Select(g => WithoutAccount(plan, account, services, g))]);

        var holdings = view.HoldingsOf(node);
        IReadOnlyList<Judgement> judged = [.. grants.Select(One)];
        if (plan.Stage != Stage.Retiring) judged = new OtherAlternatives(plan, account, One).Of(judged);
        var excess = new ExcessFinder(view, needs, plan, account, holdings).Find();
        return new AccountFit(account, true, [.. own, .. judged, .. excess, .. MachineStandIns.Of(plan, account, view)]);

        Judgement One(PlannedGrant grant) => grant.Right.JudgedBy switch
        {
            JudgedBy.Person => JudgeByPerson(plan, account, grant),
            JudgedBy.Service when plan.Stage == Stage.Retiring => Say(grant, Verdict.Done, NoLonger(plan)),
            JudgedBy.Nobody => Say(grant, Verdict.Unseen, NotYet),
            JudgedBy.Account => throw new InvalidOperationException($"No grant asks for {grant.Right}."),
            JudgedBy.Service or JudgedBy.Branch or JudgedBy.Survey when StaleHost(grant.Right) is { } old =>
                Say(grant, Verdict.Unseen, old),
            JudgedBy.Service => services.Judge(account, grant),
            JudgedBy.Branch or JudgedBy.Survey =>
                PolicyAhead.Of(view, account, JudgeGrant(plan, account, grant, holdings), holdings),
        };
    }

    /// <summary>What is said of the account itself.</summary>
    private IEnumerable<Judgement> Own(Plan plan, PlannedAccount account, int node) =>
        plan.Stage == Stage.Retiring ? RetiredAccounts.Judge(view, needs, account, plan.Domain, node)
        : SetupAccounts.IsDoneWith(plan, account, needs) ? [SetupAccounts.Judge(view, account, plan.Domain, node)]
        : AccountNeeds.Judge(view, account, plan.Domain, node);

    private Judgement JudgeByPerson(Plan plan, PlannedAccount account, PlannedGrant grant) =>
        new PersonJudge(Confirmations, view, present, rules.TimeZone).Judge(plan, account, grant);

    private Judgement WithoutAccount(Plan plan, PlannedAccount account, ServiceJudge services, PlannedGrant grant)
    {
        if (grant.Right.Confirmable is TaskAsked) return JudgeByPerson(plan, account, grant);
        if (!NeedsIndex.Stands(grant, plan.Stage)) return Say(grant, Verdict.Done, NotHeld(plan));
        if (view.Survey.Directory.Unread is { } unread)
            return Say(grant, Verdict.Unseen, $"the directory could not be read: {unread}");
        if (grant.Right.JudgedBy == JudgedBy.Nobody) return Say(grant, Verdict.Unseen, NotYet);
        if (grant.Right.JudgedBy == JudgedBy.Service) return services.Judge(account, grant);
        var absence = Absence.Of(view, plan, grant.Right);
        if (absence is not null && Absence.IsPending(plan, grant)) return absence.Pending(Say(grant, Verdict.Pending, ""));
        if (grant.GivenBy == GivenBy.Setup && plan.Stage == Stage.Planned)
            return WithoutAccount(grant, Say(grant, Verdict.Pending, "setup gives it"));
        var waiting = $"waiting for the account {account.Name}";
        return WithoutAccount(grant, Say(
            grant, Verdict.Missing, absence is null ? waiting : $"{waiting}; {absence.Words(grant)}") with
        {
            Absent = absence?.What,
        });
    }

    /// <summary>
    /// Nobody's list can hold an account that does not exist: where a policy governs, its list lacks the account.
    /// </summary>
    private Judgement WithoutAccount(PlannedGrant grant, Judgement judged) =>
        grant.Right.GovernedIn(view, null).Governed is not { } governed ? judged
            : judged with
            {
                Governed = governed,
                Reason = judged.Verdict == Verdict.Pending && governed.Gives == false ? PolicyAhead.TakenBack(governed) : judged.Reason,
                Notes = [$"policy {governed.Name} governs it on {grant.Right.Place}"],
            };

    /// <summary>Why a need does not stand any more.</summary>
    private static string NoLonger(Plan plan) => plan.Stage == Stage.Retiring ? "no longer needed" : "needed for setup only";

    /// <summary>Of a need that does not stand any more and is not held: one survey cannot tell whether it ever was.</summary>
    private static string NotHeld(Plan plan) =>
        plan.Stage == Stage.Retiring ? "not held; no longer needed" : "not held; was needed for setup";

    private Judgement JudgeGrant(Plan plan, PlannedAccount account, PlannedGrant grant, Holdings holdings)
    {
        var held = holdings.Of(grant.Right, WorksAsWords.LogonsOf(account.WorksAs));
        if (!NeedsIndex.Stands(grant, plan.Stage))
        {
            // Still held: the excess says so, unless another need keeps it.
            if (held is null)
                return view.WhyUnseen(grant.Right, holdings.Account) is { } why
                    ? Say(grant, Verdict.Unseen, why)
                    : Say(grant, Verdict.Done, NotHeld(plan));
            var kept = needs.Installs(account.Name, grant.Right) is { Count: > 0 } others
                ? $"{NoLonger(plan)} here; kept for {string.Join(", ", others)}"
                : $"{NoLonger(plan)}; still held, see what is excess";
            return Say(grant, Verdict.Done, kept) with { Paths = holdings.PathsOf(held) };
        }

        if (grant.Right.Below is { } below) return JudgeBranch(plan, grant, below.Of, holdings, held);
        if (held is not null) return Holding(plan, grant, holdings, held);

        foreach (var above in grant.Right.Above)
        {
            if (holdings.HandingOn(above) is not { } stronger) continue;
            if (Shut(grant, holdings, stronger) is { } shut) return shut;
            return Say(grant, Verdict.Met, $"implied by {above.Words} on {above.Place}") with
            {
                Paths = holdings.PathsOf(stronger),
                AsPlanned = false,
                Notes = [$"{above.Words} does more than is needed", .. grant.Right.CautionsIn(holdings)],
            };
        }

        if (view.WhyUnseen(grant.Right, holdings.Account) is { } unseen) return Say(grant, Verdict.Unseen, unseen);
        var absence = Absence.Of(view, plan, grant.Right);
        if (absence is not null && Absence.IsPending(plan, grant)) return absence.Pending(Say(grant, Verdict.Pending, ""));
        if (grant.GivenBy == GivenBy.Setup && plan.Stage == Stage.Planned) return Say(grant, Verdict.Pending, "setup gives it");
        if (absence is not null) return Say(grant, Verdict.Missing, absence.Words(grant)) with { Absent = absence.What };
        if (grant.GivenBy == GivenBy.Setup) return Say(grant, Verdict.Missing, "setup should have given this");
        return Say(grant, Verdict.Missing, grant.Right.LackIn(holdings) ?? $"{account.Name} does not hold it");
    }

    /// <summary>
    /// A right over a branch is held when every object below it grants it; what refuses is counted and explained.
    /// </summary>
    private Judgement JudgeBranch(Plan plan, PlannedGrant grant, string of, Holdings holdings, Held? held)
    {
        if (view.Survey.Directory.Unread is { } directory)
            return Say(grant, Verdict.Unseen, $"the directory could not be read: {directory}");
        var (found, unseen) = grant.Right.BranchIn(holdings);
        if (found is not { } facts) return Say(grant, Verdict.Unseen, unseen!);
        if (held is not null)
        {
            var holding = Holding(plan, grant, holdings, held);
            return holding with { Branch = facts, Notes = [.. holding.Notes, .. facts.Tomorrow(of)] };
        }

        if (facts.Cannot == 0 && facts.Unseen > 0) return Say(grant, Verdict.Unseen, facts.Refusal(of)) with { Branch = facts };
        if (grant.GivenBy == GivenBy.Setup && plan.Stage == Stage.Planned)
            return Say(grant, Verdict.Pending, "setup gives it") with { Branch = facts };
        var reason = facts.Count == 0 ? $"there is no {of} yet, and a new one would refuse it"
            : facts.Can == 0 && facts.Failures.All(f => f.Cause == FailureCause.NothingGivesIt)
                ? $"none of {facts.Count} objects of class {of} grants it: no ACE gives the right"
            : facts.Refusal(of);
        return Say(grant, Verdict.Missing, reason) with { Branch = facts, Notes = [.. facts.Tomorrow(of)] };
    }

    private Judgement Holding(Plan plan, PlannedGrant grant, Holdings holdings, Held held)
    {
        var paths = holdings.PathsOf(held);
        if (Shut(grant, holdings, held) is { } shut) return shut;

        // A right that only a forbidden group brings must be given its own way before that group can be left.
        if (paths.All(p => p.Nodes.Any(n => IsForbidden(plan, grant.Account, n))) && grant.Right.DomainGroup is null)
            return Say(grant, Verdict.Met, "held, but only through a forbidden group") with
            {
                Paths = paths,
                AsPlanned = false,
                Notes = ["give the right another way before removing the forbidden group"],
            };

        var group = grant.Through is null ? null : plan.Groups.First(g => g.Key == grant.Through);
        var asPlanned = group is null
            || paths.Any(p =>
                p.Nodes.Skip(1)
                    .Any(n => string.Equals(view.Graph.PrincipalOf(n)?.Name, group.Name, StringComparison.OrdinalIgnoreCase)));
        var word = grant.Right.HeldWord;
        return Say(grant, Verdict.Met, asPlanned ? word : $"{word} another way") with
        {
            Paths = paths,
            AsPlanned = asPlanned,
            Notes = [
                .. asPlanned ? [] : new[] { $"{word} another way than through {group!.Name}" },
                .. grant.Right.CautionsIn(holdings)],
        };
    }

    /// <summary>
    /// What is held and does not count, or not for certain: it is denied or may be, or the account cannot get in to use it;
    /// null when it counts.
    /// </summary>
    private Judgement? Shut(PlannedGrant grant, Holdings holdings, Held held)
    {
        var gate = grant.Right.GateFor(view, holdings);
        return gate.State switch
        {
            GateState.Open => null,
            GateState.Unseen => Say(grant, Verdict.Unseen, gate.Why) with { Paths = holdings.PathsOf(held) },
            GateState.Shut when gate.Denials.Count > 0 => Denied(grant, holdings, held, gate),
            GateState.Shut => Say(grant, Verdict.Missing, gate.Why) with { Paths = holdings.PathsOf(held) },
        };
    }

    private Judgement Denied(PlannedGrant grant, Holdings holdings, Held held, Gate gate)
    {
        var through = holdings.PathsOf(gate.Denials);
        return Say(grant, Verdict.Missing, Gate.DeniedBy(through, view)) with { Paths = holdings.PathsOf(held), DeniedBy = through };
    }

    private bool IsForbidden(Plan plan, string account, int node) =>
        view.Graph.PrincipalOf(node)?.Name is { } name
            && plan.Forbidden.Any(b =>
                (b.Account is null || b.Account == account) && string.Equals(b.Group, name, StringComparison.OrdinalIgnoreCase));

    private const string NotYet = "cannot be judged yet";

    private static Judgement Say(PlannedGrant grant, Verdict verdict, string reason) =>
        new(grant.Id, grant.Account, grant.Right, verdict, reason, []) { Grant = grant };
}
