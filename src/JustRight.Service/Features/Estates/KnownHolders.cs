using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using JustRight.Core.Fit.Databases;
using SurveyView = JustRight.Core.Rights.SurveyView;

namespace JustRight.Service.Features.Estates;

/// <summary>
/// Who can do what at a database instance, found once for each survey: the lists of it are paged, searched and sorted without
/// finding it again.
/// </summary>
internal sealed class KnownHolders
{
    /// <summary>So many rights are told at most; who has more than that to read asks the database itself.</summary>
    private const int Most = 100_000;

    private readonly ConditionalWeakTable<SurveyView, OfSurvey> _known = [];

    /// <summary>The rights at an instance that was read.</summary>
    public IReadOnlyList<InstanceHolder> Of(SurveyView view, string instance) =>
        _known.GetOrCreateValue(view).GetOrAdd(
            instance, name => new Lazy<IReadOnlyList<InstanceHolder>>(() =>
                InstanceHolders.Of(view, view.Instance(name)!, Most).Holders)).Value;

    /// <summary>By instance.</summary>
    private sealed class OfSurvey() : ConcurrentDictionary<string, Lazy<IReadOnlyList<InstanceHolder>>>(StringComparer.Ordinal);
}
