using System.Text;

namespace JustRight.Core.Directory;

/// <summary>The text of distinguished names [RFC 4514]: separators, and what stands escaped.</summary>
internal static class NameText
{
    /// <summary>The parts of a text between separators that are not escaped.</summary>
    public static IEnumerable<string> Split(string text, char by)
    {
        var from = 0;
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] == '\\') i++;
            else if (text[i] == by)
            {
                yield return text[from..i];
                from = i + 1;
            }
        }

        yield return text[from..];
    }

    /// <summary>A value as it is meant; false for what is none, and for the <c>#hex</c> form.</summary>
    public static bool TryUnescape(string text, out string value)
    {
        value = "";
        var bytes = new List<byte>(text.Length);
        var kept = 0; // the length up to which trailing spaces were escaped and stay
        var i = 0;
        while (i < text.Length && text[i] == ' ') i++;
        if (i < text.Length && text[i] == '#') return false;
        for (; i < text.Length; i++)
        {
            var c = text[i];
            if (c == '\\')
            {
                if (i + 1 >= text.Length) return false;
                if (i + 2 < text.Length && char.IsAsciiHexDigit(text[i + 1]) && char.IsAsciiHexDigit(text[i + 2]))
                {
                    bytes.Add(Convert.ToByte(text.Substring(i + 1, 2), 16));
                    i += 2;
                }
                else if (" #\"+,;<>\\=".Contains(text[i + 1], StringComparison.Ordinal))
                {
                    bytes.Add((byte)text[++i]);
                }
                else
                {
                    return false;
                }

                kept = bytes.Count;
                continue;
            }

            if (c is '"' or '+' or ';' or '<' or '>') return false;
            var length = char.IsHighSurrogate(c) && i + 1 < text.Length ? 2 : 1;
            bytes.AddRange(Encoding.UTF8.GetBytes(text.Substring(i, length)));
            i += length - 1;
        }

        while (bytes.Count > kept && bytes[^1] == (byte)' ') bytes.RemoveAt(bytes.Count - 1);
        value = Encoding.UTF8.GetString([.. bytes]);
        return true;
    }

    /// <summary>Each value that stands in a name, with its attribute; those that cannot be read are left out.</summary>
    public static IEnumerable<(string Type, string Value)> Values(string name)
    {
        foreach (var part in Split(name, ','))
            foreach (var one in Split(part, '+'))
                if (one.IndexOf('=', StringComparison.Ordinal) is > 0 and var at && TryUnescape(one[(at + 1)..], out var value))
                    yield return (one[..at].Trim(), value);
    }
}
