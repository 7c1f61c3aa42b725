using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Databases;
using JustRight.Core.Plans;
using JustRight.Core.Surveys;
using JustRight.Service.Data.Fits;
using SurveyView = JustRight.Core.Rights.SurveyView;

namespace JustRight.Service.Features.Estates;

/// <summary>Database instances for the wire.</summary>
internal static class InstanceViews
{
    private const int MostWays = 1_000;

    public static InstanceView Of(
        Estate estate, EstateInstance known, InstanceSnapshot instance, int holders, SurveyView view, IReadOnlyList<Plan> plans)
    {
        var (ways, moreWays) = InstanceWays.Of(view, instance, MostWays);
        return new InstanceView(
            estate.Name, instance.Name, estate.IsSimulated, instance.Engine, instance.Release.Length > 0
                ? instance.Release
                : known.Release?.ToString()
                    ?? "", known.Host, [.. estate.PartnersOf(known).Select(p => p.Name)], ReachWords.Of(known.Reach),
                    instance.ReadAt, instance.ReadBy, instance.Unread,
            [
                .. instance.UnreadParts.Select(p => new UnreadPartView(p.Part, p.Reason, instance.ReadAt)),
                .. instance.Databases.Where(d => d.Unread is not null)
                    .Select(d => new UnreadPartView(d.Name, d.Unread!, instance.ReadAt))],
            [.. instance.Databases.Select(d => d.Name)], holders,
            [.. ways.Select(w => Way(w, view))], moreWays, InstanceWays.WhyNotAll(instance),
            [.. plans.Where(p =>
                p.Grants.Any(g =>
                    string.Equals(
                        g.Right.AtInstance, instance.Name, StringComparison.OrdinalIgnoreCase))).Select(p => p.Install)]);
    }

    private static InstanceWayView Way(InstanceWay way, SurveyView view) => new(
        view.Graph.NameOf(way.Holder), view.Graph.PrincipalOf(way.Holder)?.Kind == PrincipalKind.Computer,
        way.Way.Right.Words, way.Way.Right.Place, way.Way.Right.Reach.Points, way.Way.Steps);

    /// <summary>A right at an instance.</summary>
    /// <param name="needs">What installs need.</param>
    public static InstanceHolderView Holder(InstanceHolder holder, SurveyView view, NeedsIndex needs)
    {
        var principal = view.Graph.PrincipalOf(holder.Holder);
        var (points, reason) = holder.Right.Reach;
        return new InstanceHolderView(
            view.Graph.NameOf(holder.Holder), principal?.Kind == PrincipalKind.Computer, holder.Right.Words, holder.Right.Place,
            points, reason, [.. holder.Paths.Select(FitViews.Of)], holder.WhyNot,
            principal is null ? [] : needs.Installs(principal.Name, holder.Right));
    }
}
