using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace JustRight.Structure.Tests;

/// <summary>That a file of one room names something of another.</summary>
internal sealed record RoomUse(string User, string Used, string File, string Name);

/// <summary>
/// Which rooms of a project use which, read from the sources by the compiler itself. A room is a folder of a floor of the
/// service (<c>Features/Runs</c>), and a folder directly below any other project (<c>Fit</c>).
/// </summary>
internal static class RoomUses
{
    /// <summary>What the SDK of a web project puts at the head of each file, besides what it does for any project.</summary>
    private const string ImplicitUsings = """
        global using System; global using System.IO; global using System.Linq; global using System.Net.Http;
        global using System.Threading; global using System.Threading.Tasks; global using System.Collections.Generic;
        global using System.Net.Http.Json; global using Microsoft.AspNetCore.Builder; global using Microsoft.AspNetCore.Hosting;
        global using Microsoft.AspNetCore.Http; global using Microsoft.AspNetCore.Routing;
        global using Microsoft.Extensions.Configuration; global using Microsoft.Extensions.Hosting;
        global using Microsoft.Extensions.DependencyInjection; global using Microsoft.Extensions.Logging;
        """;

    /// <summary>The floors whose own folders are rooms.</summary>
    private static readonly string[] Floors = ["Platform", "Data", "Jobs", "Features"];

    /// <summary>All uses between the rooms of a project.</summary>
    public static IReadOnlyList<RoomUse> In(string project) =>
        In(SourceFile.Of(project).Select(file => (file.Path[$"src/{project}/".Length..], file.Text)), project);

    /// <summary>All uses between the rooms of a project with these files, by their paths below it.</summary>
    public static IReadOnlyList<RoomUse> In(IEnumerable<(string Path, string Text)> files, string project)
    {
        var trees = files.Select(file => CSharpSyntaxTree.ParseText(file.Text, path: file.Path)).ToList();
        var compilation = CSharpCompilation.Create(
            project, [.. trees, CSharpSyntaxTree.ParseText(ImplicitUsings)], References(project),
            new CSharpCompilationOptions(OutputKind.DynamicallyLinkedLibrary, allowUnsafe: true));
        return [.. trees.AsParallel().AsOrdered().SelectMany(tree => Of(compilation.GetSemanticModel(tree), tree))];
    }

    private static IEnumerable<RoomUse> Of(SemanticModel model, SyntaxTree tree)
    {
        if (Room(tree.FilePath) is not { } user) yield break;
        foreach (var name in tree.GetRoot().DescendantNodes().OfType<SimpleNameSyntax>())
        {
            var meant = model.GetSymbolInfo(name);
            var symbol = meant.Symbol ?? meant.CandidateSymbols.FirstOrDefault();
            if (symbol is null or INamespaceSymbol) continue;
            var declared = symbol.OriginalDefinition.DeclaringSyntaxReferences.FirstOrDefault()?.SyntaxTree.FilePath;
            if (declared is not null && Room(declared) is { } used && used != user)
                yield return new RoomUse(user, used, tree.FilePath, name.Identifier.Text);
        }
    }

    /// <summary>The room of a file; null for what stands at the top of its project, such as the program's first lines.</summary>
    private static string? Room(string path)
    {
        var folders = path.Split('/')[..^1];
        return folders.Length == 0 ? null : string.Join('/', folders.Take(Floors.Contains(folders[0]) ? 2 : 1));
    }

    /// <summary>All that this program runs with, but for the project itself: that is read from its sources.</summary>
    private static IEnumerable<MetadataReference> References(string project) =>
        ((string)AppContext.GetData("TRUSTED_PLATFORM_ASSEMBLIES")!).Split(Path.PathSeparator)
            .Where(file => Path.GetFileNameWithoutExtension(file) != project)
            .Select(file => MetadataReference.CreateFromFile(file));
}
