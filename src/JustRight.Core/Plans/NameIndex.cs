using JustRight.Core.Directory.Schema;

namespace JustRight.Core.Plans;

/// <summary>What is known of names when a plan is made.</summary>
/// <param name="Accounts">Names already settled for this install's accounts, by key; they stay.</param>
/// <param name="Groups">Names already settled for this install's groups, by key.</param>
/// <param name="Taken">Every name in use elsewhere: in the directory, and settled for other installs.</param>
/// <param name="Checked">Whether <paramref name="Taken"/> rests on a reading of the directory.</param>
public sealed record NameIndex(
    IReadOnlyDictionary<string, string> Accounts, IReadOnlyDictionary<string, string> Groups, IReadOnlySet<string> Taken,
    bool Checked)
{
    /// <summary>
    /// The directory's schema as last read, against which directory needs are checked; null while none was read.
    /// </summary>
    public DirectorySchema? Schema { get; init; }

    /// <summary>Nothing known.</summary>
    public static NameIndex Empty { get; } = new(
        new Dictionary<string, string>(), new Dictionary<string, string>(), new HashSet<string>(
            StringComparer.OrdinalIgnoreCase), false);
}
