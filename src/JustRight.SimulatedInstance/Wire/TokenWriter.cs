using System.Buffers;
using System.Buffers.Binary;
using System.Text;
using JustRight.SimulatedInstance.Engine;

namespace JustRight.SimulatedInstance.Wire;

/// <summary>Writes the tokens of an answer [MS-TDS 2.2.7].</summary>
internal sealed class TokenWriter
{
    private const byte ColumnsToken = 0x81, ErrorToken = 0xAA, LoginToken = 0xAD, RowToken = 0xD1, ChangeToken = 0xE3, DoneToken = 0xFD;
    private const ushort DoneMore = 0x01, DoneError = 0x02, DoneCount = 0x10, DoneAttention = 0x20;
    private const ushort LongestValue = 8000;
    private static readonly byte[] Collation = [0x09, 0x04, 0xD0, 0x00, 0x34];
    private readonly ArrayBufferWriter<byte> _bytes = new();

    /// <summary>What was written.</summary>
    public ReadOnlyMemory<byte> Written => _bytes.WrittenMemory;

    /// <summary>The login is taken.</summary>
    public TokenWriter LoginTaken(string name, byte major)
    {
        var body = new TokenWriter();
        body.Byte(1).Bytes([0x74, 0, 0, 4]).Text8(name).Bytes([major, 0, 0x03, 0xE8]);
        return Byte(LoginToken).Short((ushort)body._bytes.WrittenCount).Bytes(body.Written.Span);
    }

    /// <summary>The session is in another database.</summary>
    public TokenWriter Entered(string database, string before)
    {
        var body = new TokenWriter();
        body.Byte(1).Text8(database).Text8(before);
        return Byte(ChangeToken).Short((ushort)body._bytes.WrittenCount).Bytes(body.Written.Span);
    }

    /// <summary>A transaction began (8), was committed (9) or rolled back (10).</summary>
    public TokenWriter TransactionChanged(byte kind, long number)
    {
        var descriptor = new byte[8];
        BinaryPrimitives.WriteInt64LittleEndian(descriptor, number);
        var body = new TokenWriter();
        body.Byte(kind);
        if (kind == 8) body.Byte(8).Bytes(descriptor).Byte(0);
        else body.Byte(0).Byte(8).Bytes(descriptor);
        return Byte(ChangeToken).Short((ushort)body._bytes.WrittenCount).Bytes(body.Written.Span);
    }

    /// <summary>An error.</summary>
    public TokenWriter Error(int number, byte severity, string message, string server)
    {
        var body = new TokenWriter();
        body.Int(number).Byte(1).Byte(severity).Text16(message).Text8(server).Text8("").Int(1);
        return Byte(ErrorToken).Short((ushort)body._bytes.WrittenCount).Bytes(body.Written.Span);
    }

    /// <summary>An answer with its rows, if it has any.</summary>
    public TokenWriter Answer(Answer answer)
    {
        if (answer.Columns.Count == 0) return this;
        Byte(ColumnsToken).Short((ushort)answer.Columns.Count);
        foreach (var (name, type) in answer.Columns)
        {
            Int(0).Short(0x09); // no user type; may be null, may not be written
            switch (type)
            {
                case "int": Byte(0x26).Byte(4); break;
                case "bit": Byte(0x68).Byte(1); break;
                case "varbinary": Byte(0xA5).Short(LongestValue); break;
                default: Byte(0xE7).Short(LongestValue).Bytes(Collation); break;
            }

            Text8(name);
        }

        foreach (var row in answer.Rows)
        {
            Byte(RowToken);
            for (var i = 0; i < row.Length; i++) Value(answer.Columns[i].Type, row[i]);
        }

        return this;
    }

    /// <summary>The end of an answer.</summary>
    /// <param name="more">Whether another one follows.</param>
    /// <param name="rows">How many rows it had, or null when it is no question.</param>
    public TokenWriter Done(bool more = false, long? rows = null, bool failed = false, bool attention = false) =>
        Byte(DoneToken)
            .Short((ushort)((more ? DoneMore : 0) | (failed ? DoneError : 0) | (rows is null ? 0 : DoneCount) | (
                attention ? DoneAttention : 0)))
            .Short(rows is null ? (ushort)0 : (ushort)0xC1).Long(rows ?? 0);

    private void Value(string type, object? value)
    {
        switch (type)
        {
            case "int" or "bit":
                if (value is null) Byte(0);
                else if (type == "int") Byte(4).Int((int)value);
                else Byte(1).Byte((byte)(int)value);
                break;
            default:
                var bytes = value is null ? null : value as byte[] ?? Encoding.Unicode.GetBytes((string)value);
                if (bytes is null) Short(0xFFFF);
                else Short((ushort)bytes.Length).Bytes(bytes);
                break;
        }
    }

    private TokenWriter Byte(byte value)
    {
        _bytes.Write([value]);
        return this;
    }

    private TokenWriter Bytes(ReadOnlySpan<byte> value)
    {
        _bytes.Write(value);
        return this;
    }

    private TokenWriter Short(ushort value) => Bytes([(byte)value, (byte)(value >> 8)]);

    private TokenWriter Int(int value)
    {
        Span<byte> bytes = stackalloc byte[4];
        BinaryPrimitives.WriteInt32LittleEndian(bytes, value);
        return Bytes(bytes);
    }

    private TokenWriter Long(long value)
    {
        Span<byte> bytes = stackalloc byte[8];
        BinaryPrimitives.WriteInt64LittleEndian(bytes, value);
        return Bytes(bytes);
    }

    private TokenWriter Text8(string text) => Byte((byte)text.Length).Bytes(Encoding.Unicode.GetBytes(text));

    private TokenWriter Text16(string text) => Short((ushort)text.Length).Bytes(Encoding.Unicode.GetBytes(text));
}
