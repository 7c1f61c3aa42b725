using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Settings;
using JustRight.Service.Platform.Tls;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Hosting;

/// <summary>
/// Headers that keep pages to themselves, and a check that requests which change something come from our own pages: a browser
/// names the page's origin, and a client sends none.
/// </summary>
internal sealed class PageGuard(RequestDelegate next, IOptions<ServiceSettings> settings)
{
    private readonly string? _public = PublicAddress.OriginOf(settings.Value);

    private const string Policy =
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'";

    public async Task InvokeAsync(HttpContext http)
    {
        var headers = http.Response.Headers;
        headers.ContentSecurityPolicy = Policy;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        if (http.Request.Path.StartsWithSegments("/api")) headers.CacheControl = "no-store";
        var origin = http.Request.Headers.Origin.ToString();
        if (!HttpMethods.IsGet(http.Request.Method) && origin.Length > 0
            && origin != (_public ?? $"{http.Request.Scheme}://{http.Request.Host}"))
        {
            await Problems.Of(403, "origin", "This request comes from another site's page.").ExecuteAsync(http);
            return;
        }

        await next(http);
    }
}
