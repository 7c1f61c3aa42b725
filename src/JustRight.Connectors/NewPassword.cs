using System.Security.Cryptography;
using System.Text.Encodings.Web;
using System.Text.Json;

namespace JustRight.Connectors;

/// <summary>A password on its way to a new account. It never prints itself, so no log or error can hold it by accident.</summary>
public sealed class NewPassword(string value)
{
    private const string Letters = "abcdefghijkmnopqrstuvwxyz";
    private const string Capitals = "ABCDEFGHJKLMNPQRSTUVWXYZ";
    private const string Digits = "23456789";
    private const string Signs = "-_.+!%=";

    /// <summary>How long one is unless somebody asks for more.</summary>
    public const int UsualLength = 32;

    /// <summary>The password in clear. Only connectors and the sealed store may ask.</summary>
    public string Reveal() => value;

    /// <summary>Strikes the password out of what somebody else said, in the clear and as JSON writes it: a host may echo what it was given.</summary>
    public string StrikeFrom(string text) =>
        value.Length == 0 ? text
            : new[] { value, JsonEncodedText.Encode(value).ToString(), JsonEncodedText.Encode(
                value, JavaScriptEncoder.UnsafeRelaxedJsonEscaping).ToString() }
                .Aggregate(text, (struck, form) => struck.Replace(form, ToString(), StringComparison.OrdinalIgnoreCase));

    /// <summary>Characters of four kinds, without ones that look alike, from the system's random source.</summary>
    /// <param name="length">How many; the stricter of what the organization and the directory ask for.</param>
    public static NewPassword Generate(int length = UsualLength)
    {
        const string all = Letters + Capitals + Digits + Signs;
        while (true)
        {
            var text = RandomNumberGenerator.GetString(all, length);
            if (text.Any(Letters.Contains) && text.Any(Capitals.Contains) && text.Any(Digits.Contains)
                && text.Any(Signs.Contains))
                return new NewPassword(text);
        }
    }

    /// <inheritdoc/>
    public override string ToString() => "(a password)";
}
