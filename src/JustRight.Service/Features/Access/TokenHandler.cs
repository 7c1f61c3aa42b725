using System.Security.Claims;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Authentication;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Features.Access;

/// <summary>Signs requests in by bearer token [RFC 6750].</summary>
internal sealed class TokenHandler(
    IOptionsMonitor<AuthenticationSchemeOptions> options, ILoggerFactory logger, UrlEncoder encoder, AccessKeys keys)
    : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
{
    public const string SchemeName = "Bearer";

    /// <summary>Under this name a request keeps why its token did not sign in.</summary>
    public static readonly object Refused = new();

    protected override async Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        var header = Request.Headers.Authorization.ToString();
        if (!header.StartsWith("Bearer ", StringComparison.OrdinalIgnoreCase)) return AuthenticateResult.NoResult();
        var (token, refusal) = await keys.FindTokenAsync(header["Bearer ".Length..].Trim(), Context.RequestAborted);
        if (token is not null)
            return AuthenticateResult.Success(
                new AuthenticationTicket(Principal(token.Person ?? token.Name, token.Role, SchemeName), SchemeName));
        Context.Items[Refused] = refusal;
        return AuthenticateResult.Fail(refusal!);
    }

    /// <summary>A signed-in person or client.</summary>
    public static ClaimsPrincipal Principal(string name, string role, string scheme) =>
        new(new ClaimsIdentity([new Claim(ClaimTypes.Name, name), new Claim(ClaimTypes.Role, role)], scheme));
}
