using System.Text.Json.Serialization.Metadata;

namespace JustRight.Cli.Output;

/// <summary>How the JSON that commands print is called: by the names of the API's description.</summary>
internal static class ShapeWords
{
    /// <summary>The shapes in one line: <c>FitView</c>, <c>[JobView] or LdifView</c>; brackets are a list.</summary>
    public static string Of(IEnumerable<JsonTypeInfo> shapes) => string.Join(" or ", shapes.Select(s =>
        s.Kind == JsonTypeInfoKind.Enumerable ? $"[{s.ElementType!.Name}]" : s.Type.Name));
}
