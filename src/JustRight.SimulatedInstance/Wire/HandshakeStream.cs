namespace JustRight.SimulatedInstance.Wire;

/// <summary>
/// What TLS runs over. During the handshake its records travel inside packets of the pre-login [MS-TDS 2.2.6.5]; afterwards
/// they stand
/// by themselves, and the packets travel inside them.
/// </summary>
internal sealed class HandshakeStream(Stream network) : Stream
{
    private readonly PacketStream _packets = new(network);
    private ReadOnlyMemory<byte> _left;

    /// <summary>Whether the handshake is over.</summary>
    public bool IsOver { get; set; }

    /// <inheritdoc/>
    public override bool CanRead => true;

    /// <inheritdoc/>
    public override bool CanSeek => false;

    /// <inheritdoc/>
    public override bool CanWrite => true;

    /// <inheritdoc/>
    public override long Length => throw new NotSupportedException();

    /// <inheritdoc/>
    public override long Position { get => throw new NotSupportedException(); set => throw new NotSupportedException(); }

    /// <inheritdoc/>
    public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
    {
        if (_left.Length == 0)
        {
            if (IsOver) return await network.ReadAsync(buffer, cancellationToken);
            if (await _packets.ReadAsync(cancellationToken) is not { } message) return 0;
            _left = message.Body;
        }

        var count = Math.Min(buffer.Length, _left.Length);
        _left[..count].CopyTo(buffer);
        _left = _left[count..];
        return count;
    }

    /// <inheritdoc/>
    public override ValueTask WriteAsync(ReadOnlyMemory<byte> buffer, CancellationToken cancellationToken = default) =>
        IsOver
            ? network.WriteAsync(buffer, cancellationToken)
            : new ValueTask(_packets.WriteAsync(PacketKind.PreLogin, buffer, cancellationToken));

    /// <inheritdoc/>
    public override Task FlushAsync(CancellationToken cancellationToken) => network.FlushAsync(cancellationToken);

    /// <inheritdoc/>
    public override void Flush() => network.Flush();

    /// <inheritdoc/>
    public override int Read(byte[] buffer, int offset, int count) =>
        ReadAsync(buffer.AsMemory(offset, count)).AsTask().GetAwaiter().GetResult();

    /// <inheritdoc/>
    public override void Write(byte[] buffer, int offset, int count) =>
        WriteAsync(buffer.AsMemory(offset, count)).AsTask().GetAwaiter().GetResult();

    /// <inheritdoc/>
    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    /// <inheritdoc/>
    public override void SetLength(long value) => throw new NotSupportedException();
}
