using JustRight.Core.Engines;
using JustRight.Core.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;

namespace JustRight.Core.Fit.Hosts;

/// <summary>
/// Finds where a computer account stands in for an account of the plan: a service that ran, or still runs, as a built-in
/// identity reached another host or a database as its machine. Once the service runs as its own account, the machine's entry is
/// excess: every other service of that machine could use it.
/// </summary>
internal static class MachineStandIns
{
    /// <summary>The computer accounts that hold a right which an account of the plan needs elsewhere.</summary>
    public static IEnumerable<Judgement> Of(Plan plan, PlannedAccount account, SurveyView view)
    {
        var needed = plan.GrantsOf(account.Key).Where(g => g.Right.MachineMayHold).DistinctBy(g => g.Right.Key)
            .ToDictionary(g => g.Right.Key, StringComparer.Ordinal);
        foreach (var host in plan.Services.Where(s => s.Account == account.Key).Select(s => s.Host).Distinct(StringComparer.OrdinalIgnoreCase))
        {
            var node = view.Graph.IndexOf(ServiceIdentity.ComputerAccount(host));
            if (node < 0) continue;
            var machine = view.HoldingsOf(node);
            var all = machine.All().ToList(); // a machine holds little: less than the plan needs
            foreach (var held in all)
            {
                if (!(needed.TryGetValue(held.Right.Key, out var grant) || (grant = Entered(held.Right, all, needed)) is not null)
                    || Same(held.Right.Place, host) || view.Baseline.Of(held.Right).Count > 0)
                    continue;
                yield return new Judgement(
                    $"{account.Key}/machine/{host}/{held.Right.Key}", account.Key, held.Right, Verdict.Excess,
                    Reason(plan, account, host, view), machine.PathsOf(held))
                {
                    Machine = host,
                };
            }
        }
    }

    /// <summary>
    /// Why the machine's entry may not be taken away yet, or null when every service of the account on the host runs as it.
    /// </summary>
    public static string? WhyStillNeeded(Plan plan, string account, string host, SurveyView view)
    {
        var name = plan.Accounts.First(a => a.Key == account).Name;
        foreach (var asked in plan.Services.Where(s => s.Account == account && Same(s.Host, host)))
        {
            if (view.Host(host) is not { Unread: null } read
                || AllEngines.OfService(new ServiceAsked(host, asked.Name, ServiceAspect.Identity)).WhyUnread(view) is not null)
                return $"what {asked.Name} on {host} runs as could not be read";
            if (read.Services.FirstOrDefault(s => Same(s.Name, asked.Name)) is not { } service) continue;
            if (!ServiceJudge.IsAccount(service.Account, host, name, plan))
                return $"{asked.Name} on {host} is still set to run as {ServiceIdentity.Parse(service.Account, host)}";
            if (service.Running && !ServiceJudge.RunsNowAs(service, host, name, plan, view))
                return $"{asked.Name} on {host} was not seen running as {name} yet: restart it first";
        }

        return null;
    }

    /// <summary>
    /// The need for which a machine has a login or user: one that nothing but what this account needs there stands on. Null
    /// when it has it for something else.
    /// </summary>
    private static PlannedGrant? Entered(Right right, IReadOnlyList<Held> all, Dictionary<string, PlannedGrant> needed)
    {
        if (!right.OnlyLetsIn) return null;
        var through = all.Where(h => !h.Right.OnlyLetsIn && !h.IsEverybodys && h.Right.Entrances.Contains(right)).ToList();
        return through.Count > 0 && through.All(h => needed.ContainsKey(h.Right.Key)) ? needed[through[0].Right.Key] : null;
    }

    private static string Reason(Plan plan, PlannedAccount account, string host, SurveyView view) =>
        WhyStillNeeded(plan, account.Key, host, view) is { } why
            ? $"held by the computer account: {why}"
            : $"held by the computer account, and nothing of this plan on {host} runs as it any more";

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
