using System.Text.Json;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using JustRight.Contracts;
using Microsoft.OpenApi;

namespace JustRight.Service.Hosting;

/// <summary>
/// What types and properties of the API are, in words: those of the doc comments of the contracts, which a build leaves beside
/// the program. So a field is described once, where it is declared.
/// </summary>
internal sealed partial class ApiWords
{
    private readonly Dictionary<string, XElement> _members;

    private ApiWords(XDocument comments) => _members = comments.Descendants("member")
        .ToDictionary(m => m.Attribute("name")!.Value, StringComparer.Ordinal);

    /// <summary>Reads the comments of the contracts.</summary>
    public static ApiWords Read() =>
        new(XDocument.Load(Path.Combine(AppContext.BaseDirectory, $"{typeof(ContractsJson).Assembly.GetName().Name}.xml")));

    /// <summary>Describes a type of the contracts and each of its properties; another type is left as it is.</summary>
    public void Describe(string typeName, OpenApiSchema schema)
    {
        if (typeof(ContractsJson).Assembly.GetType($"{typeof(ContractsJson).Namespace}.{typeName}") is not { } type) return;
        schema.Description = Summary($"T:{type.FullName}");
        foreach (var property in type.GetProperties())
        {
            var name = JsonNamingPolicy.CamelCase.ConvertName(property.Name);
            if (schema.Properties is null || !schema.Properties.TryGetValue(name, out var described)) continue;
            described.Description = Parameter($"T:{type.FullName}", property.Name)
                ?? Summary($"P:{type.FullName}.{property.Name}");
        }
    }

    private string? Summary(string member) => TextOf(_members.GetValueOrDefault(member)?.Element("summary"));

    /// <summary>What a record's comment says of one of its parameters.</summary>
    private string? Parameter(string type, string name) => TextOf(
        _members.GetValueOrDefault(type)?.Elements("param").FirstOrDefault(p => p.Attribute("name")!.Value == name));

    private static string? TextOf(XElement? comment)
    {
        if (comment is null) return null;
        var text = string.Concat(comment.Nodes().Select(n => n switch
        {
            XElement { Name.LocalName: "c" } code => $"`{code.Value}`",
            XElement e when e.Attribute("cref") is { } reference => reference.Value.Split('.')[^1],
            XElement e when e.Attribute("name") is { } named => named.Value,
            _ => n.ToString(),
        }));
        return Spaces().Replace(text, " ").Trim();
    }

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();
}
