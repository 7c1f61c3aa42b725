using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;

namespace JustRight.Service.Data.Fits;

/// <summary>An install of an estate with its plan, or with the faults for which it has none.</summary>
/// <param name="Basis">The hash of all that the plan follows from.</param>
public sealed record PlannedInstall(Install Install, Sheet? Sheet, Plan? Plan, IReadOnlyList<Fault> Faults, string Basis);

/// <summary>All installs of an estate, planned once for whatever a request asks of them.</summary>
/// <param name="Installs">Each of them that can be read, by its name, in the order of names.</param>
/// <param name="Unplanned">Those that cannot be read, or not be planned.</param>
/// <param name="Basis">The hash of all that these plans follow from.</param>
public sealed record EstatePlans(
    Estate Estate, IReadOnlyDictionary<string, PlannedInstall> Installs, IReadOnlyList<UnplannedInstall> Unplanned, string Basis)
{
    /// <summary>The plans; an install that can no longer be planned is left out, and says so on its own page.</summary>
    public IReadOnlyList<Plan> All { get; } = [.. Installs.Values.Select(i => i.Plan).OfType<Plan>()];

    /// <summary>What all of them need.</summary>
    public NeedsIndex Needs => field ??= new NeedsIndex(All, Unplanned);
}
