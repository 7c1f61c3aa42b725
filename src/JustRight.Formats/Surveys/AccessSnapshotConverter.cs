using System.Text.Json;
using System.Text.Json.Serialization;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Surveys;

namespace JustRight.Formats.Surveys;

/// <summary>
/// Access lists in a kept survey: descriptors as bytes in base 64, the schema by its version only, since it is large and seldom
/// changes.
/// </summary>
/// <param name="schemaOf">The schema of a version; throws <see cref="InvalidDataException"/> for one that was not kept.</param>
internal sealed class AccessSnapshotConverter(Func<string, DirectorySchema> schemaOf) : JsonConverter<AccessSnapshot>
{
    public override AccessSnapshot Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        var kept = JsonSerializer.Deserialize<Kept>(ref reader, options)!;
        return new AccessSnapshot(
            schemaOf(kept.Schema), [.. kept.Descriptors.Select(d => DescriptorBytes.Read(d))],
            [.. kept.Objects.Select(o =>
                new DirectoryObject(
                    o.Dn, o.Class, o.Sid is null ? default : Sid.Parse(o.Sid), o.List, o.Held))], kept.Whole, kept.Unread);
    }

    public override void Write(Utf8JsonWriter writer, AccessSnapshot value, JsonSerializerOptions options) =>
        JsonSerializer.Serialize(
        writer,
        new Kept(
            value.Schema.Version, [.. value.Descriptors.Select(DescriptorBytes.Write)],
            [.. value.Objects.Select(o =>
                new KeptObject(
                    o.Dn, o.Class, o.Sid.IsEmpty ? null : o.Sid.ToString(), o.Descriptor,
                    o.IsAdminHeld))], value.WholeBranches, value.Unread),
        options);

    private sealed record Kept(
        string Schema, IReadOnlyList<byte[]> Descriptors, IReadOnlyList<KeptObject> Objects, IReadOnlyList<string> Whole,
        IReadOnlyList<UnreadPart> Unread);

    private sealed record KeptObject(
        string Dn, string Class, [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Sid, int List,
        [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Held);
}
