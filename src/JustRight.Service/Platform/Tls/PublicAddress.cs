using JustRight.Service.Platform.Settings;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Platform.Tls;

/// <summary>
/// Where people reach the service, when that is not where it listens: behind a proxy that ends TLS. It decides the host of every
/// request, the origin that pages must come from, and links, so that no header of a request does.
/// </summary>
internal static class PublicAddress
{
    /// <summary>What is wrong with the settings, or null.</summary>
    public static string? Fault(ServiceSettings settings)
    {
        try
        {
            _ = settings.Tls.Networks();
        }
        catch (FormatException e)
        {
            return $"JustRight:Tls:Proxies: {e.Message}";
        }

        if (settings.PublicAddress is null || Of(settings) is not null) return null;
        return $"JustRight:PublicAddress: '{settings.PublicAddress}' is no address of a site. "
            + "Expected: such as https://justright.fennmoor.example, without a path.";
    }

    /// <summary>The address, or null when none is set.</summary>
    public static Uri? Of(ServiceSettings settings) =>
        Uri.TryCreate(settings.PublicAddress, UriKind.Absolute, out var address)
        && address.Scheme is "http" or "https" && address is { PathAndQuery: "/", Fragment: "", UserInfo: "" }
            ? address
            : null;

    /// <summary>The origin that pages of ours have [RFC 6454], or null when none is set: then that of the request.</summary>
    public static string? OriginOf(ServiceSettings settings) => Of(settings)?.GetLeftPart(UriPartial.Authority);

    /// <summary>
    /// Believes the forwarded headers of the proxies that are set, for the client's address and the scheme alone, over one hop;
    /// and gives each request the public host. The scheme stays what it was: a request over plain HTTP is none over TLS.
    /// </summary>
    public static void UsePublicAddress(this WebApplication app)
    {
        var settings = app.Services.GetRequiredService<IOptions<ServiceSettings>>().Value;
        if (settings.Tls.Proxies.Count > 0) app.UseForwardedHeaders(Forwarded(settings));
        if (Of(settings) is not { } address) return;
        var host = HostString.FromUriComponent(address);
        app.Use((http, next) =>
        {
            http.Request.Host = host;
            return next(http);
        });
    }

    private static ForwardedHeadersOptions Forwarded(ServiceSettings settings)
    {
        var options = new ForwardedHeadersOptions
        {
            ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto,
            ForwardLimit = 1,
        };
        options.KnownProxies.Clear();
        options.KnownIPNetworks.Clear();
        foreach (var network in settings.Tls.Networks()) options.KnownIPNetworks.Add(network);
        return options;
    }
}
