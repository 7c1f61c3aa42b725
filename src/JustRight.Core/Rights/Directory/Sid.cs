using System.Buffers.Binary;
using System.Diagnostics.CodeAnalysis;
using System.Globalization;

namespace JustRight.Core.Rights.Directory;

/// <summary>A security identifier [MS-DTYP 2.4.2]: the identity of a principal. Names never are.</summary>
public readonly struct Sid : IEquatable<Sid>, IComparable<Sid>
{
    private const int MaxSubAuthorities = 15;
    private readonly ulong _authority;
    private readonly uint[]? _subs;

    private Sid(ulong authority, uint[] subs) => (_authority, _subs) = (authority, subs);

    /// <summary>S-1-1-0.</summary>
    public static Sid Everyone { get; } = Parse("S-1-1-0");

    /// <summary>S-1-5-11.</summary>
    public static Sid AuthenticatedUsers { get; } = Parse("S-1-5-11");

    /// <summary>S-1-5-15.</summary>
    public static Sid ThisOrganization { get; } = Parse("S-1-5-15");

    /// <summary>True for the value that no principal has.</summary>
    public bool IsEmpty => _subs is null;

    /// <summary>The last sub-authority: the relative identifier within the domain.</summary>
    public uint Rid => _subs is { Length: > 0 } subs ? subs[^1] : 0;

    /// <summary>The same domain with another relative identifier.</summary>
    public Sid WithRid(uint rid)
    {
        var subs = (uint[])(_subs ?? throw new InvalidOperationException("An empty SID has no domain.")).Clone();
        subs[^1] = rid;
        return new Sid(_authority, subs);
    }

    /// <summary>A principal of the domain whose SID this is.</summary>
    public Sid Append(uint rid) => new(_authority, [.. _subs ?? [], rid]);

    /// <summary>Reads the text form [MS-DTYP 2.4.2.1], or throws <see cref="FormatException"/>.</summary>
    public static Sid Parse(string text) => TryParse(text, out var sid) ? sid : throw new FormatException($"'{text}' is not a SID.");

    /// <summary>Reads <c>S-1-5-21-…</c>: at most 15 sub-authorities; an authority above 32 bits is written in hex.</summary>
    public static bool TryParse([NotNullWhen(true)] string? text, out Sid sid)
    {
        sid = default;
        var words = text?.Split('-') ?? [];
        if (words.Length < 4 || words.Length > 3 + MaxSubAuthorities || words[0] is not ("S" or "s") || words[1] != "1") return false;
        ulong authority;
        if (words[2].StartsWith("0x", StringComparison.OrdinalIgnoreCase))
        {
            if (words[2].Length != 14 || !ulong.TryParse(words[2].AsSpan(2), NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out authority)) return false;
        }
        else if (!uint.TryParse(words[2], NumberStyles.None, CultureInfo.InvariantCulture, out var small))
        {
            return false;
        }
        else
        {
            authority = small;
        }

        var subs = new uint[words.Length - 3];
        for (var i = 0; i < subs.Length; i++)
            if (!uint.TryParse(words[i + 3], NumberStyles.None, CultureInfo.InvariantCulture, out subs[i])) return false;
        sid = new Sid(authority, subs);
        return true;
    }

    /// <summary>Reads the binary form [MS-DTYP 2.4.2.2]; false when it is short, long or of another revision.</summary>
    public static bool TryFromBytes(ReadOnlySpan<byte> bytes, out Sid sid)
    {
        sid = default;
        if (bytes.Length < 12 || bytes[0] != 1 || bytes[1] is 0 or > MaxSubAuthorities || bytes.Length != 8 + (4 * bytes[1])) return false;
        var authority = ((ulong)BinaryPrimitives.ReadUInt16BigEndian(bytes[2..]) << 32) | BinaryPrimitives.ReadUInt32BigEndian(bytes[4..]);
        var subs = new uint[bytes[1]];
        for (var i = 0; i < subs.Length; i++) subs[i] = BinaryPrimitives.ReadUInt32LittleEndian(bytes[(8 + (4 * i))..]);
        sid = new Sid(authority, subs);
        return true;
    }

    /// <summary>The binary form.</summary>
    public byte[] ToBytes()
    {
        var subs = _subs ?? throw new InvalidOperationException("An empty SID has no bytes.");
        var bytes = new byte[8 + (4 * subs.Length)];
        bytes[0] = 1;
        bytes[1] = (byte)subs.Length;
        BinaryPrimitives.WriteUInt16BigEndian(bytes.AsSpan(2), (ushort)(_authority >> 32));
        BinaryPrimitives.WriteUInt32BigEndian(bytes.AsSpan(4), (uint)_authority);
        for (var i = 0; i < subs.Length; i++) BinaryPrimitives.WriteUInt32LittleEndian(bytes.AsSpan(8 + (4 * i)), subs[i]);
        return bytes;
    }

    /// <inheritdoc/>
    public bool Equals(Sid other) => _authority == other._authority && _subs.AsSpan().SequenceEqual(other._subs);

    /// <inheritdoc/>
    public override bool Equals(object? obj) => obj is Sid other && Equals(other);

    /// <inheritdoc/>
    public override int GetHashCode()
    {
        var hash = (uint)_authority;
        foreach (var sub in _subs.AsSpan()) hash = (hash * 16777619) ^ sub;
        return (int)hash;
    }

    /// <inheritdoc/>
    public int CompareTo(Sid other) => _authority != other._authority
        ? _authority.CompareTo(other._authority)
        : ((ReadOnlySpan<uint>)_subs).SequenceCompareTo(other._subs);

    /// <inheritdoc/>
    public override string ToString()
    {
        if (_subs is null) return "";
        var authority = _authority > uint.MaxValue ? $"0x{_authority:X12}" : _authority.ToString(CultureInfo.InvariantCulture);
        return $"S-1-{authority}-{string.Join('-', _subs)}";
    }

    /// <summary>Equal.</summary>
    public static bool operator ==(Sid a, Sid b) => a.Equals(b);

    /// <summary>Not equal.</summary>
    public static bool operator !=(Sid a, Sid b) => !a.Equals(b);

    /// <summary>Ordered.</summary>
    public static bool operator <(Sid a, Sid b) => a.CompareTo(b) < 0;

    /// <summary>Ordered.</summary>
    public static bool operator >(Sid a, Sid b) => a.CompareTo(b) > 0;

    /// <summary>Ordered.</summary>
    public static bool operator <=(Sid a, Sid b) => a.CompareTo(b) <= 0;

    /// <summary>Ordered.</summary>
    public static bool operator >=(Sid a, Sid b) => a.CompareTo(b) >= 0;
}
