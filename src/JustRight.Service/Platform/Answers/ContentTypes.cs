using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.Net.Http.Headers;

namespace JustRight.Service.Platform.Answers;

/// <summary>
/// Judges the content type of a request after its sender: who may not call learns nothing of what would be accepted. Left to
/// itself routing judges it first.
/// </summary>
internal static class ContentTypes
{
    private static readonly object Sent = new();

    /// <summary>Before routing: hides the content type from it.</summary>
    public static void UseContentTypesLater(this IApplicationBuilder app) => app.Use((http, next) =>
    {
        http.Items[Sent] = http.Request.ContentType;
        http.Request.ContentType = null;
        return next(http);
    });

    /// <summary>After authorization: shows it again, and refuses one that the call does not accept.</summary>
    public static void UseContentTypesNow(this IApplicationBuilder app) => app.Use((http, next) =>
    {
        var sent = http.Items[Sent] as string;
        http.Request.ContentType = sent;
        if (http.GetEndpoint()?.Metadata.GetMetadata<IAcceptsMetadata>() is not { } accepts
            || IsAccepted(accepts, sent))
            return next(http);
        http.Response.StatusCode = StatusCodes.Status415UnsupportedMediaType;
        return Task.CompletedTask;
    });

    private static bool IsAccepted(IAcceptsMetadata accepts, string? sent)
    {
        if (string.IsNullOrEmpty(sent)) return accepts.IsOptional; // a body that must be there is of some type
        return MediaTypeHeaderValue.TryParse(sent, out var type)
            && accepts.ContentTypes.Any(c => MediaTypeHeaderValue.TryParse(c, out var wanted) && type.IsSubsetOf(wanted));
    }
}
