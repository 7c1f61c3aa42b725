using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Fit;

/// <summary>A need of an install that still stands.</summary>
public sealed record StandingNeed(string Install, Stage Stage, PlannedGrant Grant);

/// <summary>
/// What every install of the estate needs, by account: a right that another install needs is not excess. Who signs in to a
/// product
/// needs to be in its group, and that need counts like any other.
/// </summary>
public sealed class NeedsIndex
{
    private readonly Dictionary<string, Dictionary<string, List<StandingNeed>>> _needs = new(StringComparer.OrdinalIgnoreCase);
    private readonly ILookup<string, string> _users;
    private readonly HashSet<string> _persons;

    /// <summary>Gathers the standing needs of the given plans.</summary>
    /// <param name="plans">Of all installs that can be planned.</param>
    /// <param name="unplanned">The installs that cannot; null for none.</param>
    public NeedsIndex(IEnumerable<Plan> plans, IReadOnlyList<UnplannedInstall>? unplanned = null)
    {
        var all = plans.ToList();
        Unplanned = unplanned ?? [];
        _users = all.Where(p => p.Stage != Stage.Retiring)
            .SelectMany(
                p => p.Accounts.Select(a => a.Name).Concat(p.Groups.Select(g => g.Name))
                    .Distinct(StringComparer.OrdinalIgnoreCase),
                (p, name) => (p.Install, Name: name))
            .ToLookup(u => u.Name, u => u.Install, StringComparer.OrdinalIgnoreCase);
        _persons = all.SelectMany(p => p.Accounts).Where(a => a.WorksAs == WorksAs.Person).Select(a => a.Name)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        foreach (var plan in all)
        {
            var names = plan.Accounts.ToDictionary(a => a.Key, a => a.Name);
            foreach (var grant in plan.Grants.Where(g => Stands(g, plan.Stage))) Add(names[grant.Account], plan, grant);
            if (plan.Stage != Stage.Retiring)
                foreach (var (name, grant) in Entering.Of(plan)) Add(name, plan, grant);
        }
    }

    private void Add(string name, Plan plan, PlannedGrant grant)
    {
        if (!_needs.TryGetValue(name, out var rights)) _needs[name] = rights = new(StringComparer.Ordinal);
        if (!rights.TryGetValue(grant.Right.Key, out var list)) rights[grant.Right.Key] = list = [];
        list.Add(new StandingNeed(plan.Install, plan.Stage, grant));
    }

    /// <summary>
    /// Whether a grant is still needed: one for setup alone is not once setup has run, and none is once the install is being
    /// retired.
    /// </summary>
    public static bool Stands(PlannedGrant grant, Stage stage) =>
        stage != Stage.Retiring && (grant.Until == Until.Always || stage == Stage.Planned);

    /// <summary>The installs whose needs are not known.</summary>
    public IReadOnlyList<UnplannedInstall> Unplanned { get; }

    /// <summary>
    /// The installs that go on using an account or group, those that may do so among them; one that is being retired does not.
    /// </summary>
    public IEnumerable<string> UsersOf(string name) =>
        _users[name].Concat(Unplanned.Where(u => u.MayUse(name)).Select(u => $"{u.Install} (which cannot be planned)"));

    /// <summary>Whether a plan says that an account is somebody's own.</summary>
    public bool IsPerson(string name) => _persons.Contains(name);

    /// <summary>Why it is not known whether anybody needs a right of an account, or null when it is known.</summary>
    public string? WhyUnknown(string account, Right right) => Unplanned.FirstOrDefault(u => u.MayNeed(account, right))?.Words;

    /// <summary>Whether any install needs a right of an account.</summary>
    public bool IsNeeded(string account, Right right) =>
        _needs.TryGetValue(account, out var rights) && rights.ContainsKey(right.Key);

    /// <summary>The installs that need a right of an account.</summary>
    public IReadOnlyList<string> Installs(string account, Right right) =>
        _needs.TryGetValue(account, out var rights) && rights.TryGetValue(right.Key, out var list)
            ? [.. list.Select(i => i.Install).Distinct()]
            : [];

    /// <summary>The accounts that need anything, by name.</summary>
    public IEnumerable<string> Accounts => _needs.Keys.Order(StringComparer.OrdinalIgnoreCase);

    /// <summary>Everything an account needs, with the install that needs it.</summary>
    public IEnumerable<StandingNeed> Of(string account) =>
        _needs.TryGetValue(account, out var rights) ? rights.Values.SelectMany(l => l) : [];
}
