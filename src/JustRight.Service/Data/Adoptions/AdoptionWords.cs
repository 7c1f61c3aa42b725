using JustRight.Core.Adoptions;

namespace JustRight.Service.Data.Adoptions;

/// <summary>What a person says of an item, on the wire and in the database.</summary>
internal static class AdoptionWords
{
    private static readonly (AdoptionWord Word, string Text)[] Words = [
        (AdoptionWord.Needed, "needed"), (AdoptionWord.NotNeeded, "not-needed"), (AdoptionWord.NotSure, "not-sure")];

    /// <summary>All of them.</summary>
    public static string All { get; } = string.Join(", ", Words.Select(w => w.Text));

    /// <summary>The word as text.</summary>
    public static string Text(AdoptionWord word) => Words.First(w => w.Word == word).Text;

    /// <summary>The word of a text, or null.</summary>
    public static AdoptionWord? Of(string text) =>
        Words.FirstOrDefault(w => w.Text == text) is { Text: not null } found ? found.Word : null;
}
