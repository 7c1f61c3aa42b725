using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Laying;

/// <summary>Lays mistakes into a state, each where an install meets it.</summary>
internal sealed class MistakeMaker(SimulationState state, Estate estate, IReadOnlyList<Plan> plans)
{
    private readonly List<LaidAccount> _accounts = [];

    private const string AdministratorsSid = "S-1-5-32-544", BackupOperators = "S-1-5-32-551", AllServices = "S-1-5-80-0";
    private const string ServiceList = "SeServiceLogonRight", BatchList = "SeBatchLogonRight";

    /// <summary>An access list that inherits nothing, and says what a container's usually does.</summary>
    private const string Blocked =
        "O:DAG:DAD:PAI(A;CI;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(A;CI;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;CI;RPLCLORC;;;AU)";

    private const string PolicyId = "{5D1B7C42-0E6A-4B0E-9A53-3F6E2C7A1D90}", PolicyName = "Rehearsed: who may log on";

    /// <summary>The accounts of plans that were laid for them: each is the one that its plan means.</summary>
    public IReadOnlyList<LaidAccount> Accounts => _accounts;

    /// <summary>Lays one.</summary>
    /// <returns>Where it is, in words.</returns>
    /// <exception cref="MistakeException">No install meets it.</exception>
    public string Lay(RehearsedMistake mistake) => mistake switch
    {
        RehearsedMistake.BlockedInheritance => BlockInheritance(),
        RehearsedMistake.PolicyTakesRightBack => TakeRightBack(),
        RehearsedMistake.Leftover => LeaveOver(),
        RehearsedMistake.SharedAccount => Share(),
    };

    private string BlockInheritance()
    {
        var asked = plans.SelectMany(p => p.Grants).FirstOrDefault(g => g.Right.Below is not null)
            ?? throw new MistakeException(
                RehearsedMistake.BlockedInheritance, "no install needs a right over a branch of the directory.");
        var dn = $"OU=Blocked,{asked.Right.Below!.Branch}";
        EstateState.AddBranch(state, dn);
        state.AccessLists[dn] = Blocked;
        EstateState.Add(state, "blocked-person", PrincipalKind.User, dn);
        EstateState.Add(state, "blocked-group", PrincipalKind.Group, dn);
        return $"{dn} inherits nothing from above";
    }

    private string TakeRightBack()
    {
        var asked = plans.SelectMany(p => p.Grants).OrderBy(g => g.GivenBy) // what we give, before what setup gives
            .FirstOrDefault(g => g.Right is { OnHost: { } at, OnList: ServiceList or BatchList } && Host(at) is not null)
            ?? throw new MistakeException(
                RehearsedMistake.PolicyTakesRightBack, "no install needs to log on as a service or as a batch job.");
        var host = asked.Right.OnHost!;
        var computer = state.Find(ServiceIdentity.ComputerAccount(host))!;
        var branch = $"OU=Governed Servers,{state.Root}";
        EstateState.AddBranch(state, branch);
        computer.Dn = $"{computer.Dn.Split(',')[0]},{branch}";
        state.Policies.Add(new SimulationPolicy
        {
            Id = PolicyId,
            Name = PolicyName,
            Lists =
            {
                [ServiceList] = [AllServices],
                [BatchList] = [AdministratorsSid, BackupOperators],
            },
        });
        state.PolicyLinks.Add(new SimulationPolicyLinks { Dn = branch, Policies = [PolicyName] });
        return $"policy '{PolicyName}' on {branch}, with {host} in it";
    }

    private string LeaveOver()
    {
        var (plan, account, host) = plans.SelectMany(p => p.Accounts.Select(a => (Plan: p, Account: a, Host: HostOf(p, a))))
            .FirstOrDefault(f => f.Host is not null);
        if (host is null)
            throw new MistakeException(
                RehearsedMistake.Leftover, "no install has an account with a right on a host that it does not administer.");
        LayAccount(plan, account);
        var administrators = Host(host)!.LocalGroups.Find(g => g.Sid == AdministratorsSid)!;
        administrators.Members.Add(account.Name);
        return $"{account.Name} is in {administrators.Name} on {host}, from an earlier try";
    }

    /// <summary>A host on which an account has a right, and need not be an administrator; null when there is none.</summary>
    private string? HostOf(Plan plan, PlannedAccount account)
    {
        var rights = plan.GrantsOf(account.Key).Select(g => g.Right).ToList();
        return rights.Select(r => r.OnHost).FirstOrDefault(h => Host(h) is not null && !rights.Any(r =>
            r.Within is LocalGroupPart group && BuiltInGroups.Find(group.Group)?.ToString() == AdministratorsSid
            && string.Equals(group.Host, h, StringComparison.OrdinalIgnoreCase)));
    }

    private string Share()
    {
        foreach (var (plan, service) in plans.SelectMany(p => p.Services.Select(s => (p, s))).OrderBy(s => s.s.GivenBy))
        {
            var other = plan.Accounts.FirstOrDefault(a => a.Key != service.Account && !a.Name.EndsWith('$'));
            if (other is null || Host(service.Host) is null) continue;
            EstateState.LaySetup(state, estate, plan); // the product is there, and was set up with the wrong account
            var laid = Host(service.Host)!.Services.Find(s =>
                string.Equals(s.Name, service.Name, StringComparison.OrdinalIgnoreCase))!;
            LayAccount(plan, other);
            var logon = Host(service.Host)!.LogonRights[ServiceList];
            if (!logon.Contains(other.Name)) logon.Add(other.Name);
            laid.Account = laid.RunsNowAs = $"{state.Domain}\\{other.Name}";
            return $"{service.Name} on {service.Host} runs as {other.Name}, the account of another duty";
        }

        throw new MistakeException(
            RehearsedMistake.SharedAccount,
            "no install has a service, and an account of another duty beside that of the service.");
    }

    /// <summary>Lays an account of a plan that the plan would make, unless it is there.</summary>
    private void LayAccount(Plan plan, PlannedAccount account)
    {
        if (account.Existing) return;
        var branch = account.Dn is { } dn
            ? AccessTree.ParentDn(dn)!
            : ProductBranches.Of(estate, estate.Naming.AccountsIn, plan.Product).Text;
        EstateState.Add(state, account.Name, PrincipalKind.User, branch, a =>
        {
            a.Description = account.Description;
            if (account.PasswordNeverExpires) a.State = AccountState.PasswordNeverExpires;
        });
        _accounts.Add(new LaidAccount(plan.Install, account.Key, account.Name));
    }

    private SimulationHost? Host(string? name) =>
        name is null ? null : state.Hosts.Find(h => string.Equals(h.Name, name, StringComparison.OrdinalIgnoreCase));
}
