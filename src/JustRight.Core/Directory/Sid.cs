using System.Buffers.Binary;
using System.Diagnostics.CodeAnalysis;
using System.Globalization;

namespace JustRight.Core.Directory;

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

    /// <summary>S-1-3-0, which stands for the owner when an entry is inherited.</summary>
    public static Sid CreatorOwner { get; } = Parse("S-1-3-0");

    /// <summary>S-1-3-1, which stands for the group when an entry is inherited.</summary>
    public static Sid CreatorGroup { get; } = Parse("S-1-3-1");

    /// <summary>S-1-3-4: an entry for it takes the place of what an owner may do by being the owner.</summary>
    public static Sid OwnerRights { get; } = Parse("S-1-3-4");

    /// <summary>S-1-5-10, which stands for the object itself.</summary>
    public static Sid Self { get; } = Parse("S-1-5-10");

    /// <summary>True for the value that no principal has.</summary>
    public bool IsEmpty => _subs is null;

    /// <summary>Whether it is of the built-in domain, S-1-5-32.</summary>
    public bool IsBuiltIn => _authority == 5 && _subs is [32, _];

    /// <summary>Whether it is of the accounts and groups of a domain or of a host, S-1-5-21 [MS-DTYP 2.4.2.4].</summary>
    public bool IsOfAccounts => _authority == 5 && _subs is [21, ..];

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
    public static Sid Parse(string text) =>
        TryParse(text, out var sid) ? sid : throw new FormatException($"'{text}' is not a SID.");

    /// <summary>Reads <c>S-1-5-21-…</c>: at most 15 sub-authorities; an authority above 32 bits is written in hex.</summary>
    public static bool TryParse([NotNullWhen(true)] string? text, out Sid sid) => TryParse(text.AsSpan(), out sid);

    /// <summary>Reads <c>S-1-5-21-…</c> from a part of a text.</summary>
    public static bool TryParse(ReadOnlySpan<char> text, out Sid sid)
    {
        sid = default;
        if (!text.StartsWith("S-1-", StringComparison.OrdinalIgnoreCase)) return false;
        text = text[4..];
        var dash = text.IndexOf('-');
        if (dash < 0 || !TryParseAuthority(text[..dash], out var authority)) return false;
        text = text[(dash + 1)..];
        Span<uint> subs = stackalloc uint[MaxSubAuthorities];
        for (var count = 0; count < MaxSubAuthorities; count++)
        {
            dash = text.IndexOf('-');
            if (!uint.TryParse(dash < 0 ? text : text[..dash], NumberStyles.None, CultureInfo.InvariantCulture, out subs[count]))
                return false;
            if (dash < 0)
            {
                sid = new Sid(authority, subs[..(count + 1)].ToArray());
                return true;
            }

            text = text[(dash + 1)..];
        }

        return false;
    }

    private static bool TryParseAuthority(ReadOnlySpan<char> text, out ulong authority)
    {
        authority = 0;
        if (text.StartsWith("0x", StringComparison.OrdinalIgnoreCase))
            return text.Length == 14
                && ulong.TryParse(text[2..], NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out authority);
        if (!uint.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var small)) return false;
        authority = small;
        return true;
    }

    /// <summary>Reads the binary form [MS-DTYP 2.4.2.2]; false when it is short, long or of another revision.</summary>
    public static bool TryFromBytes(ReadOnlySpan<byte> bytes, out Sid sid)
    {
        sid = default;
        if (bytes.Length < 12 || bytes[0] != 1 || bytes[1] is 0 or > MaxSubAuthorities || bytes.Length != 8 + (4 * bytes[1]))
            return false;
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
