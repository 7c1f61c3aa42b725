using JustRight.Core.Fit.Databases;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Fit.Retirement;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Fit;

/// <summary>What was seen at the places of an install that is worth a person's eye though it decides no verdict.</summary>
internal static class PlaceFindings
{
    /// <summary>Unknown SIDs in local groups of the install's hosts, and unexpected members in its groups.</summary>
    public static IReadOnlyList<Finding> Of(Plan plan, SurveyView view, NeedsIndex needs)
    {
        var findings = view.Survey.Directory.Remarks.Select(r => new Finding(view.Survey.Directory.Domain, r, false)).ToList();
        var services = new ServiceFindings(plan, view);
        var hosts = plan.Grants.Select(g => g.Right.OnHost).Concat(plan.Services.Select(s => s.Host)).OfType<string>()
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        foreach (var name in hosts.Order(StringComparer.OrdinalIgnoreCase))
        {
            if (view.Host(name) is not { Unread: null } host) continue;
            foreach (var group in host.LocalGroups)
                foreach (var member in group.Members.Where(m =>
                    m.ToString().StartsWith("S-1-5-21-", StringComparison.Ordinal)
                        && (view.Graph.IndexOf(m) is var n && (n < 0 || view.Graph.PrincipalOf(n) is null))))
                    findings.Add(new Finding(
                        host.Name, $"{group.Name} holds {member}, which is no account or group known here.", false));
            findings.AddRange(plan.Stage == Stage.Retiring ? StillRunning.On(host, plan, needs, view).Select(s =>
                new Finding(host.Name, s.Words, false)) : services.Of(host));
        }

        if (plan.Accounts.Any(a => a.WorksAs == WorksAs.Person))
            foreach (var host in view.Survey.Hosts.Where(h => h.Unread is null && !hosts.Contains(h.Name)))
                findings.AddRange(services.RunningAsPersons(host));
        foreach (var group in plan.Groups.Where(g => !g.IsShared)) findings.AddRange(UnexpectedMembers(plan, group, view));
        if (plan.Stage == Stage.Retiring) return findings;
        findings.AddRange(SecretStoreFindings.Of(plan, view));
        findings.AddRange(AccountFindings.Of(plan, view));
        return findings;
    }

    private static IEnumerable<Finding> UnexpectedMembers(Plan plan, PlannedGroup group, SurveyView view)
    {
        var node = view.Graph.IndexOf(group.Name);
        if (node < 0 || view.Graph.PrincipalOf(node) is not { } found) yield break;
        var planned = group.Members
            .Select(m => plan.Accounts.FirstOrDefault(a => a.Key == m)?.Name ?? plan.Groups.First(g => g.Key == m).Name)
            .Concat(plan.SignIn?.Memberships.Where(m => m.Placed && m.GroupKey == group.Key).Select(m => m.Member) ?? [])
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        foreach (var member in found.Members.Select(view.Graph.IndexOf).Where(m =>
            !planned.Contains(view.Graph.PrincipalOf(m)?.Name ?? "")))
        {
            yield return new Finding(group.Name, group.Closed
                ? $"{view.Graph.NameOf(member)} is excess here: the sheet says that this group is closed ({group.At})."
                : $"{view.Graph.NameOf(member)} is in this group but in no install's plan.", group.Closed);
        }
    }
}
