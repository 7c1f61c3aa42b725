using System.Text.Json;
using JustRight.Core.Passwords;
using JustRight.Formats.Changes;

namespace JustRight.Formats.Passwords;

/// <summary>Run-books as JSON, as they are kept between two steps. No password is ever in one.</summary>
public static class RunBookJson
{
    private static readonly JsonSerializerOptions Options = new(ChangeJson.Options) { IgnoreReadOnlyProperties = true };

    /// <summary>Writes a run-book.</summary>
    public static string Write(RunBook book) => JsonSerializer.Serialize(book, Options);

    /// <summary>Reads a run-book that <see cref="Write"/> wrote.</summary>
    public static RunBook Read(string json) =>
        JsonSerializer.Deserialize<RunBook>(json, Options) ?? throw new InvalidDataException("The run-book is empty.");
}
