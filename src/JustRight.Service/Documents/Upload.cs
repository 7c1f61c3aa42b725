using System.Text;

namespace JustRight.Service.Documents;

/// <summary>A file as it was sent: its bytes, and the name to use in positions.</summary>
internal static class Upload
{
    /// <summary>Reads the body whole; the request size limit bounds it.</summary>
    public static async Task<byte[]> ReadAsync(HttpRequest request, CancellationToken cancel)
    {
        using var body = new MemoryStream();
        await request.Body.CopyToAsync(body, cancel);
        return body.ToArray();
    }

    /// <summary>The last part of the name the client gave, or a default. It is only ever shown, never opened.</summary>
    public static string Name(string? file, string otherwise)
    {
        var name = file?.Split('/', '\\')[^1];
        return string.IsNullOrWhiteSpace(name) || name.Length > 120 || name.Any(char.IsControl) ? otherwise : name;
    }

    /// <summary>The text of bytes that were read as UTF-8 before.</summary>
    public static string Text(byte[] bytes) => new UTF8Encoding(false).GetString(bytes.AsSpan().StartsWith(Encoding.UTF8.Preamble) ? bytes.AsSpan(3) : bytes);
}
