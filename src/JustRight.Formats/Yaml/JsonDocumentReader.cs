using System.Text;
using System.Text.Json;
using JustRight.Core.Faults;

namespace JustRight.Formats.Yaml;

/// <summary>
/// Reads JSON [RFC 8259] into the same nodes as YAML, with positions, so that both are held against shapes alike. A null counts
/// as an absent key.
/// </summary>
internal static class JsonDocumentReader
{
    private const int MaxDepth = 24;

    /// <summary>
    /// Reads a document; null when it cannot be read, with the fault added. What Windows PowerShell writes is read too: UTF-16
    /// or UTF-8, with or without a byte order mark.
    /// </summary>
    /// <param name="most">The largest file, in bytes.</param>
    public static YamlNode? Read(ReadOnlySpan<byte> bytes, string file, int most, List<Fault> faults)
    {
        var start = new Origin(file, 1, 1);
        if (bytes.Length > most)
        {
            faults.Add(new Fault(
                "too-large", start, "",
                "This file is too large.")
            { Found = $"{bytes.Length} bytes", Expected = $"at most {most} bytes" });
            return null;
        }

        var utf8 = ToUtf8(bytes);
        if (utf8.All(b => b is (byte)' ' or (byte)'\n' or (byte)'\r' or (byte)'\t'))
        {
            faults.Add(new Fault("empty", start, "", "This file is empty."));
            return null;
        }

        try
        {
            var reader = new Utf8JsonReader(utf8, new JsonReaderOptions { MaxDepth = MaxDepth });
            reader.Read();
            var lines = new LineIndex(utf8, file);
            var node = Node(ref reader, lines, faults);
            reader.Read(); // anything after the document is an error of its own
            return node;
        }
        catch (JsonException e)
        {
            faults.Add(new Fault(
                "json", new Origin(file, (int)(e.LineNumber ?? 0) + 1, (int)(e.BytePositionInLine ?? 0) + 1), "",
                "This is not JSON.")
            { Found = e.Message.Split(". ")[0].TrimEnd('.'), Expected = "well-formed JSON" });
            return null;
        }
        catch (InvalidOperationException)
        {
            faults.Add(new Fault(
                "not-utf8", start, "",
                "This file holds text that is not UTF-8.")
            { Expected = "a file saved as UTF-8 or UTF-16" });
            return null;
        }
    }

    private static byte[] ToUtf8(ReadOnlySpan<byte> bytes)
    {
        if (bytes.StartsWith(Encoding.Unicode.Preamble)) return Encoding.UTF8.GetBytes(Encoding.Unicode.GetString(bytes[2..]));
        if (bytes.StartsWith(Encoding.BigEndianUnicode.Preamble))
            return Encoding.UTF8.GetBytes(Encoding.BigEndianUnicode.GetString(bytes[2..]));
        return bytes.StartsWith(Encoding.UTF8.Preamble) ? bytes[3..].ToArray() : bytes.ToArray();
    }

    private static YamlNode Node(ref Utf8JsonReader reader, LineIndex lines, List<Fault> faults)
    {
        var at = lines.At(reader.TokenStartIndex);
        switch (reader.TokenType)
        {
            case JsonTokenType.StartObject:
                var entries = new List<(YamlNode.Scalar, YamlNode)>();
                var seen = new HashSet<string>(StringComparer.Ordinal);
                while (reader.Read() && reader.TokenType != JsonTokenType.EndObject)
                {
                    var key = new YamlNode.Scalar(reader.GetString()!, false, lines.At(reader.TokenStartIndex));
                    if (!seen.Add(key.Text))
                        faults.Add(new Fault(
                            "duplicate-key", key.At, key.Text,
                            $"'{key.Text}' stands here twice.")
                        { Expected = "each key once" });
                    reader.Read();
                    var isNull = reader.TokenType == JsonTokenType.Null;
                    var value = Node(ref reader, lines, faults);
                    if (!isNull) entries.Add((key, value));
                }

                return new YamlNode.Mapping(entries, at);
            case JsonTokenType.StartArray:
                var items = new List<YamlNode>();
                while (reader.Read() && reader.TokenType != JsonTokenType.EndArray) items.Add(Node(ref reader, lines, faults));
                return new YamlNode.Sequence(items, at);
            case JsonTokenType.String:
                return new YamlNode.Scalar(reader.GetString()!, false, at);
            case JsonTokenType.Null:
                return new YamlNode.Scalar("", true, at);
            default:
                return new YamlNode.Scalar(Encoding.UTF8.GetString(reader.ValueSpan), true, at);
        }
    }

    /// <summary>Lines and columns of byte offsets; asked in rising order.</summary>
    private sealed class LineIndex(byte[] bytes, string file)
    {
        private int _offset;
        private int _line = 1;
        private int _lineStart;

        public Origin At(long offset)
        {
            for (; _offset < offset; _offset++)
                if (bytes[_offset] == '\n') (_line, _lineStart) = (_line + 1, _offset + 1);
            return new Origin(file, _line, (int)offset - _lineStart + 1);
        }
    }
}
