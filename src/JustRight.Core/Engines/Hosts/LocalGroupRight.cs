using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Hosts;

/// <summary>Membership of a local group of a host.</summary>
public sealed class LocalGroupRight(string host, string group)
    : HostRight(NeedKind.LocalGroup, host, group, $"local-group:{group}@{host}")
{
    private const string Administrators = "Administrators";

    /// <summary>Stands for an account that is not there yet.</summary>
    private static readonly Sid Nobody = Sid.Parse("S-1-5-21-0-0-0-1000");

    /// <summary>The local group.</summary>
    public string Group { get; } = group;

    /// <inheritdoc/>
    public override PlacePart Within => new LocalGroupPart(Host, Group);

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

    /// <summary>
    /// A policy governs the group where it gives the membership, or takes it away; not where it only puts others in.
    /// </summary>
    public override (GovernedRight? Governed, string? Unseen) GovernedIn(SurveyView view, Holdings? holdings)
    {
        if (!view.Policies.WereSurveyed || Read(view) is not { Role: not HostRole.Controller } host
            || host.LocalGroups.FirstOrDefault(g => Same(g.Name, Group)) is not { } group)
            return (null, null);
        var (order, unseen) = view.Policies.OrderOf(host.Name);
        if (unseen is not null) return (null, unseen);
        var ahead = Ahead(group);
        if (ahead.Doubt is { } doubt) return (null, doubt);
        if (ahead.Decides is not { } policy) return (null, null);
        var (isIn, gives) = holdings is null ? (false, false)
            : (group.Members.Any(holdings.Reaches), ahead.Members.Any(holdings.Reaches));
        var account = holdings is null ? Nobody : view.Graph.SidOf(holdings.Account);
        if (!gives && !isIn && Ahead(group with { Members = [.. group.Members, account] }).Members.Contains(account))
            return (null, null); // what is given on the host lasts
        return (new GovernedRight(policy.Policy, policy.Name, policy.Container, null, gives), null);

        GroupAhead Ahead(LocalGroup now) => GroupAhead.Of(host, now, order, view.Policies.Policies, view.Graph);
    }

    /// <summary>A controller has no groups of its own: those of the domain count there.</summary>
    public override void Give(Giving giving)
    {
        if (giving.View.Host(Host) is { Role: HostRole.Controller })
        {
            var why = $"{giving.Why}; {Host} is a domain controller, so this applies to every domain controller";
            giving.Add(StepOrder.Members, new AddMember(giving.Domain, Group, giving.Holder), why);
        }
        else if (giving.Governed is { } governed)
        {
            giving.LeaveToPerson(governed.Gives == true
                ? $"policy {governed.Name} puts it into {Group} at the next policy refresh: refresh the host's policies, or wait"
                : $"policy {governed.Name} says who is in {Group} on {Host}: its owners put {giving.Principal} there; "
                    + "what is given on the host alone may not last");
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
