using JustRight.Core.Estates;
using JustRight.Core.Plans;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Laying;

/// <summary>Lays mistakes into a state, each where an install meets it.</summary>
internal static class MistakeMaker
{
    private const string Administrators = "S-1-5-32-544", BackupOperators = "S-1-5-32-551", AllServices = "S-1-5-80-0";
    private const string ServiceList = "SeServiceLogonRight", BatchList = "SeBatchLogonRight";

    /// <summary>An access list that inherits nothing, and says what a container's usually does.</summary>
    private const string Blocked =
        "O:DAG:DAD:PAI(A;CI;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(A;CI;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;CI;RPLCLORC;;;AU)";

    private const string PolicyId = "{5D1B7C42-0E6A-4B0E-9A53-3F6E2C7A1D90}", PolicyName = "Rehearsed: who may log on";

    /// <summary>Lays one.</summary>
    /// <returns>Where it is, in words.</returns>
    /// <exception cref="MistakeException">No install meets it.</exception>
    public static string Lay(RehearsedMistake mistake, SimulationState state, Estate estate, IReadOnlyList<Plan> plans) =>
        mistake switch
        {
            RehearsedMistake.BlockedInheritance => BlockInheritance(state, plans),
            RehearsedMistake.PolicyTakesRightBack => TakeRightBack(state, plans),
            RehearsedMistake.Leftover => LeaveOver(state, estate, plans),
            RehearsedMistake.SharedAccount => Share(state, estate, plans),
        };

    private static string BlockInheritance(SimulationState state, IReadOnlyList<Plan> plans)
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

    private static string TakeRightBack(SimulationState state, IReadOnlyList<Plan> plans)
    {
        var asked = plans.SelectMany(p => p.Grants)
            .FirstOrDefault(g => g.Right is { OnHost: { } at, OnList: ServiceList or BatchList } && Host(state, at) is not null)
            ?? throw new MistakeException(
                RehearsedMistake.PolicyTakesRightBack, "no install needs to log on as a service or as a batch job.");
        var host = asked.Right.OnHost!;
        var computer = state.Find(Core.Hosts.ServiceIdentity.ComputerAccount(host))!;
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
                [BatchList] = [Administrators, BackupOperators],
            },
        });
        state.PolicyLinks.Add(new SimulationPolicyLinks { Dn = branch, Policies = [PolicyName] });
        return $"policy '{PolicyName}' on {branch}, with {host} in it";
    }

    private static string LeaveOver(SimulationState state, Estate estate, IReadOnlyList<Plan> plans)
    {
        var (account, host) = plans
            .SelectMany(p => p.Accounts.Where(a => !a.Existing).Select(a =>
                (Account: a, Host: p.GrantsOf(a.Key).Select(g => g.Right.OnHost).FirstOrDefault(h => Host(state, h) is not null))))
            .FirstOrDefault(f => f.Host is not null);
        if (host is null)
            throw new MistakeException(RehearsedMistake.Leftover, "no install has an account of its own with a right on a host.");
        EnsureAccount(state, estate, account);
        Host(state, host)!.LocalGroups.Find(g => g.Sid == Administrators)!.Members.Add(account.Name);
        return $"{account.Name} is there from an earlier try, and in Administrators on {host}";
    }

    private static string Share(SimulationState state, Estate estate, IReadOnlyList<Plan> plans)
    {
        foreach (var plan in plans)
            foreach (var service in plan.Services)
            {
                var other = plan.Accounts.FirstOrDefault(a => a.Key != service.Account && !a.Name.EndsWith('$'));
                if (other is null || Host(state, service.Host)?.Services.Find(s => s.Name == service.Name) is not { } laid) continue;
                EnsureAccount(state, estate, other);
                var logon = Host(state, service.Host)!.LogonRights[ServiceList];
                if (!logon.Contains(other.Name)) logon.Add(other.Name);
                laid.Account = laid.RunsNowAs = $"{state.Domain}\\{other.Name}";
                return $"{service.Name} on {service.Host} runs as {other.Name}, the account of another duty";
            }

        throw new MistakeException(
            RehearsedMistake.SharedAccount, "no install has a service, and an account of another duty beside that of the service.");
    }

    private static void EnsureAccount(SimulationState state, Estate estate, PlannedAccount account)
    {
        var branch = account.Dn is { } dn
            ? Core.Rights.Access.AccessTree.ParentDn(dn)!
            : estate.Branches.First(b => b.Key == estate.Naming.AccountsIn).Name.Text;
        EstateState.Add(state, account.Name, PrincipalKind.User, branch, a =>
        {
            a.Description = account.Description;
            if (account.PasswordNeverExpires) a.State = AccountState.PasswordNeverExpires;
        });
    }

    private static SimulationHost? Host(SimulationState state, string? name) =>
        name is null ? null : state.Hosts.Find(h => string.Equals(h.Name, name, StringComparison.OrdinalIgnoreCase));
}
