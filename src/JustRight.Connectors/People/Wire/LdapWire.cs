using System.Formats.Asn1;
using System.Text;

namespace JustRight.Connectors.People.Wire;

/// <summary>
/// The few messages of LDAP [RFC 4511] that are sent before, or instead of, a session of the library's: what the library does
/// not tell is in their answers. One request, one answer.
/// </summary>
internal static class LdapWire
{
    private const int MostOctets = 1_000_000;
    private const int BindResponse = 1, SearchEntry = 4, SearchDone = 5, SearchReference = 19, ExtendedResponse = 24;
    private const string StartTlsName = "1.3.6.1.4.1.1466.20037"; // [RFC 4511 4.14.1]
    private const string PolicyControl = "1.3.6.1.4.1.42.2.27.8.5.1";

    /// <summary>Asks for TLS on a connection without.</summary>
    public static Task<LdapAnswer> StartTlsAsync(Stream stream, CancellationToken cancel) => AskAsync(stream, writer =>
    {
        using (writer.PushSequence(Application(23)))
            writer.WriteOctetString(Encoding.ASCII.GetBytes(StartTlsName), Context(0));
    }, cancel);

    /// <summary>Asks for the root entry, which every directory shows to anybody, if only to refuse it.</summary>
    public static Task<LdapAnswer> RootAsync(Stream stream, CancellationToken cancel) => AskAsync(stream, writer =>
    {
        using (writer.PushSequence(Application(3)))
        {
            writer.WriteOctetString([]);
            writer.WriteEncodedValue([0x0a, 1, 0]); // the object alone
            writer.WriteEncodedValue([0x0a, 1, 0]); // aliases stay as they are
            writer.WriteInteger(1);
            writer.WriteInteger(10);
            writer.WriteBoolean(true);
            writer.WriteOctetString(Encoding.ASCII.GetBytes("objectClass"), Context(7));
            using (writer.PushSequence()) writer.WriteOctetString(Encoding.ASCII.GetBytes("1.1"));
        }
    }, cancel);

    /// <summary>Binds by name and password, and asks what there is to say of the password.</summary>
    public static Task<LdapAnswer> BindAsync(Stream stream, string name, string password, CancellationToken cancel) =>
        AskAsync(
            stream, writer =>
            {
                using (writer.PushSequence(Application(0)))
                {
                    writer.WriteInteger(3);
                    writer.WriteOctetString(Encoding.UTF8.GetBytes(name));
                    writer.WriteOctetString(Encoding.UTF8.GetBytes(password), Context(0));
                }

                using (writer.PushSequence(Context(0)))
                using (writer.PushSequence())
                    writer.WriteOctetString(Encoding.ASCII.GetBytes(PolicyControl));
            },
            cancel);

    private static async Task<LdapAnswer> AskAsync(Stream stream, Action<AsnWriter> write, CancellationToken cancel)
    {
        var writer = new AsnWriter(AsnEncodingRules.BER);
        using (writer.PushSequence())
        {
            writer.WriteInteger(1);
            write(writer);
        }

        await stream.WriteAsync(writer.Encode(), cancel);
        while (true)
        {
            var message = await MessageAsync(stream, cancel);
            try
            {
                if (Read(message) is { } answer) return answer;
            }
            catch (AsnContentException e)
            {
                throw new NotADirectoryException($"its answer is no message of LDAP: {e.Message}");
            }
        }
    }

    /// <summary>The answer that ends a request; null for a part of one that goes on.</summary>
    private static LdapAnswer? Read(byte[] octets)
    {
        var message = new AsnReader(octets, AsnEncodingRules.BER).ReadSequence();
        message.ReadInteger();
        var tag = message.PeekTag();
        if (tag.TagClass != TagClass.Application) throw new NotADirectoryException("its answer is no message of LDAP");
        if (tag.TagValue is SearchEntry or SearchReference) return null;
        if (tag.TagValue is not (BindResponse or SearchDone or ExtendedResponse))
            throw new NotADirectoryException("its answer is none to what was asked");
        var response = message.ReadSequence(Application(tag.TagValue));
        var code = response.ReadEnumeratedBytes().Span is [var one]
            ? one
            : throw new NotADirectoryException("its answer has no result");
        response.ReadOctetString();
        var diagnostic = Encoding.UTF8.GetString(response.ReadOctetString()).TrimEnd('\0');
        PasswordPolicyAnswer? policy = null;
        if (message.HasData && message.PeekTag().HasSameClassAndValue(Context(0)))
        {
            var controls = message.ReadSequence(Context(0));
            while (controls.HasData)
            {
                var control = controls.ReadSequence();
                var name = Encoding.ASCII.GetString(control.ReadOctetString());
                if (control.HasData && control.PeekTag() == Asn1Tag.Boolean) control.ReadBoolean();
                if (name == PolicyControl && control.HasData) policy = Policy(control.ReadOctetString());
            }
        }

        return new LdapAnswer(code, diagnostic, policy);
    }

    private static PasswordPolicyAnswer Policy(byte[] octets)
    {
        var value = new AsnReader(octets, AsnEncodingRules.BER).ReadSequence();
        TimeSpan? expires = null;
        int? left = null;
        PasswordPolicyError? error = null;
        if (value.HasData && value.PeekTag().HasSameClassAndValue(Context(0)))
        {
            var warning = value.ReadSequence(Context(0));
            var which = warning.PeekTag().TagValue;
            warning.TryReadInt32(out var number, Context(which));
            if (which == 0) expires = TimeSpan.FromSeconds(number);
            else left = number;
        }

        if (value.HasData && value.PeekTag().HasSameClassAndValue(Context(1)))
            error = value.ReadEnumeratedBytes(Context(1)).Span is [<= (byte)PasswordPolicyError.ChangeAfterReset and var known]
                ? (PasswordPolicyError)known // the others are answers to a change of the password
                : null;
        return new PasswordPolicyAnswer(expires, left, error);
    }

    private static async Task<byte[]> MessageAsync(Stream stream, CancellationToken cancel)
    {
        var head = new byte[2];
        await FillAsync(stream, head, cancel);
        if (head[0] != 0x30)
            throw new NotADirectoryException($"what it says begins with {Shown(head)}, which is no message of LDAP", spoke: true);
        var more = head[1] > 0x80 ? new byte[head[1] & 0x7f] : [];
        if (more.Length > 4 || head[1] == 0x80) throw new NotADirectoryException("its answer is no message of LDAP");
        await FillAsync(stream, more, cancel);
        var length = more.Length == 0 ? head[1] : more.Aggregate(0L, (all, next) => (all << 8) | next);
        if (length > MostOctets) throw new NotADirectoryException("its answer is longer than any that was asked for");
        var body = new byte[length];
        await FillAsync(stream, body, cancel);
        return [.. head, .. more, .. body];
    }

    private static async Task FillAsync(Stream stream, Memory<byte> buffer, CancellationToken cancel)
    {
        try
        {
            await stream.ReadExactlyAsync(buffer, cancel);
        }
        catch (EndOfStreamException)
        {
            throw new NotADirectoryException("it ends the connection when it is asked something");
        }
    }

    private static string Shown(byte[] octets) =>
        octets.All(o => o is > 0x20 and < 0x7f) ? $"'{Encoding.ASCII.GetString(octets)}'" : Convert.ToHexStringLower(octets);

    private static Asn1Tag Application(int number) => new(TagClass.Application, number, isConstructed: true);

    private static Asn1Tag Context(int number) => new(TagClass.ContextSpecific, number);
}
