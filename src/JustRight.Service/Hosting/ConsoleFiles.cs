using JustRight.Service.Platform.Settings;
using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;

namespace JustRight.Service.Hosting;

/// <summary>Serves the built console; any path that is no file and no API is the console's own to route.</summary>
internal static class ConsoleFiles
{
    private const string Packed = "application/octet-stream"; // what it is instead is said when it is sent

    private static readonly string[] NotPages = ["/api", "/openapi", "/health", "/metrics"];

    public static void UseConsole(this WebApplication app, ServiceSettings settings)
    {
        if (settings.Console is null || !File.Exists(Path.Combine(settings.Console, "index.html"))) return;
        var files = new PhysicalFileProvider(Path.GetFullPath(settings.Console));
        app.Use((http, next) =>
        {
            if (IsPage(http.Request, files)) http.Request.Path = "/index.html";
            if (IsAsked(http.Request)) PackedFiles.Choose(http.Request, files);
            return next(http);
        });
        app.UseStaticFiles(new StaticFileOptions
        {
            FileProvider = files,
            ContentTypeProvider = new FileExtensionContentTypeProvider { Mappings = { [".br"] = Packed, [".gz"] = Packed } },
            OnPrepareResponse = file =>
            {
                PackedFiles.Say(file);
                file.Context.Response.Headers.CacheControl = file.Context.Request.Path.StartsWithSegments("/assets")
                    ? "public, max-age=31536000, immutable"
                    : "no-cache";
            },
        });
    }

    private static bool IsAsked(HttpRequest request) =>
        (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method)) && !IsOfService(request.Path);

    private static bool IsOfService(PathString path) =>
        NotPages.Any(p => path.StartsWithSegments(p, StringComparison.Ordinal));

    /// <summary>
    /// Whether the console routes a path itself. Names have dots in them (<c>/sheets/thermograph@4.2</c>), so what looks like a
    /// file is a page where a browser goes to it and there is no such file.
    /// </summary>
    private static bool IsPage(HttpRequest request, PhysicalFileProvider files)
    {
        var path = request.Path;
        return HttpMethods.IsGet(request.Method) && !IsOfService(path)
            && (!Path.HasExtension(path.Value)
                || request.Headers.Accept.ToString().Contains("text/html", StringComparison.Ordinal)
                    && !path.StartsWithSegments("/assets") && !files.GetFileInfo(path.Value!).Exists);
    }
}
