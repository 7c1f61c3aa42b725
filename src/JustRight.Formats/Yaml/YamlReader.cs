using System.Text;
using JustRight.Core.Faults;
using YamlDotNet.Core;
using YamlDotNet.Core.Events;

namespace JustRight.Formats.Yaml;

/// <summary>
/// Reads the part of YAML our files use: one document of mappings, lists and scalars. Anchors, aliases and tags are refused,
/// and so are files that are too large or too deep, so that no file can cost more than its size.
/// </summary>
internal static class YamlReader
{
    /// <summary>The largest file, in bytes.</summary>
    public const int MaxBytes = 1_000_000;

    private const int MaxDepth = 24;
    private static readonly UTF8Encoding Utf8 = new(false, throwOnInvalidBytes: true);

    /// <summary>Reads a document; null when it cannot be read, with the fault added.</summary>
    public static YamlNode? Read(ReadOnlySpan<byte> bytes, string file, List<Fault> faults)
    {
        var start = new Origin(file, 1, 1);
        if (bytes.Length > MaxBytes)
        {
            faults.Add(new Fault(
                "too-large", start, "",
                "This file is too large.")
            { Found = $"{bytes.Length} bytes", Expected = $"at most {MaxBytes} bytes" });
            return null;
        }

        string text;
        try
        {
            if (bytes.StartsWith(Encoding.UTF8.Preamble)) bytes = bytes[3..];
            text = Utf8.GetString(bytes);
        }
        catch (DecoderFallbackException e)
        {
            faults.Add(new Fault(
                "not-utf8", PositionOf(bytes, Math.Max(0, e.Index), file), "",
                "This file is not UTF-8 text.")
            {
                Found = "a byte that is not valid UTF-8",
                Expected = "a text file saved as UTF-8",
            });
            return null;
        }

        if (FindTab(text) is { } tab)
        {
            faults.Add(new Fault(
                "tab", new Origin(file, tab.Line, tab.Column), "",
                "A line is indented with a tab.")
            { Found = "a tab", Expected = "spaces" });
            return null;
        }

        faults.AddRange(HiddenCharacters.In(text, file));
        var parser = new Parser(new StringReader(text));
        try
        {
            return new Builder(parser, file, faults).Document();
        }
        catch (RefusedException e)
        {
            faults.Add(e.Fault);
        }
        catch (YamlException e)
        {
            var message = e.InnerException is YamlException inner ? inner.Message : e.Message;
            faults.Add(new Fault(
                "yaml", new Origin(file, (int)e.Start.Line, (int)e.Start.Column), "",
                "This is not YAML.")
            { Found = message.TrimEnd('.'), Expected = "well-formed YAML" });
        }

        catch (Exception e) when (e is InvalidOperationException or ArgumentException)
        {
            // The library's scanner stumbles over some malformed texts in this way; what it read last says about where.
            var at = parser.Current?.End ?? Mark.Empty;
            faults.Add(new Fault(
                "yaml", new Origin(file, (int)at.Line, (int)at.Column), "",
                "This is not YAML.")
            { Expected = "well-formed YAML; look just after this place" });
        }

        return null;
    }

    private static Origin PositionOf(ReadOnlySpan<byte> bytes, int index, string file)
    {
        var before = bytes[..Math.Min(index, bytes.Length)];
        return new Origin(file, before.Count((byte)'\n') + 1, before.Length - before.LastIndexOf((byte)'\n'));
    }

    private static (int Line, int Column)? FindTab(string text)
    {
        var line = 1;
        foreach (var row in text.AsSpan().EnumerateLines())
        {
            var indent = row.Length - row.TrimStart(" \t").Length;
            var tab = row[..indent].IndexOf('\t');
            if (tab >= 0 && indent < row.Length) return (line, tab + 1);
            line++;
        }

        return null;
    }

    private sealed class RefusedException(Fault fault) : Exception
    {
        public Fault Fault { get; } = fault;
    }

    private sealed class Builder(Parser parser, string file, List<Fault> faults)
    {
        private int _depth;

        public YamlNode? Document()
        {
            parser.Consume<StreamStart>();
            if (parser.Accept<StreamEnd>(out _))
            {
                faults.Add(new Fault("empty", new Origin(file, 1, 1), "", "This file is empty."));
                return null;
            }

            parser.Consume<DocumentStart>();
            var root = Node();
            parser.Consume<DocumentEnd>();
            if (!parser.Accept<StreamEnd>(out _))
                throw Refuse("documents", parser.Current!, "A file holds one document.", "another document", "one document");
            return root;
        }

        private YamlNode Node()
        {
            if (++_depth > MaxDepth)
                throw Refuse("too-deep", parser.Current!, $"This nests deeper than {MaxDepth} levels.", null, null);
            if (parser.Accept<AnchorAlias>(out var alias))
                throw Refuse("alias", alias, "Anchors and aliases are not supported.", $"*{alias.Value}", "the value itself");
            if (parser.Current is NodeEvent { Anchor.IsEmpty: false } anchored)
                throw Refuse("alias", anchored, "Anchors are not read here.", $"&{anchored.Anchor}", "the value alone");
            if (parser.Current is NodeEvent { Tag.IsEmpty: false } tagged)
                throw Refuse("tag", tagged, "Tags are not read here.", tagged.Tag.ToString(), "the value alone");
            YamlNode node = parser.Current switch
            {
                Scalar => ReadScalar(),
                SequenceStart => ReadSequence(),
                MappingStart => ReadMapping(),
                _ => throw Refuse("yaml", parser.Current!, "This is not valid YAML.", null, null),
            };
            _depth--;
            return node;
        }

        private YamlNode.Scalar ReadScalar()
        {
            var scalar = parser.Consume<Scalar>();
            var hidden = scalar.Value.FirstOrDefault(HiddenCharacters.IsOne);
            if (hidden != default
                && faults.TrueForAll(f => f.Code != HiddenCharacters.Code || f.At.Line != (int)scalar.Start.Line))
                faults.Add(HiddenCharacters.Fault(hidden, At(scalar))); // written as an escape
            return new YamlNode.Scalar(scalar.Value, scalar.Style == ScalarStyle.Plain, At(scalar));
        }

        private YamlNode.Sequence ReadSequence()
        {
            var at = At(parser.Consume<SequenceStart>());
            var items = new List<YamlNode>();
            while (!parser.TryConsume<SequenceEnd>(out _)) items.Add(Node());
            return new YamlNode.Sequence(items, at);
        }

        private YamlNode.Mapping ReadMapping()
        {
            var at = At(parser.Consume<MappingStart>());
            var entries = new List<(YamlNode.Scalar, YamlNode)>();
            var keys = new Dictionary<string, Origin>(StringComparer.Ordinal);
            while (!parser.TryConsume<MappingEnd>(out _))
            {
                if (Node() is not YamlNode.Scalar key)
                    throw Refuse("key", parser.Current!, "A key must be a plain word.", null, null);
                if (!keys.TryAdd(key.Text, key.At))
                {
                    faults.Add(new Fault(
                        "duplicate-key", key.At, key.Text,
                        $"'{key.Text}' appears twice; the first is on line {keys[key.Text].Line}.")
                    {
                        Expected = "each key once",
                    });
                    Node();
                    continue;
                }

                entries.Add((key, Node()));
            }

            return new YamlNode.Mapping(entries, at);
        }

        private Origin At(ParsingEvent e) => new(file, (int)e.Start.Line, (int)e.Start.Column);

        private RefusedException Refuse(string code, ParsingEvent e, string message, string? found, string? expected) =>
            new(new Fault(code, At(e), "", message) { Found = found, Expected = expected });
    }
}
