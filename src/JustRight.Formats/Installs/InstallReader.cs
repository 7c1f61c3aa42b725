using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Formats.Shapes;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Installs;

/// <summary>Reads installs from YAML.</summary>
public static class InstallReader
{
    /// <summary>The published JSON Schema.</summary>
    public static string JsonSchema() => JsonSchemaWriter.Write(InstallShape.Root, "Just Right install, version 1");

    /// <summary>
    /// Reads an install; null with every fault when it is not sound. Whether it fits its sheet and estate, the plan says.
    /// </summary>
    /// <param name="stored">
    /// Whether it was stored by an earlier release: its words are read on, and what this release does not know is left aside, and
    /// named in the faults beside what was read.
    /// </param>
    public static (Install? Install, IReadOnlyList<Fault> Faults) Read(ReadOnlySpan<byte> bytes, string file, bool stored = false)
    {
        var faults = new List<Fault>();
        var remarks = new List<Fault>();
        if (DocumentReader.Read(bytes, file, InstallShape.Root, stored ? remarks : null, faults) is not { } root)
            return (null, faults);
        var install = Bind(root, faults);
        if (faults.Count == 0 && !stored) faults.AddRange(NewInstallRules.Check(install));
        return faults.Count == 0 ? (install, remarks) : (null, faults);
    }

    private static Install Bind(YamlNode.Mapping root, List<Fault> faults) => new(
        root.Text("name"),
        root.Text("product"),
        root.Text("release"),
        root.Text("estate"),
        root.TextOr("stage", "planned") switch { "installed" => Stage.Installed, "retiring" => Stage.Retiring, _ => Stage.Planned },
        ((YamlNode.Mapping)root["places"]!).Entries.ToDictionary(
            e => e.Key.Text, e => new PlaceBinding(((YamlNode.Mapping)root["places"]!).List(e.Key.Text), e.Value.At)),
        Names(root, "accounts"),
        Names(root, "groups"),
        root.Texts("answers").ToDictionary(a => a.Key.Text, a => new Answer(a.Value.Text, a.Value.At)),
        root.Named("choices")
            .ToDictionary(
                c => c.Key.Text,
                c => new AlternativeChoice(c.Value.Text("take"), c.Value.Text("why"), c.Value.Text("by"), c.Value.At)),
        root.At)
    {
        NeverExpires = root.Named("never-expires")
            .ToDictionary(
                n => n.Key.Text,
                n => new NeverExpires(
                    n.Value.Text("why"), n.Value.Text("by"), Day(n.Value, $"never-expires.{n.Key.Text}.review-by", faults),
                    n.Value.At)),
        SucceededBy = root.TextOrNull("succeeded-by"),
        SignIn = root["sign-in"] is YamlNode.Mapping signIn ? InstallSignInSection.Read(signIn, faults) : null,
    };

    private static DateOnly Day(YamlNode.Mapping map, string field, List<Fault> faults)
    {
        var text = map.Text("review-by");
        if (!DateOnly.TryParseExact(
            text, "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture, System.Globalization.DateTimeStyles.None,
            out var day))
            faults.Add(new Fault(
                "wrong-value", map["review-by"]!.At, field,
                "There is no such day.")
            { Found = text, Expected = "a day such as 2027-03-01" });
        return day;
    }

    private static Dictionary<string, NameChoice> Names(YamlNode.Mapping root, string section) =>
        root.Named(section).ToDictionary(
        n => n.Key.Text,
        n => n.Value.TextOrNull("existing") is { } existing
            ? new NameChoice(existing, true, n.Value.At)
            : new NameChoice(n.Value.Text("name"), false, n.Value.At));
}
