using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Directory;

/// <summary>Membership of a domain group.</summary>
public sealed class DomainGroupRight(string domain, string group)
    : Right(NeedKind.DomainGroup, domain, group, $"domain-group:{domain}\\{group}")
{
    private static readonly string[] DomainWide =
    [
        "Domain Admins", "Enterprise Admins", "Schema Admins", "Administrators", "Account Operators", "Server Operators",
        "Backup Operators",
    ];

    /// <summary>The group's logon name.</summary>
    public override string DomainGroup { get; } = group;

    /// <inheritdoc/>
    public override RightReach Reach => DomainWide.Contains(DomainGroup, StringComparer.OrdinalIgnoreCase)
        ? new RightReach(1000, $"{DomainGroup} controls the whole domain")
        : new RightReach(50, $"the rights of {DomainGroup} are not known here");

    /// <summary>Always read: who is in it, the survey of the directory says as a whole.</summary>
    public override string? WhyUnread(SurveyView view) => null;

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view)
    {
        var directory = view.Survey.Directory;
        if (directory.Unread is not null || view.Graph.IndexOf(DomainGroup) >= 0) return null;
        if (!directory.AskedFor.Contains(DomainGroup, StringComparer.OrdinalIgnoreCase)) return null;
        var groups = directory.Principals.Where(p => p.Kind == PrincipalKind.Group).Select(p => p.Name);
        return new AbsentThing($"group {DomainGroup} in {Place}", Spelling.Nearest(DomainGroup, groups));
    }

    /// <inheritdoc/>
    public override bool IsGivenTo(int node, SurveyView view) => view.Graph.PrincipalOf(node) is { } principal
        && string.Equals(principal.Name, DomainGroup, StringComparison.OrdinalIgnoreCase);

    /// <inheritdoc/>
    public override Gate GateFor(SurveyView view, Holdings holdings) => Gate.Open;

    /// <inheritdoc/>
    public override void Give(Giving giving)
    {
        foreach (var (name, why, at) in giving.WhoEnters(DomainGroup))
            giving.AddBlocked(
                StepOrder.Members, new AddMember(giving.Domain, DomainGroup, name),
                giving.Blocked ?? giving.WhoIsDeniedBy(DomainGroup, name), why, at);
    }

    /// <summary>A membership is cut where the path goes through it, and never at its end.</summary>
    public override Taken Take(Taking taking) => Taken.NoStep;

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        new([new DraftNeed(NeedKind.DomainGroup, DomainGroup, null, "", [], null)], null);

    private protected override IReadOnlyList<Right> FindAbove() => [];

    private protected override IReadOnlyList<Right> FindEntrances() => [];

    private protected override IReadOnlyList<PathStep> FindLastSteps() => [];
}
