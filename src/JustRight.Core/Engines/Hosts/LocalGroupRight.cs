using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Hosts;

/// <summary>Membership of a local group of a host.</summary>
public sealed class LocalGroupRight(string host, string group)
    : HostRight(NeedKind.LocalGroup, host, group, $"local-group:{group}@{host}")
{
    private const string Administrators = "Administrators";

    /// <summary>The local group.</summary>
    public string Group { get; } = group;

    /// <inheritdoc/>
    public override RightReach Reach => Same(Group, Administrators)
        ? new RightReach(500, "Administrators can do anything on its host")
        : new RightReach(40, $"{Group} stays within its host");

    /// <inheritdoc/>
    public override bool BringsAlong => true;

    /// <inheritdoc/>
    public override bool MachineMayHold => true;

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => view.WhyHostUnread(Host, HostSnapshot.LocalGroupsPart, Group);

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view)
    {
        if (Read(view) is not { Role: not HostRole.Controller } host) return null;
        if (WhyUnread(view) is not null || host.LocalGroups.Any(g => Same(g.Name, Group))) return null;
        return new AbsentThing(
            $"local group {Group} on {host.Name}", Spelling.Nearest(Group, host.LocalGroups.Select(g => g.Name)));
    }

    /// <summary>A controller has no groups of its own: those of the domain count there.</summary>
    public override void Give(Giving giving)
    {
        if (giving.View.Host(Host) is { Role: HostRole.Controller })
        {
            var why = $"{giving.Why}; {Host} is a domain controller, so this applies to every domain controller";
            giving.Add(StepOrder.Members, new AddMember(giving.Domain, Group, giving.Holder), why);
        }
        else if (!giving.Holds(this))
        {
            giving.Add(StepOrder.HostsAndBranches, new AddLocalGroupMember(Host, Group, giving.Principal));
        }
    }

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => Taken.By(new RemoveLocalGroupMember(Host, Group, taking.Principal));

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.LocalGroup, Group, PlaceKind.Host, Host);

    /// <summary>It may come with a log-on.</summary>
    public override string? WhyEntrantsUnread(SurveyView view) => ByLogon.WhyUnseen(this, view);

    internal override Held? HeldIn(Holdings holdings, IReadOnlyList<string> logons) => ByLogon.Held(this, holdings, logons);

    private protected override IReadOnlyList<PathStep> FindLastSteps() => [new PathStep(StepKind.LocalGroup, $"{Host}\\{Group}")];
}
