using JustRight.Core.Faults;
using JustRight.Core.SignIn.Filters;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.SignIn;

/// <summary>Filters [RFC 4515] as values of our files.</summary>
internal static class FilterText
{
    /// <summary>A filter as it is written; null when there is none, or with a fault.</summary>
    public static string? Read(YamlNode.Mapping map, string key, string field, List<Fault> faults)
    {
        if (map.TextOrNull(key) is not { } text || FilterParser.TryParse(text, out _, out var fault)) return map.TextOrNull(key);
        faults.Add(new Fault(
            "not-a-filter", map[key]!.At, field, $"This is not a filter: {fault.Message}, at its character {fault.Position + 1}.")
        {
            Found = $"'{text}'",
            Expected = fault.Expected,
        });
        return null;
    }
}
