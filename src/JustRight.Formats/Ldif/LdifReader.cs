using System.Text;
using JustRight.Core.Faults;

namespace JustRight.Formats.Ldif;

/// <summary>
/// Reads the objects of a directory from LDIF [RFC 2849], line by line. Values that nobody asked for are passed over, so that
/// a secret in the file goes no further; a value that stands in another file is never fetched. Several files one after the
/// other are read like one, and an object that comes twice is put together.
/// </summary>
/// <param name="file">The file's name, for positions.</param>
/// <param name="keeps">Whether an attribute is wanted, by its name without options.</param>
public sealed class LdifReader(string file, Func<string, bool> keeps)
{
    private const int MostFaults = 20;
    private const int LongBytes = 200;
    private readonly List<Fault> _faults = [];
    private readonly List<LdifEntry> _entries = [];
    private readonly Dictionary<string, Dictionary<string, IReadOnlyList<byte[]>>> _byDn = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<int, List<byte[]>> _long = []; // by hash
    private readonly StringBuilder _line = new();
    private int _number; // of the physical line taken last
    private int _start; // of the physical line where the logical one began
    private bool _isOpen; // whether _line holds a logical line
    private Dictionary<string, List<byte[]>>? _values; // of the record that is open
    private string _dn = "";
    private int _recordAt;
    private bool _isSkipped; // the record that is open is not an object: nothing more is said about it

    /// <summary>What was wrong, in file order; at most twenty.</summary>
    public IReadOnlyList<Fault> Faults => _faults;

    /// <summary>Whether so much was wrong that reading on would help nobody.</summary>
    public bool IsHopeless => _faults.Count >= MostFaults;

    /// <summary>Reads a whole text.</summary>
    public static (IReadOnlyList<LdifEntry> Entries, IReadOnlyList<Fault> Faults) Read(
        TextReader text, string file, Func<string, bool> keeps)
    {
        var reader = new LdifReader(file, keeps);
        while (!reader.IsHopeless && text.ReadLine() is { } line) reader.Take(line);
        return (reader.Finish(), reader.Faults);
    }

    /// <summary>Takes the next line of the file, without its end.</summary>
    public void Take(string line)
    {
        _number++;
        if (line.Length > 0 && line[0] == ' ')
        {
            if (_isOpen) _line.Append(line, 1, line.Length - 1);
            else
                Fault("ldif-line", _number, "A line that begins with a space continues the line above, and there is none.", null);
            return;
        }

        CloseLine();
        if (line.Length == 0)
        {
            CloseRecord();
            return;
        }

        _line.Append(line);
        (_start, _isOpen) = (_number, true);
    }

    /// <summary>The objects, once every line was taken.</summary>
    public IReadOnlyList<LdifEntry> Finish()
    {
        CloseLine();
        CloseRecord();
        if (_entries.Count == 0 && _faults.Count == 0)
            Fault("ldif-empty", 1, "This file contains no object.", "records that begin with dn:");
        return _entries;
    }

    private void CloseLine()
    {
        if (!_isOpen) return;
        _isOpen = false;
        if (_line[0] != '#') Logical(_line.ToString());
        _line.Clear();
    }

    private void Logical(string line)
    {
        if (_isSkipped) return;
        var colon = line.IndexOf(':', StringComparison.Ordinal);
        if (colon <= 0)
        {
            Fault("ldif-line", _start, "This is neither a comment nor an attribute and value.", "attribute: value");
            return;
        }

        var name = line[..colon];
        if (_values is null)
        {
            Begin(name, line, colon);
            return;
        }

        if (name.Equals("changetype", StringComparison.OrdinalIgnoreCase)
            || name.Equals("control", StringComparison.OrdinalIgnoreCase))
        {
            Fault("ldif-change", _start, "This is a file of changes.", "a file of objects, as a search prints it");
            Skip();
            return;
        }

        if (!keeps(name.Split(';')[0]) || Value(line, colon) is not { } value) return;
        (_values.TryGetValue(name, out var values) ? values : _values[name] = []).Add(value);
    }

    private void Begin(string name, string line, int colon)
    {
        if (name.Equals("version", StringComparison.OrdinalIgnoreCase))
        {
            if (line[(colon + 1)..].Trim() != "1")
                Fault("ldif-version", _start, "This version of LDIF is not known.", "version: 1");
            return;
        }

        if (!name.Equals("dn", StringComparison.OrdinalIgnoreCase))
        {
            Fault(
                "ldif-record", _start,
                $"A record begins with dn:, and this one with {(name.Length > 40 ? "something else" : name + ":")}.",
                name is "search" or "ref" ? "plain LDIF without the client's comments (ldapsearch: -LLL)" : "dn: CN=…");
            Skip();
            return;
        }

        if (Value(line, colon) is not { } dn)
        {
            Skip();
            return;
        }

        _dn = Encoding.UTF8.GetString(dn);
        if (_dn.Length > 0 && !_dn.Contains('=', StringComparison.Ordinal))
        {
            Fault("not-a-dn", _start, "This is not a distinguished name.", "dn: CN=…");
            Skip();
            return;
        }

        (_values, _recordAt) = (new Dictionary<string, List<byte[]>>(StringComparer.OrdinalIgnoreCase), _start);
    }

    private void Skip() => (_values, _isSkipped) = (null, true);

    private byte[]? Value(string line, int colon)
    {
        if (colon + 1 == line.Length) return [];
        switch (line[colon + 1])
        {
            case '<':
                Fault(
                    "ldif-elsewhere", _start, $"The value of {line[..colon]} is in another file, which is not read.",
                    "the value itself");
                return null;
            case ':':
                try
                {
                    return Shared(Convert.FromBase64String(line[(colon + 2)..]));
                }
                catch (FormatException)
                {
                    Fault("ldif-base64", _start, $"The value of {line[..colon]} is not base 64.", null);
                    return null;
                }

            default:
                return Encoding.UTF8.GetBytes(line[(colon + 1)..].TrimStart(' '));
        }
    }

    /// <summary>Most objects have the same access list as many others: each long value is kept once.</summary>
    private byte[] Shared(byte[] value)
    {
        if (value.Length < LongBytes) return value;
        var code = new HashCode();
        code.AddBytes(value);
        var alike = _long.TryGetValue(code.ToHashCode(), out var known) ? known : _long[code.ToHashCode()] = [];
        if (alike.Find(a => a.AsSpan().SequenceEqual(value)) is { } same) return same;
        alike.Add(value);
        return value;
    }

    private void CloseRecord()
    {
        _isSkipped = false;
        if (_values is null) return;
        var values = _values.ToDictionary(v => v.Key, v => (IReadOnlyList<byte[]>)v.Value, StringComparer.OrdinalIgnoreCase);
        _values = null;
        if (!_byDn.TryGetValue(_dn, out var known))
        {
            _byDn[_dn] = values;
            _entries.Add(new LdifEntry(_dn, values, new Origin(file, _recordAt, 1)));
            return;
        }

        foreach (var (attribute, more) in values)
        {
            if (known.TryAdd(attribute, more)
                || known[attribute].Select(Convert.ToHexString).Order().SequenceEqual(more.Select(Convert.ToHexString).Order()))
                continue;
            Fault(
                "ldif-twice", _recordAt, $"{_dn} is in this file twice, with different values of {attribute}.",
                "an export from one time and one domain controller");
        }
    }

    private void Fault(string code, int line, string message, string? expected)
    {
        if (_faults.Count < MostFaults)
            _faults.Add(new Fault(code, new Origin(file, line, 1), "", message) { Expected = expected });
    }
}
