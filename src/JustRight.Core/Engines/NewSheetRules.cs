using JustRight.Core.Faults;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines;

/// <summary>
/// What a sheet that is added must be besides: names that can be there, and services that can start. A sheet that is stored is
/// read without these, and what it asks for by such a name is unseen.
/// </summary>
public static class NewSheetRules
{
    /// <summary>The faults, in the order of the file.</summary>
    public static IReadOnlyList<Fault> Check(Sheet sheet)
    {
        var faults = new List<Fault>();
        foreach (var account in sheet.Accounts)
            for (var i = 0; i < account.Needs.Count; i++)
                Needs(account.Needs[i], $"accounts.{account.Key}.needs[{i}]");
        if (Ring(sheet.Services) is { } ring) faults.Add(ring);
        return [.. faults.OrderBy(f => f.At.Line).ThenBy(f => f.At.Column)];

        void Needs(NeedClause clause, string field)
        {
            switch (clause)
            {
                case AnyOf any:
                    for (var i = 0; i < any.Alternatives.Count; i++) Needs(any.Alternatives[i], $"{field}.any-of[{i}]");
                    break;
                case AllOf all:
                    for (var i = 0; i < all.Parts.Count; i++) Needs(all.Parts[i], $"{field}.all-of[{i}]");
                    break;
                case Need need:
                    var engine = sheet.Places.FirstOrDefault(p => p.Key == need.Place)?.Engine;
                    if (NeedNames.Check(need, engine) is not ({ } why, { } expected)) break;
                    faults.Add(new Fault("unknown-value", need.At, $"{field}.{NeedKinds.ByKind[need.Kind].Key}", why)
                    {
                        Found = need.Value,
                        Expected = expected,
                    });
                    break;
            }
        }
    }

    /// <summary>Services that wait for one another: none of them could start.</summary>
    private static Fault? Ring(IReadOnlyList<SheetService> services)
    {
        var byName = services.DistinctBy(s => s.Name.ToUpperInvariant())
            .ToDictionary(s => s.Name, StringComparer.OrdinalIgnoreCase);
        foreach (var start in byName.Values)
        {
            var path = new List<string> { start.Name };
            if (!Walk(start, new HashSet<string>(StringComparer.OrdinalIgnoreCase))) continue;
            return new Fault(
                "cyclic-services", start.At, $"services.{start.Name}.after",
                $"'{start.Name}' waits for itself, and could never start.")
            {
                Found = string.Join(" -> ", path),
                Expected = "services that wait for others without a ring",
            };

            bool Walk(SheetService service, HashSet<string> seen)
            {
                foreach (var after in service.After)
                {
                    path.Add(after);
                    if (string.Equals(after, start.Name, StringComparison.OrdinalIgnoreCase)) return true;
                    if (byName.TryGetValue(after, out var next) && seen.Add(after) && Walk(next, seen)) return true;
                    path.RemoveAt(path.Count - 1);
                }

                return false;
            }
        }

        return null;
    }
}
