using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Plans;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Laying;

/// <summary>
/// Lays the state of a simulation from an estate: first what was surveyed of it, then what every domain, host and instance of its
/// kind comes with and was not seen, then what the installs ask to be there, then the mistakes that are wanted.
/// </summary>
public static class EstateState
{
    private const uint FirstRid = 2001;

    /// <summary>The state, with what could not be taken over from the survey, in words.</summary>
    /// <param name="estate">The estate. What it does not reach at all is not laid.</param>
    /// <param name="plans">The plans of its installs.</param>
    /// <param name="survey">What was surveyed of the estate, to be taken over; null to lay only what is usual.</param>
    /// <param name="mistakes">The mistakes to lay; each once.</param>
    /// <exception cref="MistakeException">A mistake has no place in these installs.</exception>
    public static LaidState Lay(
        Estate estate, IReadOnlyList<Plan> plans, Survey? survey, IReadOnlyCollection<RehearsedMistake> mistakes)
    {
        var remarks = new List<string>();
        var state = new SimulationState
        {
            Domain = estate.Domain.ShortName,
            DomainSid = survey is { Directory.Unread: null }
                ? survey.Directory.DomainSid.ToString()
                : UsualDomain.SidOf(estate.Domain.DnsName),
            Root = estate.Domain.Root,
            NextRid = FirstRid,
        };
        if (survey is not null) new SurveyedDirectory(state, remarks).Lay(survey.Directory);
        UsualDomain.Lay(state, estate);
        foreach (var host in estate.Hosts.Where(h => h.Reach == Reach.Simulation))
        {
            UsualDomain.LayComputer(state, host.Name);
            state.Hosts.Add(UsualHost.Make(state, host.Name));
        }

        foreach (var instance in estate.Instances.Where(i => i.Reach == Reach.Simulation))
            state.Instances.Add(UsualInstance.Make(state, instance));
        if (survey is not null) SurveyedPlaces.Lay(state, survey, remarks);
        var asked = new AskedParts(state, estate);
        foreach (var plan in plans) asked.Lay(plan);
        var wrong = new MistakeMaker(state, estate, plans);
        foreach (var mistake in mistakes.Distinct().Order()) state.Mistakes.Add($"{mistake.Word()}: {wrong.Lay(mistake)}");
        return new LaidState(state, remarks, wrong.Accounts);
    }

    /// <summary>Lays what the setup of a product makes: databases, local groups, services. What is there stays as it
    /// is.</summary>
    public static void LaySetup(SimulationState state, Estate estate, Plan plan) => new AskedParts(state, estate).LaySetup(plan);

    /// <summary>Adds a principal with the next free identifier, unless its name is taken.</summary>
    internal static SimulationPrincipal Add(
        SimulationState state, string name, PrincipalKind kind, string branch, Action<SimulationPrincipal>? fill = null)
    {
        if (state.Find(name) is { } known) return known;
        AddBranch(state, branch);
        var made = new SimulationPrincipal
        {
            Name = LogonName.WithoutDomain(name),
            Kind = kind,
            Rid = state.NextRid++,
            Dn = $"CN={DistinguishedName.Escape(LogonName.WithoutDomain(name).TrimEnd('$'))},{branch}",
            PrimaryGroupRid = kind switch
            {
                PrincipalKind.User => DirectorySnapshot.DomainUsersRid,
                PrincipalKind.Computer => UsualDomain.DomainComputersRid,
                PrincipalKind.Group or PrincipalKind.Foreign => 0,
            },
        };
        fill?.Invoke(made);
        state.Principals.Add(made);
        return made;
    }

    /// <summary>Adds an OU or container, unless it is there, with those above it.</summary>
    internal static void AddBranch(SimulationState state, string dn)
    {
        if (string.Equals(dn, state.Root, StringComparison.OrdinalIgnoreCase)
            || !DistinguishedName.IsAtOrBelow(dn, state.Root) || state.HasBranch(dn))
            return;
        AddBranch(state, DistinguishedName.Parse(dn).Parent!.Text);
        state.Branches.Add(dn);
    }
}

/// <summary>A state that was laid.</summary>
/// <param name="Remarks">What of the survey is not in it, in words.</param>
/// <param name="Accounts">Accounts that are there already though their plans make them.</param>
public sealed record LaidState(SimulationState State, IReadOnlyList<string> Remarks, IReadOnlyList<LaidAccount> Accounts);

/// <summary>An account that is there already: its name is settled as that of a plan's account.</summary>
/// <param name="Key">The key of the account in the plan.</param>
public sealed record LaidAccount(string Install, string Key, string Name);
