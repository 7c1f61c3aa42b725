using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Directory;

/// <summary>
/// A service principal name of an account: clients get their Kerberos tickets for it under that account. It is unique in the
/// forest; where two have it nobody gets a ticket [MS-ADTS 3.1.1.5.1.3].
/// </summary>
public sealed class SpnRight(string domain, string name) : Right(NeedKind.Spn, domain, name, $"spn:{name}@{domain}")
{
    /// <inheritdoc/>
    public override string ServiceName { get; } = name;

    /// <inheritdoc/>
    public override RightReach Reach => new(5, $"clients of {ServiceName} sign in to whatever runs as the account");

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => null;

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <summary>Of no use to anybody where another account has it too.</summary>
    public override Gate GateFor(SurveyView view, Holdings holdings) =>
        OtherWith(view, view.Graph.SidOf(holdings.Account)) is { } other
            ? Gate.Shut($"{other} has it too: Kerberos sign-in fails for both")
            : WhyOthersUnread(view) is { } why ? Gate.Unseen(why) : Gate.Open;

    /// <inheritdoc/>
    public override string? LackIn(Holdings holdings) =>
        OtherWith(holdings.View, default) is { } other
            ? $"{other} has it: clients get tickets for that account, and with both nobody gets one" : null;

    /// <inheritdoc/>
    public override IReadOnlyList<string> CautionsIn(Holdings holdings) =>
        holdings.View.Survey.Directory.OtherDomains is { Count: > 0 } others
            ? [$"other domains of the forest were not asked who has it: {string.Join(", ", others)}"] : [];

    /// <inheritdoc/>
    public override void Give(Giving giving)
    {
        var other = OtherWith(giving.View, giving.View.Graph.IndexOf(giving.Account.Name) is >= 0 and var node
            ? giving.View.Graph.SidOf(node) : default);
        if (giving.Holds(this))
        {
            giving.LeaveToPerson(other is null
                ? WhyOthersUnread(giving.View) ?? "the account has it"
                    : $"{other} has it too: decide who keeps it, and take it from the other");
            return;
        }

        giving.AddBlocked(
            StepOrder.Members, new AddServiceName(giving.Domain, giving.Account.Name, ServiceName),
            giving.Blocked ?? (other is null ? WhyOthersUnread(giving.View)
                : $"{other} has it: take it from there first, or Kerberos sign-in fails for both"));
    }

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => Taken.By(new RemoveServiceName(taking.Domain, taking.Holder, ServiceName));

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        new([new DraftNeed(NeedKind.Spn, ServiceName, null, "", [], null)], null);

    private protected override IReadOnlyList<Right> FindAbove() => [];

    private protected override IReadOnlyList<Right> FindEntrances() => [];

    private protected override IReadOnlyList<PathStep> FindLastSteps() => [new PathStep(StepKind.Right, ServiceName)];

    /// <summary>The name of another account that has it, or null.</summary>
    private string? OtherWith(SurveyView view, Sid own) =>
        view.ServiceNames[ServiceName].FirstOrDefault(p => p.Sid != own) is { } other ? $"{view.Graph.Domain}\\{other.Name}"
            : null;

    private string? WhyOthersUnread(SurveyView view) =>
        view.Survey.Directory.ServiceNamesAsked.Contains(ServiceName, StringComparer.OrdinalIgnoreCase)
            ? null : "the survey did not ask who else has it: take a new one";
}
