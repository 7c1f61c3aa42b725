using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;
using JustRight.Formats.Yaml;
using static JustRight.Formats.Yaml.NewNodes;

namespace JustRight.Formats.Installs;

/// <summary>
/// The texts of an install that moves on to another release: the one that follows the new sheet, with what of its text still
/// says something there, and the one that keeps what the former release needs. Comments are not carried over; the version before
/// has them.
/// </summary>
public static class UpgradeText
{
    /// <summary>The text of the install under another release, planned.</summary>
    /// <param name="text">The install's text, which is sound.</param>
    /// <param name="said">Answers to what the sheet asks anew, by field: <c>places.web-server</c>.</param>
    /// <returns>The text, and the fields that say nothing under the other release and were left out.</returns>
    public static (string Text, IReadOnlyList<string> LeftOut) Moved(
        string text, string file, Sheet to, IReadOnlyDictionary<string, IReadOnlyList<string>> said)
    {
        var root = DocumentReader.Stored(text, file, InstallShape.Root);
        var leftOut = new List<string>();
        var entries = new List<(YamlNode.Scalar, YamlNode)>
        {
            Entry(root, "install", root["install"]!),
            Entry(root, "name", root["name"]!),
            Entry(root, "product", root["product"]!),
            Entry(root, "release", Quoted(root, to.Release)),
            Entry(root, "estate", root["estate"]!),
            Entry(root, "stage", Plain(root, "planned")),
        };
        var accounts = to.Accounts.Select(a => a.Key).ToList();
        Section("places", [.. to.Places.Select(p => p.Key)]);
        Section("accounts", accounts);
        Section("groups", [.. to.Groups.Select(g => g.Key)]);
        Section("never-expires", accounts);
        Section("answers", [.. to.Questions.Select(q => q.Key)]);
        Section("choices", [.. to.Accounts.SelectMany(a => a.Needs.SelectMany(Decisions).Select(d => $"{a.Key}.{d}"))]);
        SignIn();
        return (YamlWriter.Write(new YamlNode.Mapping(entries, root.At)), leftOut);

        void Section(string key, IReadOnlyCollection<string> known)
        {
            var before = root[key] as YamlNode.Mapping ?? Map(root);
            leftOut.AddRange(before.Entries.Where(e => !known.Contains(e.Key.Text)).Select(e => $"{key}.{e.Key.Text}"));
            var kept = Only(before, known).Entries.Where(e => !said.ContainsKey($"{key}.{e.Key.Text}"));
            var anew = known.Where(k => said.ContainsKey($"{key}.{k}"))
                .Select(k => Entry(root, k, Values(said[$"{key}.{k}"])));
            if (kept.Concat(anew).ToList() is { Count: > 0 } all)
                entries.Add(Entry(root, key, new YamlNode.Mapping(all, before.At)));
        }

        void SignIn()
        {
            var directory = said.TryGetValue("sign-in.directory", out var value) ? Values(value) : null;
            if (to.SignIn is null && root["sign-in"] is not null) leftOut.Add("sign-in");
            if (to.SignIn is null) return;
            if (root["sign-in"] is { } signIn) entries.Add(Entry(root, "sign-in", signIn));
            else if (directory is not null) entries.Add(Entry(root, "sign-in", Map(root, ("directory", directory))));
        }

        YamlNode Values(IReadOnlyList<string> values) => values is [var one]
            ? Quoted(root, one)
            : new YamlNode.Sequence([.. values.Select(v => Quoted(root, v))], root.At);
    }

    /// <summary>
    /// The text of the install that keeps what the former release needs. Its accounts and groups are named, so that they are the
    /// ones that were made; those that the later release goes on with are not its own any more.
    /// </summary>
    /// <param name="text">The text of the install under the former release.</param>
    /// <param name="before">The former release's plan.</param>
    /// <param name="after">The later release's plan.</param>
    public static string Former(string text, string file, Install install, Plan before, Plan after)
    {
        var root = DocumentReader.Stored(text, file, InstallShape.Root);
        var goesOn = after.Accounts.Select(a => a.Name).Concat(after.Groups.Select(g => g.Name))
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var names = new Dictionary<string, YamlNode>(StringComparer.Ordinal)
        {
            ["name"] = Plain(root, Succession.FormerName(install)),
            ["stage"] = Plain(root, Succession.StageOfFormer(install) == Stage.Installed ? "installed" : "retiring"),
            ["succeeded-by"] = Plain(root, install.Name),
            ["accounts"] = Names(before.Accounts.Select(a => (a.Key, a.Name, a.Existing))),
            ["groups"] = Names(before.Groups.Select(g => (g.Key, g.Name, g.Existing))),
        };
        var entries = root.Entries.Where(e => !names.ContainsKey(e.Key.Text)).ToList();
        entries.InsertRange(1, names.Where(n => n.Value is not YamlNode.Mapping { Entries.Count: 0 })
            .Select(n => Entry(root, n.Key, n.Value)));
        return YamlWriter.Write(new YamlNode.Mapping(entries, root.At));

        YamlNode.Mapping Names(IEnumerable<(string Key, string Name, bool Existing)> all) => Map(
            root, [.. all.Select(n => (
                n.Key,
                (YamlNode)Map(root, (n.Existing || goesOn.Contains(n.Name) ? "existing" : "name", Quoted(root, n.Name)))))]);
    }

    private static IEnumerable<string> Decisions(NeedClause clause) => clause switch
    {
        AnyOf any => any.Alternatives.SelectMany(Decisions).Concat(any.Decision is { } name ? [name] : []),
        AllOf all => all.Parts.SelectMany(Decisions),
        Need => [],
        _ => throw new InvalidOperationException($"Unknown clause {clause.GetType().Name}."),
    };
}
