using System.Formats.Asn1;
using System.Text;

namespace JustRight.SignIn.Tests;

/// <summary>Answers to a bind [RFC 4511 4.2.2], good and odd, octet by octet.</summary>
internal static class OddAnswers
{
    private const int Bind = 1, Compare = 15;
    private const string PolicyControl = "1.3.6.1.4.1.42.2.27.8.5.1";

    /// <summary>The octets of an answer.</summary>
    public static byte[] Of(string answer) => answer switch
    {
        "refused" => Message(Bind, [0x0a, 1, 49]),
        "refused, with what only a change is answered" => Message(Bind, [0x0a, 1, 49], [0x30, 3, 0x81, 1, 5]),
        "a result of two octets" => Message(Bind, [0x0a, 2, 1, 0]),
        "a policy that is none" => Message(Bind, [0x0a, 1, 0], [0x30, 9]),
        "an answer to something else" => Message(Compare, [0x0a, 1, 0]),
        "nothing in a message" => [0x30, 0],
        "a message that never ends" => [0x30, 0x84, 0xff, 0xff, 0xff, 0xff],
        "no octet at all" => [],
        _ => throw new ArgumentOutOfRangeException(nameof(answer), answer, null),
    };

    private static byte[] Message(int kind, byte[] result, byte[]? policy = null)
    {
        var writer = new AsnWriter(AsnEncodingRules.BER);
        using (writer.PushSequence())
        {
            writer.WriteInteger(1);
            using (writer.PushSequence(new Asn1Tag(TagClass.Application, kind)))
            {
                writer.WriteEncodedValue(result);
                writer.WriteOctetString([]);
                writer.WriteOctetString([]);
            }

            if (policy is not null)
            {
                using (writer.PushSequence(new Asn1Tag(TagClass.ContextSpecific, 0)))
                using (writer.PushSequence())
                {
                    writer.WriteOctetString(Encoding.ASCII.GetBytes(PolicyControl));
                    writer.WriteOctetString(policy);
                }
            }
        }

        return writer.Encode();
    }
}
