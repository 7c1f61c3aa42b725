using System.Buffers.Binary;

namespace JustRight.Core.Directory.Descriptors;

/// <summary>
/// The self-relative binary form of descriptors [MS-DTYP 2.4.6], as directories store it in <c>nTSecurityDescriptor</c>.
/// </summary>
public static class DescriptorBytes
{
    private const int HeaderLength = 20;
    private const int AclHeaderLength = 8;
    private const int AceHeaderLength = 4;
    private const uint ObjectTypePresent = 1;
    private const uint InheritedObjectTypePresent = 2;

    /// <summary>
    /// Reads a descriptor; throws <see cref="DescriptorFormatException"/> and nothing else when it is malformed.
    /// </summary>
    public static SecurityDescriptor Read(ReadOnlySpan<byte> bytes)
    {
        if (bytes.Length < HeaderLength) throw new DescriptorFormatException("a descriptor has at least 20 bytes", bytes.Length);
        if (bytes[0] != 1) throw new DescriptorFormatException("the revision of a descriptor is 1", 0);
        var control = (DescriptorControl)BinaryPrimitives.ReadUInt16LittleEndian(bytes[2..]);
        if (!control.HasFlag(DescriptorControl.SelfRelative))
            throw new DescriptorFormatException("the descriptor is not self-relative", 2);
        var owner = ReadSid(bytes, 4);
        var group = ReadSid(bytes, 8);
        var sacl = ReadAcl(bytes, 12, control.HasFlag(DescriptorControl.SaclPresent));
        var dacl = ReadAcl(bytes, 16, control.HasFlag(DescriptorControl.DaclPresent));
        return new SecurityDescriptor(control, owner, group, dacl, sacl);
    }

    /// <summary>Writes a descriptor. Reading it back gives an equal one.</summary>
    public static byte[] Write(SecurityDescriptor descriptor)
    {
        var bytes = new List<byte>(256);
        bytes.AddRange(stackalloc byte[HeaderLength]);
        Span<int> offsets = [0, 0, 0, 0];
        if (descriptor.Sacl is not null) offsets[2] = Append(bytes, WriteAcl(descriptor.Sacl));
        if (descriptor.Dacl is not null) offsets[3] = Append(bytes, WriteAcl(descriptor.Dacl));
        if (!descriptor.Owner.IsEmpty) offsets[0] = Append(bytes, descriptor.Owner.ToBytes());
        if (!descriptor.Group.IsEmpty) offsets[1] = Append(bytes, descriptor.Group.ToBytes());
        var written = bytes.ToArray();
        written[0] = 1;
        BinaryPrimitives.WriteUInt16LittleEndian(
            written.AsSpan(2), (ushort)(descriptor.Control | DescriptorControl.SelfRelative));
        for (var i = 0; i < offsets.Length; i++) BinaryPrimitives.WriteInt32LittleEndian(written.AsSpan(4 + (4 * i)), offsets[i]);
        return written;
    }

    private static int Append(List<byte> bytes, byte[] part)
    {
        var at = bytes.Count;
        bytes.AddRange(part);
        return at;
    }

    private static int Offset(ReadOnlySpan<byte> bytes, int field)
    {
        var offset = BinaryPrimitives.ReadUInt32LittleEndian(bytes[field..]);
        if (offset == 0) return 0;
        return offset >= HeaderLength && offset < bytes.Length
            ? (int)offset
            : throw new DescriptorFormatException("a part lies outside the descriptor", field);
    }

    private static Sid ReadSid(ReadOnlySpan<byte> bytes, int field)
    {
        var at = Offset(bytes, field);
        return at == 0 ? default : ReadSidAt(bytes[at..], at, out _);
    }

    private static Sid ReadSidAt(ReadOnlySpan<byte> bytes, int position, out int length)
    {
        length = bytes.Length >= 2 ? 8 + (4 * bytes[1]) : int.MaxValue;
        return length <= bytes.Length && Sid.TryFromBytes(bytes[..length], out var sid)
            ? sid
            : throw new DescriptorFormatException("this is no SID", position);
    }

    private static Acl? ReadAcl(ReadOnlySpan<byte> bytes, int field, bool present)
    {
        var at = Offset(bytes, field);
        if (at == 0) return null;
        if (!present) return null; // an offset without its flag means nothing [MS-DTYP 2.4.6]
        if (bytes.Length - at < AclHeaderLength) throw new DescriptorFormatException("the list is cut off", at);
        var revision = bytes[at];
        if (revision is not (Acl.PlainRevision or 3 or Acl.ObjectRevision))
            throw new DescriptorFormatException("the revision of a list is 2 or 4", at);
        int size = BinaryPrimitives.ReadUInt16LittleEndian(bytes[(at + 2)..]);
        int count = BinaryPrimitives.ReadUInt16LittleEndian(bytes[(at + 4)..]);
        if (size < AclHeaderLength || size > bytes.Length - at)
            throw new DescriptorFormatException("the list is longer than the descriptor", at + 2);
        if (count * AceHeaderLength > size - AclHeaderLength)
            throw new DescriptorFormatException("the list has more entries than room", at + 4);
        var aces = new Ace[count];
        var next = at + AclHeaderLength;
        var end = at + size;
        for (var i = 0; i < count; i++)
        {
            if (end - next < AceHeaderLength) throw new DescriptorFormatException("an entry is cut off", next);
            int length = BinaryPrimitives.ReadUInt16LittleEndian(bytes[(next + 2)..]);
            if (length < AceHeaderLength || length > end - next)
                throw new DescriptorFormatException("an entry is longer than its list", next + 2);
            aces[i] = ReadAce(bytes.Slice(next, length), next);
            next += length;
        }

        return new Acl(revision, aces);
    }

