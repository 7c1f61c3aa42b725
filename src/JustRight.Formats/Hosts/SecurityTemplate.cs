using System.Text;
using JustRight.Core.Surveys;

namespace JustRight.Formats.Hosts;

/// <summary>
/// A policy's security template, <c>GptTmpl.inf</c> [MS-GPSB 2.2]: sections of lines, of which we read
/// <c>[Privilege Rights]</c> [MS-GPSB 2.2.6] and <c>[Group Membership]</c> [MS-GPSB 2.2.4], and change the first. Everything
/// else is kept as it was, to the character.
/// </summary>
public sealed class SecurityTemplate
{
    /// <summary>The section of the lists of rights.</summary>
    public const string RightsSection = "Privilege Rights";

    /// <summary>The section of the local groups.</summary>
    public const string GroupsSection = "Group Membership";

    private const string Members = "__Members", MemberOf = "__Memberof";

    private readonly IReadOnlyList<string> _lines;

    private SecurityTemplate(IReadOnlyList<string> lines, Encoding encoding, string newLine) =>
        (_lines, Encoding, NewLine) = (lines, encoding, newLine);

    /// <summary>How it is written; a new one is UTF-16 with a byte order mark.</summary>
    public Encoding Encoding { get; }

    /// <summary>What ends its lines.</summary>
    public string NewLine { get; }

    /// <summary>An empty template as Windows writes one.</summary>
    public static SecurityTemplate Empty { get; } = new(
        ["[Unicode]", "Unicode=yes", "[Version]", "signature=\"$CHICAGO$\"", "Revision=1", ""], Encoding.Unicode, "\r\n");

    /// <summary>Reads a file: UTF-16 with a byte order mark, or UTF-8 with or without one.</summary>
    /// <exception cref="InvalidDataException">The bytes are neither.</exception>
    public static SecurityTemplate Read(ReadOnlySpan<byte> bytes)
    {
        var encoding = bytes.StartsWith(Encoding.Unicode.Preamble) ? Encoding.Unicode
            : bytes.StartsWith(Encoding.BigEndianUnicode.Preamble) ? Encoding.BigEndianUnicode
            : bytes.StartsWith(Encoding.UTF8.Preamble) ? new UTF8Encoding(true, true)
            : new UTF8Encoding(false, true);
        string text;
        try
        {
            text = encoding.GetString(bytes[encoding.Preamble.Length..]);
        }
        catch (DecoderFallbackException)
        {
            throw new InvalidDataException("this is neither UTF-16 with a byte order mark nor UTF-8");
        }

        if (text.Contains('\0', StringComparison.Ordinal))
            throw new InvalidDataException("this is UTF-16 without a byte order mark, or no text at all");
        var newLine = text.Contains("\r\n", StringComparison.Ordinal) ? "\r\n" : "\n";
        return new SecurityTemplate(text.Split(newLine), encoding, newLine);
    }

    /// <summary>The file's bytes.</summary>
    public byte[] ToBytes() => [.. Encoding.Preamble, .. Encoding.GetBytes(ToString())];

    /// <summary>The text.</summary>
    public override string ToString() => string.Join(NewLine, _lines);

    /// <summary>The lists of rights, in the order written; an empty list stands for a right that nobody has.</summary>
    public IReadOnlyList<PolicyList> Rights() =>
    [
        .. LinesOf(RightsSection).Select(at => (Line: _lines[at], Sign: _lines[at].IndexOf('=', StringComparison.Ordinal)))
            .Where(l => l.Sign > 0 && !l.Line.TrimStart().StartsWith(';'))
            .Select(l => new PolicyList(l.Line[..l.Sign].Trim(), Entries(l.Line[(l.Sign + 1)..]))),
    ];

    /// <summary>The template with another list for one right; every other line stays as it is.</summary>
    /// <param name="entries">The whole new list, or null to take the right out, so that the policy no longer governs it.</param>
    public SecurityTemplate With(string constant, IReadOnlyList<string>? entries)
    {
        var lines = _lines.ToList();
        var there = LinesOf(RightsSection)
            .Where(at => _lines[at].Split('=')[0].Trim().Equals(constant, StringComparison.OrdinalIgnoreCase)).ToList();
        var line = entries is null ? null : $"{constant} = {string.Join(',', entries)}";
        foreach (var at in there.AsEnumerable().Reverse())
        {
            if (line is not null && at == there[0]) lines[at] = line;
            else lines.RemoveAt(at);
        }

        if (line is null || there.Count > 0) return new SecurityTemplate(lines, Encoding, NewLine);
        var header = lines.FindIndex(IsHeaderOf(RightsSection));
        if (header >= 0)
        {
            lines.Insert(header + 1, line);
            return new SecurityTemplate(lines, Encoding, NewLine);
        }

        var end = lines.Count > 0 && lines[^1].Length == 0 ? lines.Count - 1 : lines.Count;
        lines.InsertRange(end, [$"[{RightsSection}]", line]);
        return new SecurityTemplate(lines, Encoding, NewLine);
    }

    /// <summary>
    /// What it says of local groups: <c>group__Members</c>, the whole membership, and <c>principal__Memberof</c>, the groups that
    /// a principal is put into.
    /// </summary>
    public IReadOnlyList<PolicyGroupRule> Groups()
    {
        var rules = new List<PolicyGroupRule>();
        foreach (var line in LinesOf(GroupsSection).Select(at => _lines[at]))
        {
            var sign = line.IndexOf('=', StringComparison.Ordinal);
            if (sign <= 0 || line.TrimStart().StartsWith(';')) continue;
            var (key, entries) = (line[..sign].Trim().Trim('"').Trim(), Entries(line[(sign + 1)..]));
            if (key.EndsWith(Members, StringComparison.OrdinalIgnoreCase))
                rules.Add(new PolicyGroupRule(PolicyGroupAct.Members, key[..^Members.Length], entries));
            else if (key.EndsWith(MemberOf, StringComparison.OrdinalIgnoreCase))
                rules.Add(new PolicyGroupRule(PolicyGroupAct.MemberOf, key[..^MemberOf.Length], entries));
        }

        return rules;
    }

    private static IReadOnlyList<string> Entries(string text) =>
        [.. text.Split(',').Select(e => e.Trim().Trim('"').Trim()).Where(e => e.Length > 0)];

    private static Predicate<string> IsHeaderOf(string section) =>
        line => line.Trim() is ['[', .. var name, ']'] && name.Trim().Equals(section, StringComparison.OrdinalIgnoreCase);

    private IEnumerable<int> LinesOf(string section)
    {
        var inside = false;
        for (var at = 0; at < _lines.Count; at++)
        {
            if (_lines[at].TrimStart().StartsWith('[')) inside = IsHeaderOf(section)(_lines[at]);
            else if (inside) yield return at;
        }
    }
}
