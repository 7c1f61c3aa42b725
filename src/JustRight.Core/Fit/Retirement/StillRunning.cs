using JustRight.Core.Engines;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit.Retirement;

/// <summary>
/// A service, a scheduled task or a web application pool that is still set to run as an account whose install is being retired.
/// </summary>
/// <param name="Words">One sentence.</param>
internal sealed record StillRunning(PlannedAccount Account, string Words)
{
    /// <summary>Those of one host, without services that another install wants to run as the account: they stay.</summary>
    public static IEnumerable<StillRunning> On(HostSnapshot host, Plan plan, NeedsIndex needs, SurveyView view) =>
        (from service in host.Services
         from account in plan.Accounts
         where ServiceJudge.IsAccount(service.Account, host.Name, account.Name, plan)
         where !needs.IsNeeded(
             account.Name, AllEngines.OfService(new ServiceAsked(host.Name, service.Name, ServiceAspect.Identity)))
         select new StillRunning(
             account,
             $"{service.Name} on {host.Name} is still set to run as {account.Name}: uninstall the product there first, or give the service another account."))
        .Concat(
            from runner in host.Runners
            from account in plan.Accounts
            where ServiceJudge.IsAccount(runner, host.Name, account.Name, plan, view)
            select new StillRunning(
                account, $"{runner.Head} on {host.Name} is still set to run as {account.Name}: {Way(runner)}."));

    private static string Way(HostRunner runner) => runner.Kind switch
    {
        RunnerKind.Task => "delete the task, or give it another account",
        RunnerKind.Pool => "remove the pool, or give it another identity",
    };
}