    /// <summary>Reads one entry. Its size may exceed its content: what is left over is skipped. It may not fall short.</summary>
    private static Ace ReadAce(ReadOnlySpan<byte> bytes, int position)
    {
        var type = (AceType)bytes[0];
        var flags = (AceFlags)bytes[1];
        if (!Enum.IsDefined(type))
            return new Ace(type, flags, AccessRights.None, default) { RawBody = Convert.ToHexString(bytes[AceHeaderLength..]) };
        if (bytes.Length < 8) throw new DescriptorFormatException("the entry has no mask", position);
        var mask = (AccessRights)BinaryPrimitives.ReadUInt32LittleEndian(bytes[4..]);
        var at = 8;
        Guid? objectType = null, inheritedType = null;
        if (type is >= AceType.AllowObject)
        {
            if (bytes.Length < 12) throw new DescriptorFormatException("the entry has no flags", position);
            var parts = BinaryPrimitives.ReadUInt32LittleEndian(bytes[8..]);
            at = 12;
            if ((parts & ObjectTypePresent) != 0) objectType = ReadGuid(bytes, ref at, position);
            if ((parts & InheritedObjectTypePresent) != 0) inheritedType = ReadGuid(bytes, ref at, position);
        }

        return new Ace(type, flags, mask, ReadSidAt(bytes[at..], position + at, out _))
        {
            ObjectType = objectType,
            InheritedObjectType = inheritedType,
        };
    }

    private static Guid ReadGuid(ReadOnlySpan<byte> bytes, ref int at, int position)
    {
        if (bytes.Length < at + 16)
            throw new DescriptorFormatException("the entry is too short for the GUID it says it has", position + at);
        at += 16;
        return new Guid(bytes.Slice(at - 16, 16));
    }

    private static byte[] WriteAcl(Acl acl)
    {
        var aces = acl.Aces.Select(WriteAce).ToList();
        var size = AclHeaderLength + aces.Sum(a => a.Length);
        if (size > ushort.MaxValue) throw new InvalidOperationException("An access list holds at most 64 KB [MS-DTYP 2.4.5].");
        var bytes = new byte[size];
        bytes[0] = acl.Revision;
        BinaryPrimitives.WriteUInt16LittleEndian(bytes.AsSpan(2), (ushort)size);
        BinaryPrimitives.WriteUInt16LittleEndian(bytes.AsSpan(4), (ushort)aces.Count);
        var at = AclHeaderLength;
        foreach (var ace in aces)
        {
            ace.CopyTo(bytes, at);
            at += ace.Length;
        }

        return bytes;
    }

    private static byte[] WriteAce(Ace ace)
    {
        var raw = ace.RawBody is null ? null : Convert.FromHexString(ace.RawBody);
        var sid = raw is null ? ace.Trustee.ToBytes() : [];
        var guids = !ace.IsObject ? 0 : 4 + (ace.ObjectType is null ? 0 : 16) + (ace.InheritedObjectType is null ? 0 : 16);
        var bytes = new byte[raw is null ? 8 + guids + sid.Length : AceHeaderLength + raw.Length];
        bytes[0] = (byte)ace.Type;
        bytes[1] = (byte)ace.Flags;
        BinaryPrimitives.WriteUInt16LittleEndian(bytes.AsSpan(2), (ushort)bytes.Length);
        if (raw is not null)
        {
            raw.CopyTo(bytes, AceHeaderLength);
            return bytes;
        }

        BinaryPrimitives.WriteUInt32LittleEndian(bytes.AsSpan(4), (uint)ace.Mask);
        var at = 8;
        if (ace.IsObject)
        {
            BinaryPrimitives.WriteUInt32LittleEndian(
                bytes.AsSpan(8),
                (ace.ObjectType is null ? 0 : ObjectTypePresent) | (
                    ace.InheritedObjectType is null ? 0 : InheritedObjectTypePresent));
            at = 12;
            foreach (var guid in new[] { ace.ObjectType, ace.InheritedObjectType })
            {
                if (guid is null) continue;
                guid.Value.TryWriteBytes(bytes.AsSpan(at));
                at += 16;
            }
        }

        sid.CopyTo(bytes, at);
        return bytes;
    }
}
