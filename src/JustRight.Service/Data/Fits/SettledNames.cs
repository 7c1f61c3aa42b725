using JustRight.Core.Directory.Schema;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Data.Fits;

/// <summary>
/// The names that are settled for all installs, to be asked for each of them. A name was free in one estate: in another it says
/// nothing.
/// </summary>
/// <param name="rows">All of them.</param>
/// <param name="estate">The estate that is planned.</param>
/// <param name="schema">The directory's schema, or null while none is known.</param>
internal sealed class SettledNames(IReadOnlyList<SettledNameRow> rows, string estate, DirectorySchema? schema)
{
    private readonly ILookup<string, SettledNameRow> _byInstall = rows.Where(r => r.Estate == estate).ToLookup(r => r.Install);

    /// <summary>The schema that the plans keep to, or null while none is known.</summary>
    public DirectorySchema? Schema => schema;

    /// <summary>All names that are settled for an install, of accounts and groups.</summary>
    public IEnumerable<string> Of(string install) => _byInstall[install].Select(n => n.Name);

    /// <summary>What follows from them for an install, in a form that is another when they are.</summary>
    public string BasisOf(string install) => string.Join(
        ' ', _byInstall[install].OrderBy(n => n.Id).Select(n => $"{n.Kind}:{n.Key}={n.Name}").Append($"{rows.Count}"));

    /// <summary>What is settled for an install, and what others hold.</summary>
    public NameIndex Of(Install install)
    {
        var mine = _byInstall[install.Name].ToList();
        return new NameIndex(
            mine.Where(n => n.Kind == NamedKind.Account).ToDictionary(n => n.Key, n => n.Name),
            mine.Where(n => n.Kind == NamedKind.Group).ToDictionary(n => n.Key, n => n.Name),
            rows.Where(n => n.Install != install.Name).Select(n => n.Name).ToHashSet(StringComparer.OrdinalIgnoreCase),
            mine.Count > 0)
        {
            Schema = schema,
        };
    }
}
