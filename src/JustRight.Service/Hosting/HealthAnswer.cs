using System.Text.Json.Nodes;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace JustRight.Service.Hosting;

/// <summary>What <c>/health</c> answers: the state of the whole, and of each part with what there is to know of it.</summary>
internal static class HealthAnswer
{
    /// <summary>Writes it as JSON.</summary>
    public static Task WriteAsync(HttpContext http, HealthReport report)
    {
        http.Response.ContentType = "application/json";
        var parts = new JsonObject();
        foreach (var (name, part) in report.Entries)
            parts[name] = new JsonObject { ["status"] = part.Status.ToString(), ["says"] = part.Description };
        return http.Response.WriteAsync(
            new JsonObject { ["status"] = report.Status.ToString(), ["parts"] = parts }.ToJsonString());
    }
}
