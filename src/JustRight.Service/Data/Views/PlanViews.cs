using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Data.Views;

/// <summary>Plans for the wire.</summary>
internal static class PlanViews
{
    public static PlanView Of(Plan plan, Estate estate) => new(
        plan.Install, plan.Sheet, plan.Title, plan.Estate, plan.Domain, DocumentViews.Stage(plan.Stage), estate.IsSimulated,
        [.. plan.Accounts.Select(a =>
            new PlannedAccountView(
                a.Key, a.Name, a.Dn, a.Description, a.Purpose, WorksAsWords.Of(a.WorksAs), a.PasswordNeverExpires, a.Existing,
                a.At.ToString()))],
        [.. plan.Groups.Select(g =>
            new PlannedGroupView(g.Key, g.Name, g.Dn, g.Scope.Word(), g.Purpose, g.Existing, g.Members, g.At.ToString()))],
        [.. plan.Grants.Select(Of)],
        [.. plan.Decisions.Select(Of)],
        plan.Notes);

    public static DecisionView Of(Decision decision) => new(
        decision.Id, decision.Account, decision.Taken, decision.Reason, decision.ByInstall,
        [.. decision.Alternatives.Select(a =>
            new AlternativeView(
                a.Label, [.. a.Rights.Select(r => r.ToString())], a.Reach, a.ReachReason,
                [.. a.Rights.Select(r => r.Reach.Reason)]))], decision.At.ToString());

    private static PlannedGrantView Of(PlannedGrant grant) => new(
        grant.Id, grant.Account, KindOf(grant), grant.Right.Words, grant.Right.Place, grant.Through, grant.GivenBy.Word(),
        grant.Until.Word(), grant.Team.Word(), grant.Why, grant.At.ToString());

    private static string KindOf(PlannedGrant grant) => NeedKinds.ByKind[grant.Right.Kind!.Value].Key;
}
