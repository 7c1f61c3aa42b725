using System.Buffers.Binary;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Rights.Access;

/// <summary>
/// Reads the fixed head of entries whose effect hangs on a condition [MS-DTYP 2.4.4.6 to 2.4.4.9]. The condition itself is not
/// judged: such an entry may or may not count.
/// </summary>
internal static class ConditionalEntry
{
    private const byte FirstWithGuids = 0xB;

    /// <summary>Mask and trustee; false, with every bit in the mask, when even the head is malformed.</summary>
    public static bool TryRead(Ace ace, out AccessRights mask, out Sid trustee)
    {
        (mask, trustee) = ((AccessRights)uint.MaxValue, default);
        var body = Convert.FromHexString(ace.RawBody!).AsSpan();
        if (body.Length < 4) return false;
        var bits = (AccessRights)BinaryPrimitives.ReadUInt32LittleEndian(body);
        var at = 4;
        if ((byte)ace.Type >= FirstWithGuids)
        {
            if (body.Length < 8) return false;
            var parts = BinaryPrimitives.ReadUInt32LittleEndian(body[4..]);
            at = 8 + ((parts & 1) != 0 ? 16 : 0) + ((parts & 2) != 0 ? 16 : 0);
        }

        if (body.Length < at + 2) return false;
        var length = 8 + (4 * body[at + 1]);
        if (body.Length < at + length || !Sid.TryFromBytes(body.Slice(at, length), out trustee)) return false;
        mask = bits;
        return true;
    }
}
