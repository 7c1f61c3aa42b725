using System.Globalization;
using System.Text;

namespace JustRight.Core.Directory.Descriptors;

/// <summary>
/// The text form of descriptors [MS-DTYP 2.5.1]. SIDs of a domain are written in full, so that a text means the same
/// everywhere.
/// </summary>
public static class Sddl
{
    private const string NoList = "NO_ACCESS_CONTROL"; // the list that is present and null

    private static readonly (string Letters, uint Bit)[] RightLetters =
    [
        ("CC", 0x1), ("DC", 0x2), ("LC", 0x4), ("SW", 0x8), ("RP", 0x10), ("WP", 0x20), ("DT", 0x40), ("LO", 0x80), ("CR", 0x100),
        ("SD", 0x10000), ("RC", 0x20000), ("WD", 0x40000), ("WO", 0x80000), ("GA", 0x10000000), ("GX", 0x20000000),
        ("GW", 0x40000000), ("GR", 0x80000000),
    ];

    // Rights of files and registry keys: read, never written.
    private static readonly (string Letters, uint Bit)[] ForeignRightLetters =
        [
            ("FA", 0x1F01FF), ("FR", 0x120089), ("FW", 0x120116), ("FX", 0x1200A0), ("KA", 0xF003F), ("KR", 0x20019),
            ("KW", 0x20006), ("KX", 0x20019)];

    private static readonly (string Letters, uint Bit)[] FlagLetters = [
        ("OI", 1), ("CI", 2), ("NP", 4), ("IO", 8), ("ID", 0x10), ("SA", 0x40), ("FA", 0x80)];

    private static readonly (string Letters, AceType Type)[] TypeLetters =
    [
        ("A", AceType.Allow), ("D", AceType.Deny), ("AU", AceType.Audit), ("AL", AceType.Alarm),
        ("OA", AceType.AllowObject), ("OD", AceType.DenyObject), ("OU", AceType.AuditObject), ("OL", AceType.AlarmObject),
    ];

    /// <summary>
    /// Reads a descriptor; throws <see cref="DescriptorFormatException"/> and nothing else when it is malformed.
    /// </summary>
    /// <param name="domain">The domain whose SID the names of domain groups stand for, or empty to refuse them.</param>
    public static SecurityDescriptor Read(ReadOnlySpan<char> text, Sid domain = default) =>
        new SddlReader(text, domain).Descriptor();

    /// <summary>Reads one entry, such as <c>(OA;CI;WP;…;…;S-1-5-…)</c>.</summary>
    public static Ace ReadAce(ReadOnlySpan<char> text, Sid domain = default) => new SddlReader(text, domain).OneAce();

    /// <summary>Writes a descriptor, or null when it holds an entry of a type that the text form has no word for.</summary>
    public static string? Write(SecurityDescriptor descriptor)
    {
        var text = new StringBuilder();
        if (!descriptor.Owner.IsEmpty) text.Append("O:").Append(SddlSids.Write(descriptor.Owner));
        if (!descriptor.Group.IsEmpty) text.Append("G:").Append(SddlSids.Write(descriptor.Group));
        var control = descriptor.Control;
        if (!List(
            'D', descriptor.Dacl, DescriptorControl.DaclPresent, DescriptorControl.DaclProtected,
            DescriptorControl.DaclInheritRequired, DescriptorControl.DaclAutoInherited))
            return null;
        if (!List(
            'S', descriptor.Sacl, DescriptorControl.SaclPresent, DescriptorControl.SaclProtected,
            DescriptorControl.SaclInheritRequired, DescriptorControl.SaclAutoInherited))
            return null;
        return text.ToString();

        bool List(
            char letter, Acl? acl, DescriptorControl present, DescriptorControl isProtected, DescriptorControl required,
            DescriptorControl inherited)
        {
            if (!control.HasFlag(present)) return true;
            text.Append(letter).Append(':');
            if (control.HasFlag(isProtected)) text.Append('P');
            if (control.HasFlag(required)) text.Append("AR");
            if (control.HasFlag(inherited)) text.Append("AI");
            if (acl is null) text.Append(NoList);
            foreach (var ace in acl?.Aces ?? [])
            {
                if (WriteAce(ace) is not { } written) return false;
                text.Append(written);
            }

            return true;
        }
    }

