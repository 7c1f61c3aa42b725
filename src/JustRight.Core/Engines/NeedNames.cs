using System.Buffers;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines;

/// <summary>Names in needs that can be the name of nothing: what is asked for by them is nowhere.</summary>
public static class NeedNames
{
    // Not allowed in the logon names of groups [MS-SAMR 3.1.1.6], nor in those of local groups.
    private static readonly SearchValues<char> Refused = SearchValues.Create("\"/[]:;|=,+*?<>");

    /// <summary>Why what a need names cannot be there, with what is meant instead; null when it can.</summary>
    /// <param name="engine">The family of the need's place, or null where that is not said.</param>
    public static (string Why, string Expected)? Check(Need need, string? engine)
    {
        var name = need.Value;
        if (name != name.Trim()) return ($"'{name}' begins or ends with a space.", $"'{name.Trim()}'");
        if (engine is not null && Engines(engine).Select(e => e.SaidAs(need.Kind)).FirstOrDefault(s => s is not null) is { } said)
            return ($"The family {engine} has nothing like '{name}' there.", said);
        return need.Kind switch
        {
            NeedKind.DomainGroup or NeedKind.LocalGroup => OfGroup(name, need.Kind),
            NeedKind.InstancePermission or NeedKind.DatabasePermission => OfPermission(name, need.Kind, engine),
            NeedKind.Logon or NeedKind.KeptOut or NeedKind.Spn or NeedKind.Delegation or NeedKind.Privilege
                or NeedKind.InstanceRole
                or NeedKind.DatabaseRole or NeedKind.DatabaseOwner
                or NeedKind.Directory or NeedKind.ProductRole or NeedKind.Task or NeedKind.Service => null,
        };
    }

    private static (string, string)? OfGroup(string name, NeedKind kind)
    {
        if (name.Contains('\\', StringComparison.Ordinal))
        {
            var own = name[(name.LastIndexOf('\\') + 1)..];
            return kind == NeedKind.DomainGroup
                ? ($"'{name}' names a domain: the group is looked for in the estate's own.", $"'{own}'")
                : ($"'{name}' names a host or a domain: the place says which host.", $"'{own}'");
        }

        return name.AsSpan().IndexOfAny(Refused) is >= 0 and var at
            ? ($"'{name}' cannot be the name of a group: it holds '{name[at]}'.", "a group's logon name")
            : null;
    }

    /// <summary>A permission that is in no table of the families it may be asked of.</summary>
    private static (string, string)? OfPermission(string text, NeedKind kind, string? engine)
    {
        var words = Securable.Parse(text);
        var known = Engines(engine).Select(e => e.NamesFor(kind, words.On)).ToList();
        if (known.Any(names => names is null || names.Contains(words.Permission, StringComparer.Ordinal))) return null;
        var all = known.OfType<IReadOnlyCollection<string>>().SelectMany(names => names).Distinct().ToList();
        if (all.Count == 0)
            return ($"'{words.On}' is nothing that a permission can be on there.", DatabaseNeedRules.Expected(kind));
        return (
            $"'{words.Permission}' is no permission that is known{(words.On is null ? "" : $" on {words.On}")}.",
            Faults.Spelling.Nearest(words.Permission, all) is { } nearest ? $"'{nearest}'"
                : words.On is null ? DatabaseNeedRules.Expected(kind)
                : $"one of {string.Join(", ", all.Order(StringComparer.Ordinal))}");
    }

    /// <summary>Those of a family, or of any.</summary>
    private static IEnumerable<Engine> Engines(string? family) =>
        AllEngines.List.Where(e => e.Family is { } own && (family is null || own == family));
}
