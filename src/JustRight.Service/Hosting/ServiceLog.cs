using System.Globalization;
using JustRight.Service.Platform.Settings;
using Serilog;
using Serilog.Core;
using Serilog.Events;
using Serilog.Formatting.Compact;
using Serilog.Formatting.Display;

namespace JustRight.Service.Hosting;

/// <summary>What the service writes of its own work: all of it into files, warnings also where it prints.</summary>
internal static class ServiceLog
{
    private const int HostedServiceStartupFaulted = 11; // the event's id in Microsoft.Extensions.Hosting
    private const string Printed = "[{Timestamp:HH:mm:ss} {Level:u3}] {Message:lj}{NewLine}{Exception}";

    /// <summary>Adds the log.</summary>
    public static void Add(WebApplicationBuilder builder, ServiceSettings settings, TextWriter output) =>
        builder.Host.UseSerilog(
            (_, log) => log
                .MinimumLevel.Information()
                .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
                // the keys lie in a folder of ours alone; docs/security.md
                .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error)
                // a step of an upgrade that cannot be part of a transaction is no news to whoever starts the service
                .MinimumLevel.Override("Microsoft.EntityFrameworkCore.Migrations", LogEventLevel.Error)
                .MinimumLevel.Override("System", LogEventLevel.Warning)
                .WriteTo.Logger(printed => printed
                    .Filter.ByExcluding(IsStartFault)
                    .WriteTo.Sink(new PrintedLines(output), LogEventLevel.Warning))
                .WriteTo.File(
                    new CompactJsonFormatter(), Path.Combine(settings.Data, "logs", "service-.jsonl"),
                    rollingInterval: RollingInterval.Day, retainedFileCountLimit: 30),
            preserveStaticLogger: true);

    /// <summary>Logs each request: method, path, status and time; never a query, a header or a body.</summary>
    public static void UseRequestLog(this WebApplication app) => app.UseSerilogRequestLogging(options =>
    {
        options.Logger = app.Services.GetRequiredService<Serilog.ILogger>();
        options.GetLevel = (http, _, error) =>
            http.RequestAborted.IsCancellationRequested ? LogEventLevel.Debug // the client hung up
            : error is BadHttpRequestException ? LogEventLevel.Information // half a body, or one that is told to be wrong
            : error is not null || http.Response.StatusCode >= 500 ? LogEventLevel.Error
            : http.Request.Path.StartsWithSegments("/api") ? LogEventLevel.Information
            : LogEventLevel.Debug;
    });

    /// <summary>The host's dump of what kept it from starting: we say that in one sentence; the log file has it whole.</summary>
    private static bool IsStartFault(LogEvent entry) =>
        entry.Properties.GetValueOrDefault("EventId") is StructureValue id
        && id.Properties.Any(p => p is { Name: "Id", Value: ScalarValue { Value: HostedServiceStartupFaulted } });

    /// <summary>Prints what is logged, one event after the other.</summary>
    private sealed class PrintedLines(TextWriter output) : ILogEventSink
    {
        private static readonly MessageTemplateTextFormatter Form = new(Printed, CultureInfo.InvariantCulture);
        private readonly Lock _lock = new();

        public void Emit(LogEvent logEvent)
        {
            lock (_lock) Form.Format(logEvent, output);
        }
    }
}
