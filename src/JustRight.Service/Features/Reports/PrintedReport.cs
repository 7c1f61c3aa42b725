using System.Text;
using Microsoft.AspNetCore.Components;
using Microsoft.AspNetCore.Components.Web;

namespace JustRight.Service.Features.Reports;

/// <summary>The review sheet as a page of HTML that prints on its own: it fetches nothing and runs nothing.</summary>
internal static class PrintedReport
{
    /// <summary>Writes it.</summary>
    public static async Task<byte[]> WriteAsync(InstallReport report, IServiceProvider parts, ILoggerFactory loggers)
    {
        await using var renderer = new HtmlRenderer(parts, loggers);
        var page = await renderer.Dispatcher.InvokeAsync(async () =>
            (await renderer.RenderComponentAsync<ReviewSheet>(
                ParameterView.FromDictionary(new Dictionary<string, object?> { [nameof(ReviewSheet.Report)] = report })))
                .ToHtmlString());
        return Encoding.UTF8.GetBytes($"<!DOCTYPE html>\n{page}\n");
    }
}
