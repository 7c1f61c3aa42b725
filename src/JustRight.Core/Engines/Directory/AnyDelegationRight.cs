using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Directory;

/// <summary>
/// Trusted for delegation to any service: whoever signs in to the account's service hands over a ticket with which it can be them
/// everywhere [MS-ADTS 2.2.16, ADS_UF_TRUSTED_FOR_DELEGATION].
/// </summary>
public sealed class AnyDelegationRight(string domain)
    : Right(NeedKind.Delegation, domain, "delegation to any service", $"any-delegation@{domain}")
{
    /// <inheritdoc/>
    public override RightReach Reach => new(RightReach.Ruling, "it can be everybody who signs in to it, everywhere");

    /// <inheritdoc/>
    public override string WhyForbidden =>
        "trusted for delegation to any service: it can be everybody who signs in to it, everywhere; name the services instead";

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => null;

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <inheritdoc/>
    public override Gate GateFor(SurveyView view, Holdings holdings) => Gate.Open;

    /// <summary>No need asks for it.</summary>
    public override void Give(Giving giving) => giving.LeaveToPerson("nothing gives it: name the services instead");

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => Taken.By(new EndDelegationTrust(taking.Domain, taking.Holder));

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) => Drafted.NoWords;

    private protected override IReadOnlyList<Right> FindAbove() => [];

    private protected override IReadOnlyList<Right> FindEntrances() => [];

    private protected override IReadOnlyList<PathStep> FindLastSteps() => [new PathStep(StepKind.Right, Words)];
}
