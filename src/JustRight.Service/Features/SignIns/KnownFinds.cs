using System.Runtime.CompilerServices;
using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Service.Data.Surveys;

namespace JustRight.Service.Features.SignIns;

/// <summary>
/// Whom filters found among the people of a reading: a page of them, sorted or searched otherwise, is told without finding them
/// again.
/// </summary>
internal sealed class KnownFinds
{
    private readonly ConditionalWeakTable<KeptPeople, OfReading> _known = [];

    /// <summary>Those that a filter finds.</summary>
    /// <param name="below">Only those at or below this; null for all.</param>
    public IReadOnlyList<FoundObjectView> Of(Filter filter, KeptPeople people, DistinguishedName? below) =>
        _known.GetValue(people, p => new OfReading(p.Table)).Find(filter, below);

    /// <summary>What is told of one found.</summary>
    public static FoundObjectView View(PeopleObject found) => new(
        found.Dn, found.First("displayName") ?? found.First("cn") ?? found.Dn,
        found.First("sAMAccountName") ?? found.First("uid"), KindOf(found.All("objectClass")));

    private static string KindOf(IReadOnlyList<string> classes)
    {
        bool Has(string one) => classes.Contains(one, StringComparer.OrdinalIgnoreCase);
        return Has("computer") ? "computer"
            : Has("user") || Has("inetOrgPerson") || Has("person") ? "person"
            : classes.Any(c => c.Contains("group", StringComparison.OrdinalIgnoreCase)) ? "group"
            : "other";
    }

    private sealed class OfReading(ObjectTable table)
    {
        /// <summary>So many filters are remembered; somebody who types one asks for many.</summary>
        private const int Most = 20;

        private readonly Lock _lock = new();
        private readonly Dictionary<(string Filter, string Below), IReadOnlyList<FoundObjectView>> _found = [];
        private readonly Lazy<FoundObjectView[]> _views = new(() => [.. table.Objects.Select(View)]);

        public IReadOnlyList<FoundObjectView> Find(Filter filter, DistinguishedName? below)
        {
            var key = (filter.Text, below?.ToString() ?? "");
            lock (_lock)
            {
                if (_found.TryGetValue(key, out var known)) return known;
            }

            var truths = FilterEvaluator.Evaluate(filter, table);
            var found = _views.Value.Where((o, i) => truths[i] == Truth.True && IsWithin(o.Dn, below)).ToList();
            lock (_lock)
            {
                if (_found.Count == Most) _found.Clear();
                return _found[key] = found;
            }
        }

        private static bool IsWithin(string dn, DistinguishedName? below) =>
            below is null || (DistinguishedName.TryParse(dn, out var parsed) && parsed.IsAtOrBelow(below));
    }
}
