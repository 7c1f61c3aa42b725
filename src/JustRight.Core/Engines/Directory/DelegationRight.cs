using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Directory;

/// <summary>
/// Constrained delegation: the account acts at one service, named by its service principal name, as whoever signed in to it
/// [MS-SFU 3.2.5.2].
/// </summary>
public sealed class DelegationRight(string domain, string target)
    : Right(NeedKind.Delegation, domain, $"delegation to {target}", $"delegation:{target}@{domain}")
{
    /// <summary>The service principal name of the service.</summary>
    public string Target { get; } = target;

    /// <inheritdoc/>
    public override string ServiceNameAsked => Target;

    /// <inheritdoc/>
    public override RightReach Reach => new(100, $"it acts at {Target} as whoever signs in to it");

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => null;

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <inheritdoc/>
    public override Gate GateFor(SurveyView view, Holdings holdings) => Gate.Open;

    /// <summary>What it needs besides, on both sides.</summary>
    public override IReadOnlyList<string> CautionsIn(Holdings holdings)
    {
        var (view, cautions) = (holdings.View, new List<string>());
        if (view.Graph.PrincipalOf(holdings.Account) is { ServicePrincipalNames.Count: 0 })
            cautions.Add("it has no service principal name of its own: no client gets a ticket for it that could be passed on");
        if (view.Survey.Directory.ServiceNamesAsked.Contains(Target, StringComparer.OrdinalIgnoreCase)
            && !view.ServiceNames[Target].Any())
            cautions.Add($"no account of the domain has {Target}: there is nothing to act at");
        return cautions;
    }

    /// <inheritdoc/>
    public override void Give(Giving giving) =>
        giving.Add(StepOrder.Members, new AllowDelegation(giving.Domain, giving.Account.Name, Target));

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => Taken.By(new EndDelegation(taking.Domain, taking.Holder, Target));

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        new([new DraftNeed(NeedKind.Delegation, Target, null, "", [], null)], null);

    private protected override IReadOnlyList<Right> FindAbove() => [new AnyDelegationRight(Place)];

    private protected override IReadOnlyList<Right> FindEntrances() => [];

    private protected override IReadOnlyList<PathStep> FindLastSteps() => [new PathStep(StepKind.Right, Words)];
}
