using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Lists;
using SurveyView = JustRight.Core.Rights.SurveyView;

namespace JustRight.Service.Features.Estates;

/// <summary>
/// The organizational units of an estate: those it names, and those that something of it lies in or is linked at.
/// </summary>
internal sealed class OrganizationalUnits(FitService fitService, SurveyStore surveys)
{
    /// <summary>All of them, with what lies in each.</summary>
    public async Task<IReadOnlyList<OrganizationalUnitSummary>> ListAsync(Estate estate, CancellationToken cancel)
    {
        var view = await surveys.LatestAsync(estate.Name, cancel);
        var plans = await fitService.PlansOfAsync(estate.Name, cancel);
        var accounts = In(view, plans.SelectMany(p => p.Accounts.Select(a => a.Name)), a => a);
        var groups = In(view, plans.SelectMany(p => p.Groups.Select(g => g.Name)), g => g);
        var hosts = In(view, estate.Hosts.Select(h => h.Name), ServiceIdentity.ComputerAccount);
        var branches = estate.Branches.ToLookup(b => b.Name, b => b.Key);
        var containers = Containers(view).ToDictionary(c => c.Dn, c => c.Container);
        var planned = plans.SelectMany(p => p.Branches).Select(b => DistinguishedName.Parse(b.Dn)).ToHashSet();
        var seen = (view?.Survey.Directory.Branches ?? []).Select(DistinguishedName.Parse).ToHashSet();
        var all = branches.Select(b => b.Key).Concat(planned)
            .Concat(accounts.Select(a => a.Key)).Concat(groups.Select(g => g.Key))
            .Concat(hosts.Select(h => h.Key)).Concat(containers.Where(c => c.Value.Links.Length > 0).Select(c => c.Key));
        return [.. all.Distinct().Select(dn => Of(
            dn, string.Join(", ", branches[dn]), containers.GetValueOrDefault(dn),
            State(
                view, seen.Contains(dn) || containers.ContainsKey(dn) || accounts.Contains(dn) || hosts.Contains(dn),
                branches.Contains(dn) || planned.Contains(dn)),
            [.. accounts[dn]], [.. groups[dn]], [.. hosts[dn]], view))];
    }

    /// <summary>Whether a unit is what is looked for.</summary>
    public static bool Matches(OrganizationalUnitSummary unit, string[] words) => SoughtWords.AreIn(
        words, unit.Dn, unit.Branch, unit.State, string.Join(' ', unit.Accounts), string.Join(' ', unit.Groups),
        string.Join(' ', unit.Hosts), string.Join(' ', unit.Policies));

    private static OrganizationalUnitSummary Of(
        DistinguishedName dn, string branch, PolicyContainer? container, string state, IReadOnlyList<string> accounts,
        IReadOnlyList<string> groups, IReadOnlyList<string> hosts, SurveyView? view) => new(
        dn.ToString(), branch, state, accounts, groups, hosts,
        container is null ? [] : [.. PolicyLink.Read(container.Links, out _).Select(l => NameOf(l.Policy, view))],
        container is { Unread: null } ? container.BlocksInheritance : null, container?.Unread);

    private static string NameOf(string policy, SurveyView? view) =>
        view?.Policies.Policies.GetValueOrDefault(policy)?.Name ?? policy;

    private static IEnumerable<(DistinguishedName Dn, PolicyContainer Container)> Containers(SurveyView? view)
    {
        foreach (var container in view?.Survey.Directory.Policies?.Containers ?? [])
            if (DistinguishedName.TryParse(container.Dn, out var dn)) yield return (dn, container);
    }

    /// <summary>Those of some names that were found, by what they lie in.</summary>
    /// <param name="logonName">The logon name of what is so called.</param>
    private static ILookup<DistinguishedName, string> In(
        SurveyView? view, IEnumerable<string> names, Func<string, string> logonName) =>
        names.Distinct(StringComparer.OrdinalIgnoreCase).Select(n => (Parent: ParentOf(view, logonName(n)), Name: n))
            .Where(n => n.Parent is not null).ToLookup(n => n.Parent!, n => n.Name);

    private static DistinguishedName? ParentOf(SurveyView? view, string name) =>
        EstateContents.Find(view, name) is { } principal && DistinguishedName.TryParse(principal.Dn, out var dn)
            ? dn.Parent
            : null;

    private static string State(SurveyView? view, bool isThere, bool isAsked) =>
        view is not { Survey.Directory.Unread: null } ? EstateContents.Unseen
        : isThere ? EstateContents.There
        : isAsked ? EstateContents.NotThere
        : EstateContents.Unseen;
}
