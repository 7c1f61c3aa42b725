using Microsoft.AspNetCore.ResponseCompression;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Hosting;

/// <summary>
/// Answers to reads are compressed for whoever takes them so, also over TLS. That tells nobody who listens a secret by its
/// length:
/// what is handed over is asked for by POST, and nothing of another site reaches a signed-in page (its cookie is strict).
/// </summary>
internal sealed class ReadsCompressed(IServiceProvider services, IOptions<ResponseCompressionOptions> options)
    : ResponseCompressionProvider(services, options)
{
    /// <summary>Adds it.</summary>
    public static void Add(IServiceCollection services)
    {
        services.AddResponseCompression(compression => compression.EnableForHttps = true);
        services.AddSingleton<IResponseCompressionProvider, ReadsCompressed>();
    }

    /// <inheritdoc/>
    public override bool ShouldCompressResponse(HttpContext context) =>
        HttpMethods.IsGet(context.Request.Method) && context.Response.Headers.ContentEncoding.Count == 0
        && base.ShouldCompressResponse(context);
}
