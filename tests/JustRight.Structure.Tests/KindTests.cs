using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace JustRight.Structure.Tests;

/// <summary>
/// A kind of right is named in the room of its engine and nowhere else: whatever is asked of a right, the right answers. What a
/// right means would otherwise be spread over every file that has a question, and a new kind would be forgotten in one of them.
/// </summary>
public sealed class KindTests
{
    private const string Engines = "src/JustRight.Core/Engines/";
    private const string Door = Engines + "AllEngines.cs";

    private static readonly string[] Outside = ["src/JustRight.Contracts/", "src/JustRight.Cli/"];

    /// <summary>The kinds, with the folder of their engine.</summary>
    private static readonly Dictionary<string, string> Kinds = KindsIn(SourceFile.Of("JustRight.Core"));

    [Fact]
    public void Only_the_room_of_its_engine_names_a_kind() => SourceFile.All
        .Where(file => file.Path.StartsWith("src/", StringComparison.Ordinal) && file.Path != Door)
        .Where(file => !Outside.Any(file.Path.StartsWith))
        .SelectMany(file => Named(file.Text).Where(kind => !file.Path.StartsWith(Kinds[kind], StringComparison.Ordinal))
            .Select(kind => $"{file.Path}: {kind}"))
        .ShouldBeEmpty("ask the right instead: what is asked of all kinds is a member of Right");

    [Fact]
    public void Every_engine_has_kinds() =>
        Kinds.Values.Distinct().Select(folder => folder[Engines.Length..].TrimEnd('/')).Order(StringComparer.Ordinal)
            .ShouldBe(["", "Directory", "Hosts", "Person", "PostgreSql", "SqlServer"]);

    [Fact]
    public void A_file_holds_one_kind() => SourceFile.Of("JustRight.Core")
        .Where(file => Declared(file.Text).Count(d => Kinds.ContainsKey(d.Name)) > 1)
        .Select(file => file.Path).ShouldBeEmpty();

    private static Dictionary<string, string> KindsIn(IReadOnlyList<SourceFile> files)
    {
        var all = files.SelectMany(f => Declared(f.Text), (f, d) => (d.Name, d.Base, Folder: FolderOf(f.Path))).ToList();
        var found = new Dictionary<string, string>(StringComparer.Ordinal);
        for (var known = -1; known < found.Count;)
        {
            known = found.Count;
            foreach (var (name, @base, folder) in all)
                if (@base == "Right" || @base is not null && found.ContainsKey(@base)) found[name] = folder;
        }

        return found;
    }

    private static string FolderOf(string path) => path[..(path.LastIndexOf('/') + 1)];

    private static IEnumerable<(string Name, string? Base)> Declared(string text) =>
        CSharpSyntaxTree.ParseText(text).GetRoot().DescendantNodes().OfType<ClassDeclarationSyntax>()
            .Select(c => (c.Identifier.Text, (c.BaseList?.Types[0].Type as SimpleNameSyntax)?.Identifier.Text));

    /// <summary>The kinds that a file names in its code, whatever its comments say.</summary>
    private static IEnumerable<string> Named(string text) =>
        CSharpSyntaxTree.ParseText(text).GetRoot().DescendantNodes().OfType<SimpleNameSyntax>()
            .Select(n => n.Identifier.Text).Where(Kinds.ContainsKey).Distinct();
}
