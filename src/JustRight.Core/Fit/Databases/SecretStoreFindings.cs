using JustRight.Core.Engines;
using JustRight.Core.Plans;
using JustRight.Core.Rights;

namespace JustRight.Core.Fit.Databases;

/// <summary>
/// Advice on a database that keeps other systems' credentials: whoever rules its instance reads it, and so does whoever rules
/// what else runs there.
/// </summary>
internal static class SecretStoreFindings
{
    private const int MostNamed = 5;
    private static readonly string[] SystemDatabases = ["master", "model", "msdb", "tempdb", "postgres"];

    /// <summary>A finding for each such database that shares its instance, or whose instance somebody rules.</summary>
    public static IEnumerable<Finding> Of(Plan plan, SurveyView view)
    {
        foreach (var store in plan.SecretStores)
        {
            var place = $"{store.Instance}/{store.Database}";
            if (view.Instance(store.Instance) is not { Unread: null } instance)
            {
                yield return new Finding(
                    place, $"It keeps credentials of other systems ({store.At}), and the rest of {store.Instance} was not read.",
                    false);
                continue;
            }

            var others = instance.Databases.Select(d => d.Name)
                .Where(d => !Same(d, store.Database) && !SystemDatabases.Contains(d, StringComparer.OrdinalIgnoreCase)).ToList();
            var rulers = AllEngines.RulersOf(instance, view);
            if (others.Count == 0 && rulers.Count == 0) continue;
            var shares = others.Count == 0
                ? ""
                : $" It shares its instance with {Named(others)}: a separate instance would keep their administrators out.";
            var ruled = rulers.Count == 0 ? "" : $" Accounts with full control of the instance can read it too: {Named(rulers)}.";
            yield return new Finding(place, $"It keeps credentials of other systems ({store.At}).{shares}{ruled}", false);
        }
    }

    private static string Named(IReadOnlyList<string> names) =>
        string.Join(", ", names.Take(MostNamed)) + (names.Count > MostNamed ? $" and {names.Count - MostNamed} more" : "");

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
