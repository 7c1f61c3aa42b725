using System.Text;

namespace JustRight.Formats.Ldif;

/// <summary>The lines of LDIF [RFC 2849], folded, as they are written.</summary>
internal sealed class LdifLines(TextWriter text)
{
    private const int LineLength = 76;

    /// <summary>A line without a value to encode.</summary>
    public void Plain(string line) => text.Write($"{line}\n");

    /// <summary>A comment; a long one becomes several lines, broken between words.</summary>
    public void Comment(string says)
    {
        var line = "#";
        foreach (var word in says.ReplaceLineEndings(" ").Split(' '))
        {
            if (line.Length + word.Length >= LineLength && line.Length > 1)
            {
                Fold(line);
                line = "#  ";
            }

            line += line.EndsWith(' ') ? word : " " + word;
        }

        Fold(line);
    }

    /// <summary>An attribute with a value of text.</summary>
    public void Value(string attribute, string value) => Value(attribute, Encoding.UTF8.GetBytes(value));

    /// <summary>An attribute with a value. Anything but plain characters goes as base 64 [RFC 2849, SAFE-STRING].</summary>
    public void Value(string attribute, byte[] value)
    {
        if (value.Length == 0) Fold($"{attribute}:");
        else if (IsSafe(value)) Fold($"{attribute}: {Encoding.ASCII.GetString(value)}");
        else Base64(attribute, value);
    }

    /// <summary>An attribute with a value as base 64, whatever it is.</summary>
    public void Base64(string attribute, byte[] value) => Fold($"{attribute}:: {Convert.ToBase64String(value)}");

    private static bool IsSafe(byte[] value) =>
        value[0] is not ((byte)' ' or (byte)':' or (byte)'<') && value[^1] != ' '
            && Array.TrueForAll(value, b => b is > 0 and < 0x80 and not (byte)'\n' and not (byte)'\r');

    /// <summary>A long line goes on after a line break and one space.</summary>
    private void Fold(string line)
    {
        for (var at = 0; at < line.Length;)
        {
            var take = Math.Min(at == 0 ? LineLength : LineLength - 1, line.Length - at);
            if (at > 0) text.Write(' ');
            text.Write(line.AsSpan(at, take));
            text.Write('\n');
            at += take;
        }
    }
}
