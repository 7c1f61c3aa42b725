using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Lists;
using SurveyView = JustRight.Core.Rights.SurveyView;

namespace JustRight.Service.Data.Estates;

/// <summary>What an estate holds that installs have to do with: hosts, and the accounts and groups of their plans.</summary>
internal sealed class EstateContents(FitService fitService, SurveyStore surveys)
{
    private const string Disabled = "disabled";

    /// <summary>How something stands in the directory.</summary>
    internal const string There = "there", NotThere = "not-there", Unseen = "unseen";

    /// <summary>Its hosts.</summary>
    public async Task<IReadOnlyList<HostSummary>> HostsAsync(Estate estate, CancellationToken cancel)
    {
        var view = await surveys.LatestAsync(estate.Name, cancel);
        var installs = (await fitService.PlansOfAsync(estate.Name, cancel))
            .SelectMany(p => HostsOf(p).Distinct(StringComparer.OrdinalIgnoreCase).Select(h => (Host: h, p.Install)))
            .ToLookup(p => p.Host, p => p.Install, StringComparer.OrdinalIgnoreCase);
        return [.. estate.Hosts.Select(h => Host(estate, h, view?.Host(h.Name), [.. installs[h.Name]]))];
    }

    /// <summary>Its database instances.</summary>
    public async Task<IReadOnlyList<InstanceSummary>> InstancesAsync(Estate estate, CancellationToken cancel)
    {
        var view = await surveys.LatestAsync(estate.Name, cancel);
        var installs = (await fitService.PlansOfAsync(estate.Name, cancel))
            .SelectMany(p => p.Grants.Select(g => g.Right.AtInstance).OfType<string>()
                .Distinct(StringComparer.OrdinalIgnoreCase).Select(i => (Instance: i, p.Install)))
            .ToLookup(p => p.Instance, p => p.Install, StringComparer.OrdinalIgnoreCase);
        return [.. estate.Instances.Select(i => Instance(i, view?.Instance(i.Name), [.. installs[i.Name]]))];
    }

    /// <summary>The accounts that its installs need.</summary>
    public async Task<IReadOnlyList<AccountSummary>> AccountsAsync(Estate estate, CancellationToken cancel)
    {
        var view = await surveys.LatestAsync(estate.Name, cancel);
        return [.. (await fitService.PlansOfAsync(estate.Name, cancel))
            .SelectMany(
                p => p.Accounts.Select(a => (a.Name, Use: new AccountUseView(p.Install, a.Key, WorksAsWords.Of(a.WorksAs)))))
            .GroupBy(a => a.Name, a => a.Use, StringComparer.OrdinalIgnoreCase)
            .Select(a => Account(a.Key, [.. a], view))];
    }

    /// <summary>The groups that its installs need.</summary>
    public async Task<IReadOnlyList<GroupSummary>> GroupsAsync(Estate estate, CancellationToken cancel)
    {
        var view = await surveys.LatestAsync(estate.Name, cancel);
        return [.. (await fitService.PlansOfAsync(estate.Name, cancel))
            .SelectMany(p => p.Groups.Select(g => (g.Name, p.Install)))
            .GroupBy(g => g.Name, g => g.Install, StringComparer.OrdinalIgnoreCase)
            .Select(g => Group(g.Key, [.. g.Distinct()], view))];
    }

    private static IEnumerable<string> HostsOf(Plan plan) =>
        plan.Grants.Select(g => g.Right.OnHost).OfType<string>().Concat(plan.Services.Select(s => s.Host));

    private static HostSummary Host(Estate estate, EstateHost host, HostSnapshot? read, IReadOnlyList<string> installs) => new(
        host.Name, ReachWords.Of(host.Reach), read?.System ?? "", read?.ReadAt, read?.Unread,
        read is { Unread: null } ? read.Services.Count : null,
        [.. estate.Instances.Where(i => string.Equals(i.Host, host.Name, StringComparison.OrdinalIgnoreCase))
            .Select(i => i.Name)],
        installs);

    private static InstanceSummary Instance(
        EstateInstance instance, InstanceSnapshot? read, IReadOnlyList<string> installs) => new(
        instance.Name, instance.Engine, read is { Release.Length: > 0 } ? read.Release : instance.Release?.ToString() ?? "",
        instance.Host, ReachWords.Of(instance.Reach), read?.ReadAt, read?.Unread,
        read is null ? 0 : read.UnreadParts.Count + read.Databases.Count(d => d.Unread is not null),
        read is { Unread: null } ? read.Databases.Count : null, installs);

    private static AccountSummary Account(string name, IReadOnlyList<AccountUseView> uses, SurveyView? view)
    {
        var found = Find(view, name);
        var state = found is null ? Absent(view) : found.State.HasFlag(AccountState.Disabled) ? Disabled : There;
        return new AccountSummary(name, state, found?.Dn, found?.PasswordSetAt, uses);
    }

    private static GroupSummary Group(string name, IReadOnlyList<string> installs, SurveyView? view)
    {
        var found = Find(view, name);
        return new GroupSummary(
            name, found is null ? Absent(view) : There, found?.Dn,
            found is { MembersUnread: null } ? found.Members.Count : null, installs);
    }

    /// <summary>What has a logon name, as it was read; null where it was not found.</summary>
    internal static DirectoryPrincipal? Find(SurveyView? view, string name) =>
        view?.Graph.IndexOf(name) is >= 0 and var node ? view.Graph.PrincipalOf(node) : null;

    private static string Absent(SurveyView? view) => view is { Survey.Directory.Unread: null } ? NotThere : Unseen;

    /// <summary>Whether a host is what is looked for.</summary>
    public static bool Matches(HostSummary host, string[] words) => SoughtWords.AreIn(
        words, host.Name, host.System, host.Reach, host.Unread, string.Join(' ', host.Instances),
            string.Join(' ', host.Installs));

    /// <summary>Whether an instance is what is looked for.</summary>
    public static bool Matches(InstanceSummary instance, string[] words) => SoughtWords.AreIn(
        words, instance.Name, instance.Engine, instance.Release, instance.Host, instance.Reach, instance.Unread,
        string.Join(' ', instance.Installs));

    /// <summary>Whether an account is what is looked for.</summary>
    public static bool Matches(AccountSummary account, string[] words) => SoughtWords.AreIn(
        words, account.Name, account.State, account.Dn, string.Join(' ', account.Uses.Select(u => $"{u.Install} {u.Account}")));

    /// <summary>Whether a group is what is looked for.</summary>
    public static bool Matches(GroupSummary group, string[] words) =>
        SoughtWords.AreIn(words, group.Name, group.State, group.Dn, string.Join(' ', group.Installs));
}
