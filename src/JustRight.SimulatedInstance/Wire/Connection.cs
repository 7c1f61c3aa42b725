using System.Buffers.Binary;
using System.Globalization;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Authentication;
using System.Security.Cryptography.X509Certificates;
using System.Text;
using JustRight.SimulatedInstance.Engine;

namespace JustRight.SimulatedInstance.Wire;

/// <summary>One client: settles the encryption, takes its login, and answers what it sends until it goes.</summary>
internal sealed class Connection(
    TcpClient client, X509Certificate2 certificate, SimulatedEngine engine, Func<string, Trouble> troubleAt)
{
    private const byte Encrypted = 0x01, EncryptionRequired = 0x03, EncryptionOption = 0x01;
    private const ushort BeginTransaction = 5, Commit = 7, Rollback = 8;
    private long _transactions;

    /// <summary>Serves the client to the end.</summary>
    public async Task ServeAsync(CancellationToken cancel)
    {
        using (client)
        {
            try
            {
                var network = client.GetStream();
                var plain = new PacketStream(network);
                if (await plain.ReadAsync(cancel) is not { Kind: PacketKind.PreLogin, Body: var asked }) return;
                await plain.WriteAsync(PacketKind.Answer, PreLoginAnswer(asked), cancel);
                var handshake = new HandshakeStream(network);
                await using var tls = new SslStream(handshake);
                // over this handshake the protocol has no later version
                await tls.AuthenticateAsServerAsync(
                    new SslServerAuthenticationOptions
                    {
                        ServerCertificate = certificate,
                        EnabledSslProtocols = SslProtocols.Tls12,
                    },
                    cancel);
                handshake.IsOver = true;
                await ServeAsync(new PacketStream(tls), cancel);
            }
            catch (Exception e) when (
                e is IOException or SocketException or AuthenticationException or OperationCanceledException or InvalidDataException or ObjectDisposedException)
            {
                // The client went, or does not speak the protocol: it is gone, and so is what it had not committed.
            }
        }
    }

    private async Task ServeAsync(PacketStream packets, CancellationToken cancel)
    {
        if (await packets.ReadAsync(cancel) is not { Kind: PacketKind.Login, Body: var body }) return;
        var login = LoginMessage.Read(body);
        if (!engine.Admits(login.User, login.Password))
        {
            await AnswerAsync(new TokenWriter().Error(
                18456, 14, $"Login failed for user '{login.User}'.", engine.Birth.Name).Done(failed: true));
            return;
        }

        using var session = new EngineSession(engine, login.User);
        var major = byte.Parse(engine.Birth.Release.Split('.')[0], CultureInfo.InvariantCulture);
        await AnswerAsync(new TokenWriter().Entered("master", "master").LoginTaken("Simulated instance", major).Done());
        while (await packets.ReadAsync(cancel) is { } message)
        {
            switch (message.Kind)
            {
                case PacketKind.Batch:
                    var text = Encoding.Unicode.GetString(AfterHeaders(message.Body));
                    var trouble = troubleAt(text);
                    if (trouble == Trouble.CutBefore) return;
                    var answer = await Task.Run(() => Batch(session, text, trouble), cancel);
                    if (trouble == Trouble.CutAfter) return;
                    await AnswerAsync(answer);
                    break;
                case PacketKind.Transaction:
                    var kind = BinaryPrimitives.ReadUInt16LittleEndian(AfterHeaders(message.Body));
                    var end = kind == Commit ? troubleAt("COMMIT") : Trouble.None;
                    if (end == Trouble.CutBefore) return;
                    var changed = await Task.Run(() => Transaction(session, kind), cancel);
                    if (end == Trouble.CutAfter) return;
                    await AnswerAsync(changed);
                    break;
                case PacketKind.Attention:
                    await AnswerAsync(new TokenWriter().Done(attention: true));
                    break;
                default:
                    await AnswerAsync(new TokenWriter().Error(
                        50000, 16, "This is a simulated instance, and it takes batches of statements alone.",
                        engine.Birth.Name).Done(failed: true));
                    break;
            }
        }

        Task AnswerAsync(TokenWriter tokens) => packets.WriteAsync(PacketKind.Answer, tokens.Written, cancel);
    }

    private TokenWriter Batch(EngineSession session, string text, Trouble trouble)
    {
        var tokens = new TokenWriter();
        var before = session.Database;
        try
        {
            if (trouble == Trouble.Deadlock)
                throw new EngineException(
                    1205,
                    "Transaction was deadlocked on lock resources with another process and has been chosen as the deadlock victim. Rerun the transaction.",
                    13);
            var answers = session.Batch(text).ToList();
            if (session.Database != before) tokens.Entered(session.Database, before);
            for (var i = 0; i < answers.Count; i++)
                tokens.Answer(answers[i])
                    .Done(i < answers.Count - 1, answers[i].Columns.Count > 0 ? answers[i].Rows.Count : null);
            return answers.Count == 0 ? tokens.Done() : tokens;
        }
        catch (EngineException e)
        {
            if (e.Number == 1205 && session.InTransaction)
            {
                session.End(keep: false);
                tokens.TransactionChanged(10, _transactions);
            }

            return tokens.Error(e.Number, e.Severity, e.Message, engine.Birth.Name).Done(failed: true);
        }
    }

    private TokenWriter Transaction(EngineSession session, ushort kind)
    {
        switch (kind)
        {
            case BeginTransaction:
                session.Begin();
                return new TokenWriter().TransactionChanged(8, ++_transactions).Done();
            case Commit or Rollback:
                session.End(keep: kind == Commit);
                return new TokenWriter().TransactionChanged(kind == Commit ? (byte)9 : (byte)10, _transactions).Done();
            default:
                return new TokenWriter()
                    .Error(
                        50000, 16, "This is a simulated instance, and it begins, commits and rolls back alone.",
                        engine.Birth.Name)
                    .Done(failed: true);
        }
    }

    /// <summary>Skips the headers that stand before a request [MS-TDS 2.2.5.3].</summary>
    private static byte[] AfterHeaders(byte[] body) => body[(int)BinaryPrimitives.ReadUInt32LittleEndian(body)..];

    /// <summary>
    /// Answers the options with the version and with encryption for everything; a client that cannot encrypt is told that it
    /// must.
    /// </summary>
    private byte[] PreLoginAnswer(byte[] asked)
    {
        var wants = Option(asked, EncryptionOption) is [var e, ..] ? e : (byte)0;
        var major = byte.Parse(engine.Birth.Release.Split('.')[0], CultureInfo.InvariantCulture);
        byte[][] values = [[major, 0, 0x03, 0xE8, 0, 0], [wants == Encrypted ? Encrypted : EncryptionRequired], [0], [], [0]];
        var offset = (5 * values.Length) + 1;
        var head = new List<byte>();
        for (var i = 0; i < values.Length; i++)
        {
            head.AddRange([(byte)i, (byte)(offset >> 8), (byte)offset, 0, (byte)values[i].Length]);
            offset += values[i].Length;
        }

        return [.. head, 0xFF, .. values.SelectMany(v => v)];
    }

    private static byte[] Option(byte[] body, byte option)
    {
        for (var at = 0; at + 5 <= body.Length && body[at] != 0xFF; at += 5)
            if (body[at] == option)
                return body.AsSpan(
                    BinaryPrimitives.ReadUInt16BigEndian(body.AsSpan(at + 1)),
                    BinaryPrimitives.ReadUInt16BigEndian(body.AsSpan(at + 3)))
                    .ToArray();
        return [];
    }
}
