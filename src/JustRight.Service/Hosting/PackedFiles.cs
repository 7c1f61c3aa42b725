using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;
using Microsoft.Net.Http.Headers;

namespace JustRight.Service.Hosting;

/// <summary>
/// The console's build puts beside each of its files the same packed as small as can be. Who takes it so is sent that one: on a
/// slow line it is a fifth less than what is packed while it is sent.
/// </summary>
internal static class PackedFiles
{
    /// <summary>Content codings [RFC 9110, section 8.4.1], the smallest first, with what such a file ends with.</summary>
    private static readonly (string Coding, string Ending)[] Packings = [("br", ".br"), ("gzip", ".gz")];

    private static readonly FileExtensionContentTypeProvider Types = new();

    /// <summary>Asks for the packed file instead, where there is one that the browser takes.</summary>
    public static void Choose(HttpRequest request, IFileProvider files)
    {
        if (request.Path.Value is not { Length: > 1 } path) return;
        foreach (var (coding, ending) in Packings)
        {
            if (!Takes(request, coding) || !files.GetFileInfo(path + ending).Exists) continue;
            request.Path = path + ending;
            return;
        }
    }

    /// <summary>Says what is sent: the file itself, packed.</summary>
    public static void Say(StaticFileResponseContext file)
    {
        var name = file.File.Name;
        foreach (var (coding, ending) in Packings)
        {
            if (!name.EndsWith(ending, StringComparison.Ordinal)) continue;
            file.Context.Response.Headers.ContentEncoding = coding;
            file.Context.Response.ContentType = Types.TryGetContentType(name[..^ending.Length], out var type) ? type : null;
        }

        file.Context.Response.Headers.Append(HeaderNames.Vary, HeaderNames.AcceptEncoding);
    }

    private static bool Takes(HttpRequest request, string coding) =>
        request.GetTypedHeaders().AcceptEncoding
            .Any(v => v.Value.Equals(coding, StringComparison.OrdinalIgnoreCase) && v.Quality is not 0);
}
