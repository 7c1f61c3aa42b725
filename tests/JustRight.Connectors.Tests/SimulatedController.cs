using System.Formats.Asn1;
using System.Net;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Cryptography.X509Certificates;
using System.Text;
using JustRight.Connectors.Directories.Ldap;

namespace JustRight.Connectors.Tests;

/// <summary>A search that was asked for: its base, the values its filter names, and the attributes.</summary>
internal sealed record AskedSearch(string BaseDn, IReadOnlyList<string> Values, IReadOnlyList<string> Attributes);

/// <summary>An entry to send.</summary>
internal sealed record SentEntry(string Dn, params (string Attribute, byte[][] Values)[] Attributes);

/// <summary>
/// Speaks just enough LDAP [RFC 4511] over TLS to answer as some directories do and the test controller does not: in ranges,
/// with a referral, with a refusal of its own.
/// </summary>
internal sealed class SimulatedController : IDisposable
{
    private const int BindRequest = 0;
    private const int SearchRequest = 3;
    private readonly TcpListener _listener = new(IPAddress.Parse(Controller.Address), 0);
    private readonly X509Certificate2 _certificate;
    private readonly Func<AskedSearch, (int Result, IEnumerable<SentEntry> Entries)> _answer;

    public SimulatedController(Controller controller, Func<AskedSearch, (int Result, IEnumerable<SentEntry> Entries)> answer)
    {
        _answer = answer;
        using var pem = X509Certificate2.CreateFromPemFile(
            Path.Combine(controller.Folder, "server.pem"), Path.Combine(controller.Folder, "server.key"));
        _certificate = X509CertificateLoader.LoadPkcs12(pem.Export(X509ContentType.Pkcs12), null);
        _listener.Start();
        Target = controller.Target with { Port = ((IPEndPoint)_listener.LocalEndpoint).Port };
        _ = AcceptAsync();
    }

    /// <summary>What it says when it refuses every bind; null to take any password.</summary>
    public string? BindRefusal { get; init; }

    /// <summary>Where it listens.</summary>
    public LdapTarget Target { get; }

    public static (string, byte[][]) Text(string attribute, params IEnumerable<string> values) =>
        (attribute, [.. values.Select(Encoding.UTF8.GetBytes)]);

    public void Dispose()
    {
        _listener.Dispose();
        _certificate.Dispose();
    }

    private async Task AcceptAsync()
    {
        try
        {
            while (true) _ = ServeAsync(await _listener.AcceptTcpClientAsync());
        }
        catch (Exception e) when (e is SocketException or ObjectDisposedException)
        {
            // It was stopped.
        }
    }

    private async Task ServeAsync(TcpClient client)
    {
        client.NoDelay = true;
        try
        {
            await using var stream = new SslStream(client.GetStream());
            await stream.AuthenticateAsServerAsync(_certificate);
            while (await MessageAsync(stream) is { } message)
            {
                var sequence = new AsnReader(message, AsnEncodingRules.BER).ReadSequence();
                var id = (int)sequence.ReadInteger();
                var operation = sequence.PeekTag();
                if (operation.TagValue == BindRequest)
                    await stream.WriteAsync(
                        Message(id, w => Result(w, BindRequest + 1, BindRefusal is null ? 0 : 49, BindRefusal)));
                else if (operation.TagValue == SearchRequest)
                    await AnswerAsync(stream, id, Read(sequence.ReadSequence(operation)));
                else break;
            }
        }
        catch (Exception e) when (e is IOException or System.Security.Authentication.AuthenticationException)
        {
            // The client went away.
        }
        finally
        {
            client.Dispose();
        }
    }

    private async Task AnswerAsync(SslStream stream, int id, AskedSearch asked)
    {
        var (result, entries) = _answer(asked);
        foreach (var entry in entries)
        {
            await stream.WriteAsync(Message(id, w =>
            {
                using (w.PushSequence(new Asn1Tag(TagClass.Application, 4)))
                {
                    w.WriteOctetString(Encoding.UTF8.GetBytes(entry.Dn));
                    using (w.PushSequence())
                    {
                        foreach (var (attribute, values) in entry.Attributes)
                        {
                            using (w.PushSequence())
                            {
                                w.WriteOctetString(Encoding.UTF8.GetBytes(attribute));
                                using (w.PushSetOf())
                                    foreach (var value in values) w.WriteOctetString(value);
                            }
                        }
                    }
                }
            }));
        }

        await stream.WriteAsync(Message(id, w => Result(w, 5, result)));
    }

    private static AskedSearch Read(AsnReader search)
    {
        var baseDn = Encoding.UTF8.GetString(search.ReadOctetString());
        search.ReadEncodedValue(); // scope
        search.ReadEncodedValue(); // dereferencing
        search.ReadInteger();
        search.ReadInteger();
        search.ReadBoolean();
        var values = Values(search.ReadEncodedValue()).ToList();
        var attributes = new List<string>();
        var list = search.ReadSequence();
        while (list.HasData) attributes.Add(Encoding.UTF8.GetString(list.ReadOctetString()));
        return new AskedSearch(baseDn, values, attributes);
    }

    /// <summary>The values of equality matches, alone or in an "or" [RFC 4511 4.5.1].</summary>
    private static IEnumerable<string> Values(ReadOnlyMemory<byte> filter)
    {
        var reader = new AsnReader(filter, AsnEncodingRules.BER);
        var tag = reader.PeekTag();
        if (tag.TagValue == 1)
        {
            var parts = reader.ReadSetOf(tag);
            while (parts.HasData)
                foreach (var value in Values(parts.ReadEncodedValue())) yield return value;
        }
        else if (tag.TagValue == 3)
        {
            var match = reader.ReadSequence(tag);
            match.ReadOctetString();
            yield return Encoding.UTF8.GetString(match.ReadOctetString());
        }
    }

    private static void Result(AsnWriter writer, int operation, int code, string? says = null)
    {
        using (writer.PushSequence(new Asn1Tag(TagClass.Application, operation)))
        {
            writer.WriteEnumeratedValue((LdapCode)code);
            writer.WriteOctetString([]);
            writer.WriteOctetString(Encoding.UTF8.GetBytes(says ?? ""));
        }
    }

    private static byte[] Message(int id, Action<AsnWriter> operation)
    {
        var writer = new AsnWriter(AsnEncodingRules.BER);
        using (writer.PushSequence())
        {
            writer.WriteInteger(id);
            operation(writer);
        }

        return writer.Encode();
    }

    /// <summary>One message: a tag, a length in short or long form, and as many bytes.</summary>
    private static async Task<byte[]?> MessageAsync(SslStream stream)
    {
        var head = new byte[2];
        if (await stream.ReadAtLeastAsync(head, 2, throwOnEndOfStream: false) < 2) return null;
        var more = new byte[head[1] < 0x80 ? 0 : head[1] & 0x7F];
        await stream.ReadExactlyAsync(more);
        var length = more.Length == 0 ? head[1] : more.Aggregate(0, (l, b) => (l << 8) | b);
        var body = new byte[length];
        await stream.ReadExactlyAsync(body);
        return [.. head, .. more, .. body];
    }

    private enum LdapCode
    {
        Success = 0,
        Referral = 10,
        InvalidCredentials = 49,
        NoSuchObject = 32,
    }
}
