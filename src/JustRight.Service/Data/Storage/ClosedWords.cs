using System.Text.Json;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace JustRight.Service.Data.Storage;

/// <summary>
/// The words of closed sets as they are stored and sent: a member's name in lower case, its parts joined by hyphens.
/// </summary>
public static class ClosedWords
{
    /// <summary>The word of a member.</summary>
    public static string Word<T>(this T member)
        where T : struct, Enum => Words<T>.OfMember[member];

    /// <summary>The member that a word is of.</summary>
    /// <exception cref="InvalidDataException">The set has no such word: no release known here stored it.</exception>
    public static T Read<T>(string word)
        where T : struct, Enum => Words<T>.OfWord.TryGetValue(word, out var member)
            ? member
            : throw new InvalidDataException($"\"{word}\" is stored, and is no {typeof(T).Name}.");

    private static class Words<T>
        where T : struct, Enum
    {
        public static readonly Dictionary<T, string> OfMember =
            Enum.GetValues<T>().ToDictionary(m => m, m => JsonNamingPolicy.KebabCaseLower.ConvertName(m.ToString()));

        public static readonly Dictionary<string, T> OfWord =
            OfMember.ToDictionary(p => p.Value, p => p.Key, StringComparer.Ordinal);
    }
}

/// <summary>Stores a member of a closed set as its word.</summary>
public sealed class ClosedWordConverter<T>() : ValueConverter<T, string>(m => m.Word(), w => ClosedWords.Read<T>(w))
    where T : struct, Enum;
