using System.Buffers.Binary;

namespace JustRight.SimulatedInstance.Wire;

/// <summary>The kinds of packet that matter here [MS-TDS 2.2.3.1.1].</summary>
internal enum PacketKind : byte
{
    /// <summary>A batch of statements as text.</summary>
    Batch = 0x01,

    /// <summary>The client gives up on what it asked.</summary>
    Attention = 0x06,

    /// <summary>What the server answers.</summary>
    Answer = 0x04,

    /// <summary>Begin, commit or roll back a transaction.</summary>
    Transaction = 0x0E,

    /// <summary>Login.</summary>
    Login = 0x10,

    /// <summary>What is settled before the login, and the TLS handshake inside it.</summary>
    PreLogin = 0x12,
}

/// <summary>Messages cut into packets [MS-TDS 2.2.3].</summary>
internal sealed class PacketStream(Stream inner)
{
    private const int HeaderLength = 8;
    private const int LargestPacket = 4096;
    private const int LargestMessage = 16 * 1024 * 1024;
    private const byte EndOfMessage = 0x01;

    /// <summary>Reads a whole message; null when the other side has gone.</summary>
    public async Task<(PacketKind Kind, byte[] Body)?> ReadAsync(CancellationToken cancel)
    {
        using var body = new MemoryStream();
        var header = new byte[HeaderLength];
        while (true)
        {
            if (await inner.ReadAtLeastAsync(header, HeaderLength, throwOnEndOfStream: false, cancel) < HeaderLength) return null;
            var length = BinaryPrimitives.ReadUInt16BigEndian(header.AsSpan(2)) - HeaderLength;
            if (length < 0 || body.Length + length > LargestMessage)
                throw new InvalidDataException("A packet says that it has a length which it cannot have.");
            var part = new byte[length];
            await inner.ReadExactlyAsync(part, cancel);
            body.Write(part);
            if ((header[1] & EndOfMessage) != 0) return ((PacketKind)header[0], body.ToArray());
        }
    }

    /// <summary>Sends a whole message.</summary>
    public async Task WriteAsync(PacketKind kind, ReadOnlyMemory<byte> body, CancellationToken cancel)
    {
        var number = 1;
        do
        {
            var part = body[..Math.Min(body.Length, LargestPacket - HeaderLength)];
            body = body[part.Length..];
            var packet = new byte[HeaderLength + part.Length];
            packet[0] = (byte)kind;
            packet[1] = body.Length == 0 ? EndOfMessage : (byte)0;
            BinaryPrimitives.WriteUInt16BigEndian(packet.AsSpan(2), (ushort)packet.Length);
            packet[6] = (byte)number++;
            part.CopyTo(packet.AsMemory(HeaderLength));
            await inner.WriteAsync(packet, cancel);
        }
        while (body.Length > 0);
        await inner.FlushAsync(cancel);
    }
}
