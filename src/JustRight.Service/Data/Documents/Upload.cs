using System.Text;
using System.Text.Json;
using JustRight.Contracts;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;
using Microsoft.Net.Http.Headers;

namespace JustRight.Service.Data.Documents;

/// <summary>A file as it was sent: the body itself, or <see cref="DocumentOrder"/> as JSON.</summary>
/// <param name="File">The name to use in positions. It is only ever shown, never opened.</param>
/// <param name="Bytes">What stands in it.</param>
internal sealed record Upload(string File, byte[] Bytes)
{
    private const int MostCharacters = 120;

    /// <summary>The text of bytes that were read as UTF-8 before.</summary>
    public string Text => new UTF8Encoding(false).GetString(
        Bytes.AsSpan().StartsWith(Encoding.UTF8.Preamble) ? Bytes.AsSpan(Encoding.UTF8.Preamble.Length) : Bytes);

    /// <summary>Reads the body whole; the request size limit bounds it.</summary>
    /// <param name="file">The name that the query gives.</param>
    /// <param name="otherwise">The name of one that has none, or none that can be shown.</param>
    /// <exception cref="BadHttpRequestException">It says that it is JSON and is not.</exception>
    public static async Task<Upload> ReadAsync(HttpRequest request, string? file, string otherwise, CancellationToken cancel)
    {
        using var body = new MemoryStream();
        await request.Body.CopyToAsync(body, cancel);
        var bytes = body.ToArray();
        if (!IsJson(request)) return new Upload(Name(file, otherwise), bytes);
        try
        {
            var options = request.HttpContext.RequestServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
            var order = JsonSerializer.Deserialize<DocumentOrder>(bytes, options)
                ?? throw new JsonException("It is null.", "$", 0, 0);
            return new Upload(Name(order.File ?? file, otherwise), Encoding.UTF8.GetBytes(order.Text));
        }
        catch (JsonException e)
        {
            throw new BadHttpRequestException(e.Message, StatusCodes.Status400BadRequest, e);
        }
    }

    /// <summary>The last part of a name that somebody gave, or a default.</summary>
    public static string Name(string? file, string otherwise)
    {
        var name = file?.Split('/', '\\')[^1];
        return string.IsNullOrWhiteSpace(name) || name.Length > MostCharacters || name.Any(char.IsControl) ? otherwise : name;
    }

    private static bool IsJson(HttpRequest request) =>
        MediaTypeHeaderValue.TryParse(request.ContentType, out var type)
        && type.MediaType.Equals("application/json", StringComparison.OrdinalIgnoreCase);
}
