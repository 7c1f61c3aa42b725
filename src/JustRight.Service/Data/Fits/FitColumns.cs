using JustRight.Core.Directory;
using JustRight.Core.Fit;
using JustRight.Core.Plans;
using JustRight.Core.Rights;

namespace JustRight.Service.Data.Fits;

/// <summary>
/// In which column of the matrix a right stands: the sheet's place that asks for it; for one that no need asks for, the place
/// with needs at the same spot or instance; otherwise where it was found.
/// </summary>
internal sealed class FitColumns
{
    private readonly Plan plan;
    private readonly Dictionary<string, string> ofHosts = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, string> ofSpots = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, string> ofInstances = new(StringComparer.OrdinalIgnoreCase);
    private readonly List<(string Branch, string Place)> ofBranches = [];

    public FitColumns(Plan plan)
    {
        this.plan = plan;
        foreach (var grant in plan.Grants)
        {
            if (grant.Place is not { } place) continue;
            ofSpots.TryAdd(grant.Right.Place, place);
            if (grant.Right.OnHost is { } host) ofHosts.TryAdd(host, place);
            if (grant.Right.AtInstance is { } instance) ofInstances.TryAdd(instance, place);
            if (grant.Right.Below is { } below && !ofBranches.Contains((below.Branch, place)))
                ofBranches.Add((below.Branch, place));
        }
    }

    /// <summary>The column of a verdict.</summary>
    public string Of(Judgement judgement) => judgement.Grant?.Place ?? Near(judgement.Right) ?? judgement.Right.Place;

    /// <summary>The domain first, then places in the order of the sheet, then where else rights were found.</summary>
    public IReadOnlyList<string> All(InstallFit fit) => [.. new[] { plan.Domain }
        .Concat(plan.Grants.Select(g => g.Place ?? plan.Domain))
        .Concat(fit.Accounts.SelectMany(a => a.Judgements).Select(Of))
        .Distinct()];

    private string? Near(Right right)
    {
        if (right.OnHost is { } host) return ofHosts.GetValueOrDefault(host);
        if (right.AtInstance is { } instance)
            return ofSpots.GetValueOrDefault(right.Place) ?? ofInstances.GetValueOrDefault(instance);
        if (right.OnObject is not { } dn) return null;
        var at = ofBranches.FindIndex(b => DistinguishedName.IsAtOrBelow(dn, b.Branch));
        return at < 0 ? plan.Domain : ofBranches[at].Place;
    }
}
