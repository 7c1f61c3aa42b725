using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Adoptions;

/// <summary>
/// Finds what the accounts of an adoption hold. It is what a fit would call excess if nothing were needed: what every domain user
/// has is left out, and what only comes along with a local group is named under that.
/// </summary>
public static class AdoptionFinder
{
    /// <summary>The items of every account, those held alike together.</summary>
    /// <param name="needs">What the installs in Just Right need.</param>
    public static AdoptionFindings Find(Adoption adoption, SurveyView view, NeedsIndex needs, Estate estate)
    {
        var plan = PlanOf(adoption, estate);
        var missing = adoption.Accounts.Where(a =>
            view.Graph.IndexOf(a.Name) is var node && (node < 0 || view.Graph.PrincipalOf(node) is null))
            .ToList();
        var items = adoption.Accounts.Except(missing).SelectMany(a => ItemsOf(a, plan, view, needs, estate)).ToList();
        var services = view.Survey.Hosts.Where(h => h.Unread is null).SelectMany(h => h.Services.SelectMany(s => adoption.Accounts
            .Where(a => ServiceJudge.IsAccount(s.Account, h.Name, a.Name, plan))
            .Select(a => new AdoptedService(s.Name, h.Name, a.Key, s.Start)))).ToList();
        return new AdoptionFindings(
            view.Survey.TakenAt, items, services, [.. missing.Select(a => a.Name)],
            [
                .. view.UnreadParts.Select(c => $"{c.Place}: {c.Reason}"),
                .. view.Survey.Directory.Unread is { } unread ? [$"the directory: {unread}"] : Array.Empty<string>()]);
    }

    private static IEnumerable<AdoptionItem> ItemsOf(
        AdoptedAccount account, Plan plan, SurveyView view, NeedsIndex needs, Estate estate)
    {
        var node = view.Graph.IndexOf(account.Name);
        var holdings = view.HoldingsOf(node);
        var held = new ExcessFinder(view, new NeedsIndex([]), plan, plan.Accounts.First(a => a.Key == account.Key), holdings)
            .Find();
        return held.Select(j =>
        {
            var (draft, whyNot) = j.Right.Draft(estate, view.Tree?.Schema);
            return new AdoptionItem($"{account.Key}/{j.Right.Key}", account, j.Right, j.Paths, HeldBy(j.Paths, view), j.Brings)
            {
                Needs = draft,
                WhyNot = whyNot,
                NoEffect = NoEffect(j.Right, view, holdings),
                NeededBy = needs.Installs(account.Name, j.Right),
                Forbidden = Forbidden(j.Paths, view, estate.Rules),
            };
        }).OrderBy(i => i.HeldBy == OwnEntry ? 0 : 1).ThenBy(i => i.HeldBy, StringComparer.Ordinal).ThenBy(i => i.Right.Place, StringComparer.OrdinalIgnoreCase).ThenBy(i => i.Right.Key, StringComparer.Ordinal);
    }

    private static string? NoEffect(Right right, SurveyView view, Holdings holdings)
    {
        var gate = right.GateFor(view, holdings);
        return gate.State switch
        {
            GateState.Open => null,
            GateState.Shut when gate.Denials.Count > 0 => Gate.DeniedBy(holdings.PathsOf(gate.Denials), view),
            GateState.Shut or GateState.Unseen => gate.Why,
        };
    }

    private const string OwnEntry = "directly";

    /// <summary>The groups of the shortest path, for that is the one somebody meant.</summary>
    private static string HeldBy(IReadOnlyList<RightPath> paths, SurveyView view)
    {
        if (paths.Count == 0 || paths[0].Nodes.Count == 1) return OwnEntry;
        return $"through {string.Join(" in ", paths[0].Nodes.Skip(1).Select(n => LogonName.WithoutDomain(view.Graph.NameOf(n))))}";
    }

    private static string? Forbidden(IReadOnlyList<RightPath> paths, SurveyView view, OrganizationRules rules)
    {
        var groups = paths.SelectMany(p => p.Nodes.Skip(1)).Select(n => view.Graph.PrincipalOf(n)?.Name)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        return rules.Forbidden.FirstOrDefault(b => b.Group is { } group && groups.Contains(group))?.Why;
    }

    /// <summary>A plan of the accounts alone, that needs nothing and forbids nothing.</summary>
    private static Plan PlanOf(Adoption adoption, Estate estate)
    {
        var at = new Origin(adoption.Name, 1, 1);
        return new Plan(
            adoption.Name, $"{adoption.Product}@{adoption.Release}", adoption.Title, estate.Name, estate.Domain.ShortName,
            estate.Domain.DnsName, Stage.Installed, [], [],
            [.. adoption.Accounts.Select(a =>
                new PlannedAccount(
                    a.Key, a.Name, null, "", a.Purpose, WorksAsWords.Read(a.WorksAs), false, true, at))], [], [], [], []);
    }
}