    /// <summary>Writes one entry, or null when its type has no word in the text form.</summary>
    public static string? WriteAce(Ace ace)
    {
        if (!ace.IsKnown) return null;
        var text = new StringBuilder("(");
        text.Append(TypeLetters.First(t => t.Type == ace.Type).Letters).Append(';');
        Letters(text, (uint)ace.Flags, FlagLetters);
        text.Append(';');
        var mask = (uint)ace.Mask;
        if ((mask & ~RightLetters.Aggregate(0u, (all, r) => all | r.Bit)) != 0)
            text.Append(CultureInfo.InvariantCulture, $"0x{mask:x}");
        else Letters(text, mask, RightLetters);
        text.Append(';').Append(ace.ObjectType).Append(';').Append(ace.InheritedObjectType).Append(';')
            .Append(SddlSids.Write(ace.Trustee)).Append(')');
        return text.ToString();
    }

    private static void Letters(StringBuilder text, uint bits, (string Letters, uint Bit)[] table)
    {
        foreach (var (letters, bit) in table)
            if ((bits & bit) != 0) text.Append(letters);
    }

    private ref struct SddlReader(ReadOnlySpan<char> text, Sid domain)
    {
        private readonly ReadOnlySpan<char> _text = text;
        private int _at;

        public SecurityDescriptor Descriptor()
        {
            Sid owner = default, group = default;
            Acl? dacl = null, sacl = null;
            var control = DescriptorControl.SelfRelative;
            Span<bool> seen = [false, false, false, false];
            while (_at < _text.Length)
            {
                if (_at + 1 >= _text.Length || _text[_at + 1] != ':') throw Wrong("expected O:, G:, D: or S:");
                var part = "OGDS".IndexOf(char.ToUpperInvariant(_text[_at]), StringComparison.Ordinal);
                if (part < 0) throw Wrong("expected O:, G:, D: or S:");
                if (seen[part]) throw Wrong("this part was given before");
                seen[part] = true;
                _at += 2;
                switch (part)
                {
                    case 0:
                        owner = SidUntil(":");
                        break;
                    case 1:
                        group = SidUntil(":");
                        break;
                    case 2:
                        dacl = List(
                            ref control, DescriptorControl.DaclPresent, DescriptorControl.DaclProtected,
                            DescriptorControl.DaclInheritRequired, DescriptorControl.DaclAutoInherited);
                        break;
                    default:
                        sacl = List(
                            ref control, DescriptorControl.SaclPresent, DescriptorControl.SaclProtected,
                            DescriptorControl.SaclInheritRequired, DescriptorControl.SaclAutoInherited);
                        break;
                }
            }

            return new SecurityDescriptor(control, owner, group, dacl, sacl);
        }

        public Ace OneAce()
        {
            var ace = Ace();
            return _at == _text.Length ? ace : throw Wrong("text follows the entry");
        }

        private Acl? List(
            ref DescriptorControl control, DescriptorControl present, DescriptorControl isProtected, DescriptorControl required,
            DescriptorControl inherited)
        {
            control |= present;
            var none = false;
            while (_at < _text.Length && _text[_at] != '(')
            {
                if (_at + 1 < _text.Length && _text[_at + 1] == ':') break; // the next part
                if (Take(NoList)) none = true;
                else if (Take("AR")) control |= required;
                else if (Take("AI")) control |= inherited;
                else if (Take("P")) control |= isProtected;
                else throw Wrong("expected P, AR, AI or an entry");
            }

            if (none)
                return _at < _text.Length && _text[_at] == '(' ? throw Wrong("a list that is not there has no entries") : null;
            var count = 0;
            for (var i = _at; i < _text.Length && _text[i] == '('; count++)
            {
                var close = _text[i..].IndexOf(')');
                if (close < 0) break;
                i += close + 1;
            }

            var aces = new List<Ace>(count);
            while (_at < _text.Length && _text[_at] == '(') aces.Add(Ace());
            return Acl.Of(aces);
        }

        private Ace Ace()
        {
            if (!Take("(")) throw Wrong("expected an entry");
            var type = Type(Until(';'));
            var flags = (AceFlags)Bits(Until(';'), FlagLetters, []);
            var mask = (AccessRights)Mask(Until(';'));
            var objectType = GuidOrNull(Until(';'));
            var inheritedType = GuidOrNull(Until(';'));
            var isObject = type is >= AceType.AllowObject;
            if (!isObject && (objectType ?? inheritedType) is not null) throw Wrong("a plain entry names no GUID");
            var trustee = SidUntil(")");
            if (!Take(")")) throw Wrong("the entry is not closed");
            return new Ace(type, flags, mask, trustee) { ObjectType = objectType, InheritedObjectType = inheritedType };
        }

        private AceType Type(ReadOnlySpan<char> word)
        {
            foreach (var (letters, type) in TypeLetters)
                if (word.Equals(letters, StringComparison.OrdinalIgnoreCase)) return type;
            throw Wrong("this is no type of entry");
        }

        private uint Mask(ReadOnlySpan<char> word)
        {
            if (!word.StartsWith("0x", StringComparison.OrdinalIgnoreCase)) return Bits(word, RightLetters, ForeignRightLetters);
            return uint.TryParse(word[2..], NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var mask)
                ? mask
                : throw Wrong("this mask is no hexadecimal number of 32 bits");
        }

        private uint Bits(ReadOnlySpan<char> word, (string Letters, uint Bit)[] table, (string Letters, uint Bit)[] more)
        {
            var bits = 0u;
            for (var i = 0; i < word.Length; i += 2)
            {
                if (i + 2 > word.Length) throw Wrong("a letter is left over");
                bits |= Find(word.Slice(i, 2), table) ?? Find(word.Slice(i, 2), more)
                    ?? throw Wrong("these letters mean nothing here");
            }

            return bits;
        }

        private static uint? Find(ReadOnlySpan<char> letters, (string Letters, uint Bit)[] table)
        {
            foreach (var (known, bit) in table)
                if (letters.Equals(known, StringComparison.OrdinalIgnoreCase)) return bit;
            return null;
        }

        private Guid? GuidOrNull(ReadOnlySpan<char> word)
        {
            if (word.IsEmpty) return null;
            return Guid.TryParseExact(word, "D", out var guid) ? guid : throw Wrong("this is no GUID");
        }

        /// <summary>A SID ends before the next part (<c>D:</c>) or before the bracket that closes an entry.</summary>
        private Sid SidUntil(string stop)
        {
            var rest = _text[_at..];
            var end = rest.IndexOf(stop[0]);
            if (stop == ":") end = end < 0 ? rest.Length : Math.Max(0, end - 1);
            else if (end < 0) throw Wrong("the entry is not closed");
            var word = rest[..end];
            if (!Sid.TryParse(word, out var sid) && !SddlSids.TryFind(word, domain, out sid)) throw Wrong("this is no SID");
            _at += end;
            return sid;
        }

        private ReadOnlySpan<char> Until(char stop)
        {
            var end = _text[_at..].IndexOf(stop);
            if (end < 0) throw Wrong($"expected {stop}");
            var word = _text.Slice(_at, end);
            _at += end + 1;
            return word;
        }

        private bool Take(string word)
        {
            if (!_text[_at..].StartsWith(word, StringComparison.OrdinalIgnoreCase)) return false;
            _at += word.Length;
            return true;
        }

        private readonly DescriptorFormatException Wrong(string message) => new(message, _at);
    }
}
