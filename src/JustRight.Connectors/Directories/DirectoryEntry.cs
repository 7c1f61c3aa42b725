using System.Globalization;

namespace JustRight.Connectors.Directories;

/// <summary>An object of a directory as it was read, whichever way. Attributes go by name without regard to case.</summary>
internal abstract class DirectoryEntry
{
    /// <summary>Its distinguished name as the directory spells it.</summary>
    public abstract string Dn { get; }

    /// <summary>The names of the attributes that came with it, options included.</summary>
    public abstract IEnumerable<string> AttributeNames { get; }

    /// <summary>Whether the attribute came with it.</summary>
    public abstract bool Has(string attribute);

    /// <summary>All values as text; none when the attribute did not come.</summary>
    public abstract IReadOnlyList<string> Texts(string attribute);

    /// <summary>All values as bytes.</summary>
    public abstract IReadOnlyList<byte[]> AllBytes(string attribute);

    /// <summary>The first value as text, or null.</summary>
    public string? Text(string attribute) => Texts(attribute) is [var first, ..] ? first : null;

    /// <summary>The first value as bytes, or null.</summary>
    public byte[]? Bytes(string attribute) => AllBytes(attribute) is [var first, ..] ? first : null;

    /// <summary>The first value as a moment, where it is written as generalized time in UTC [RFC 4517 3.3.13]; or null.</summary>
    public DateTimeOffset? Moment(string attribute) =>
        DateTimeOffset.TryParseExact(
            Text(attribute), "yyyyMMddHHmmss.f'Z'", CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var moment)
            ? moment
            : null;

    /// <summary>
    /// The first value as a moment, where it is a count of 100 nanoseconds since 1601; null for never, in each way it is said
    /// [MS-ADTS 3.1.1.2.3.2].
    /// </summary>
    public DateTimeOffset? FileTime(string attribute) =>
        Number(attribute) is > 0 and < MostFileTime and var ticks ? DateTimeOffset.FromFileTime(ticks).ToUniversalTime() : null;

    private const long MostFileTime = 2_650_000_000_000_000_000; // what a time here can hold; beyond is "never"

    /// <summary>The first value as a number, or 0.</summary>
    public long Number(string attribute) =>
        long.TryParse(Text(attribute), CultureInfo.InvariantCulture, out var number) ? number : 0;
}
