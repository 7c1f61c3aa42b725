using JustRight.Core.Engines;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit.Retirement;

/// <summary>A service that is still set to run as an account whose install is being retired.</summary>
internal sealed record StillRunning(string Service, string Host, PlannedAccount Account)
{
    /// <summary>One sentence.</summary>
    public string Words =>
        $"{Service} on {Host} is still set to run as {Account.Name}: uninstall the product there first, or give the service another account.";

    /// <summary>Those of one host, without those that another install wants to run as the account: they stay.</summary>
    public static IEnumerable<StillRunning> On(HostSnapshot host, Plan plan, NeedsIndex needs) =>
        from service in host.Services
        from account in plan.Accounts
        where ServiceJudge.IsAccount(service.Account, host.Name, account.Name, plan)
        where !needs.IsNeeded(
            account.Name, AllEngines.OfService(new ServiceAsked(host.Name, service.Name, ServiceAspect.Identity)))
        select new StillRunning(service.Name, host.Name, account);
}
