using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using JustRight.Core.Changes;

namespace JustRight.Formats.Changes;

/// <summary>
/// Changes as JSON: what a change is, under <c>change</c>, and its own fields. What follows from those is not written.
/// </summary>
public static class ChangeJson
{
    private static readonly HashSet<string> Derived =
        [.. typeof(Change).GetProperties().Select(p => JsonNamingPolicy.CamelCase.ConvertName(p.Name))];

    /// <summary>How changes are written, for what holds changes.</summary>
    internal static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter() }, // by name; the numbers of earlier releases are read as well
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { Shape } },
    };

    /// <summary>Writes a change.</summary>
    public static string Write(Change change) => JsonSerializer.Serialize(change, Options);

    /// <summary>Reads a change that <see cref="Write"/> wrote.</summary>
    public static Change Read(string json) =>
        JsonSerializer.Deserialize<Change>(json, Options) ?? throw new InvalidDataException("The change is empty.");

    private static void Shape(JsonTypeInfo info)
    {
        if (!info.Type.IsAssignableTo(typeof(Change))) return;
        foreach (var property in info.Properties.Where(p => Derived.Contains(p.Name) || p.Set is null).ToList())
            info.Properties.Remove(property);
        if (info.Type != typeof(Change)) return;
        info.PolymorphismOptions = new JsonPolymorphismOptions { TypeDiscriminatorPropertyName = "change" };
        foreach (var (type, name) in ChangeNames.All) info.PolymorphismOptions.DerivedTypes.Add(new JsonDerivedType(type, name));
    }
}
