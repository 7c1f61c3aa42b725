using System.Security.Cryptography;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.Net.Http.Headers;

namespace JustRight.Service.Hosting;

/// <summary>
/// Answers to reads carry an ETag [RFC 9110 8.8.3], so that whoever asks again and again for what has not changed is told just
/// that: 304, without the answer. It is weak, since the same answer may come compressed or not.
/// </summary>
internal static class EntityTags
{
    private const int Bytes = 16;

    /// <summary>Adds the tags; after routing, for only answers in JSON carry one.</summary>
    public static void UseEntityTags(this IApplicationBuilder app) =>
        app.Use(async (http, next) => await (IsTagged(http) ? TagAsync(http, next) : next(http)));

    private static bool IsTagged(HttpContext http) => HttpMethods.IsGet(http.Request.Method)
        && http.GetEndpoint()?.Metadata.GetOrderedMetadata<IProducesResponseTypeMetadata>().Any(m =>
            m.StatusCode == StatusCodes.Status200OK && m.ContentTypes.Contains("application/json")) == true;

    private static async Task TagAsync(HttpContext http, RequestDelegate next)
    {
        var (body, answer) = (http.Response.Body, new MemoryStream());
        await using var held = answer;
        http.Response.Body = answer;
        try
        {
            await next(http);
        }
        finally
        {
            http.Response.Body = body;
        }

        if (http.Response.StatusCode == StatusCodes.Status200OK)
        {
            answer.Position = 0;
            var hash = await SHA256.HashDataAsync(answer, http.RequestAborted);
            var tag = new EntityTagHeaderValue($"\"{Convert.ToHexStringLower(hash.AsSpan(0, Bytes))}\"", isWeak: true);
            http.Response.GetTypedHeaders().ETag = tag;
            if (http.Request.GetTypedHeaders().IfNoneMatch.Any(known => known.Compare(tag, useStrongComparison: false)))
            {
                http.Response.StatusCode = StatusCodes.Status304NotModified;
                http.Response.ContentLength = null;
                http.Response.Headers.ContentType = default;
                return;
            }
        }

        answer.Position = 0;
        await answer.CopyToAsync(body, http.RequestAborted);
    }
}
