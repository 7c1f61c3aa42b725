using System.Buffers.Binary;
using System.Text;

namespace JustRight.SimulatedInstance.Wire;

/// <summary>What a login says of itself [MS-TDS 2.2.6.4].</summary>
internal sealed record LoginMessage(string User, string Password, string Database)
{
    private const int UserAt = 40;
    private const int PasswordAt = 44;
    private const int DatabaseAt = 68;

    /// <summary>Reads a login.</summary>
    public static LoginMessage Read(byte[] body) =>
        new(
            Text(body, UserAt), Encoding.Unicode.GetString([.. Part(body, PasswordAt).Select(Unscrambled)]),
            Text(body, DatabaseAt));

    private static string Text(byte[] body, int at) => Encoding.Unicode.GetString(Part(body, at));

    private static byte[] Part(byte[] body, int at)
    {
        int offset = BinaryPrimitives.ReadUInt16LittleEndian(body.AsSpan(at)), length = BinaryPrimitives.ReadUInt16LittleEndian(body.AsSpan(at + 2));
        return body.AsSpan(offset, 2 * length).ToArray();
    }

    /// <summary>
    /// Each byte of a password has its halves exchanged and is then combined with 0xA5: no secrecy, which is why TLS comes
    /// first.
    /// </summary>
    private static byte Unscrambled(byte b)
    {
        var plain = (byte)(b ^ 0xA5);
        return (byte)((plain << 4) | (plain >> 4));
    }
}
