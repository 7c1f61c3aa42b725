using System.Text.Json;
using System.Threading.RateLimiting;
using JustRight.Core.Faults;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Storage.Upgrades;
using JustRight.Service.Data.Summaries;
using JustRight.Service.Features.Access;
using JustRight.Service.Features.Adoptions;
using JustRight.Service.Features.Anchors;
using JustRight.Service.Features.Backups;
using JustRight.Service.Features.Calendar;
using JustRight.Service.Features.Confirmations;
using JustRight.Service.Features.Documents;
using JustRight.Service.Features.Drafts;
using JustRight.Service.Features.Estates;
using JustRight.Service.Features.Finding;
using JustRight.Service.Features.Fits;
using JustRight.Service.Features.Handovers;
using JustRight.Service.Features.Installs;
using JustRight.Service.Features.JobProgress;
using JustRight.Service.Features.Log;
using JustRight.Service.Features.Notifications;
using JustRight.Service.Features.Passwords;
using JustRight.Service.Features.Proposals;
using JustRight.Service.Features.Rehearsals;
using JustRight.Service.Features.Reports;
using JustRight.Service.Features.Reviews;
using JustRight.Service.Features.Runs;
using JustRight.Service.Features.Schedules;
using JustRight.Service.Features.Secrets;
using JustRight.Service.Features.SignIns;
using JustRight.Service.Features.Surveys;
using JustRight.Service.Features.Traces;
using JustRight.Service.Features.Undo;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Faults;
using JustRight.Service.Platform.Keys;
using JustRight.Service.Platform.Settings;
using JustRight.Service.Platform.Tls;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using OpenTelemetry.Metrics;

namespace JustRight.Service.Hosting;

/// <summary>Puts the service together and runs it.</summary>
public static class ServiceHost
{
    private const long MaxRequestBytes = 8_000_000; // above the largest file we read, so that its own message says what is wrong

    // Settings are read at the start alone. Without this the framework watches the whole folder that the service was started in,
    // with all below it: thousands of watches, and seconds of a start, where somebody starts it from a home folder.
    private const string SettingsReadOnce = "--hostBuilder:reloadConfigOnChange=false";
    private const string DefaultAddress = "http://127.0.0.1:5820";

    /// <summary>Runs until it is told to stop; returns the exit code.</summary>
    public static async Task<int> RunAsync(string[] args, Surroundings surroundings)
    {
        try
        {
            await using var app = Build(args, surroundings);
            var settings = app.Services.GetRequiredService<IOptions<ServiceSettings>>().Value;
            using var folder = DataFolderLock.Take(settings.Data);
            await PrepareAsync(app);
            await app.StartAsync();
            await PrintSignInLinksAsync(app, surroundings.Output);
            await app.WaitForShutdownAsync(surroundings.Stop);
            await CloseDatabaseAsync(app);
            return 0;
        }
        catch (Exception e) when (StartFault.Of(e) is { } fault)
        {
            await surroundings.Error.WriteLineAsync(fault.Message);
            return fault.Code;
        }
    }

    /// <summary>Builds the application without starting it.</summary>
    public static WebApplication Build(string[] args, Surroundings surroundings)
    {
        var builder = WebApplication.CreateBuilder([.. args, SettingsReadOnce]);
        builder.Services.Configure<ServiceSettings>(builder.Configuration.GetSection("JustRight"));
        var settings = SettingsCheck.Read(builder.Configuration, Roles.All);
        if (PublicAddress.Fault(settings) is { } fault) throw new StartFault(StartFault.Setting, fault);
        MakeFolder(settings.Data);
        if (string.IsNullOrEmpty(builder.Configuration["urls"])) builder.WebHost.UseUrls(DefaultAddress);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.AddServerHeader = false;
            kestrel.Limits.MaxRequestBodySize = MaxRequestBytes;
            var log = kestrel.ApplicationServices.GetRequiredService<ILogger<ServerCertificate>>();
            ServerCertificate.Use(kestrel, settings.Tls, log);
        });
        ServiceLog.Add(builder, settings, surroundings.Output);
        builder.Services.AddSingleton(surroundings.Time);
        ServiceParts.Add(builder.Services, settings);
        AddAccess(builder.Services);
        ReadsCompressed.Add(builder.Services);
        builder.Services.AddOpenApi(ApiDescription.Describe);
        builder.Services.AddHealthChecks().AddCheck<DatabaseHealth>("database").AddCheck<FolderHealth>("folder")
            .AddCheck<KeysHealth>("keys");
        builder.Services.AddOpenTelemetry()
            .WithMetrics(metrics => metrics.AddAspNetCoreInstrumentation().AddMeter("System.Runtime").AddPrometheusExporter());

        var app = builder.Build();
        app.UsePublicAddress();
        app.UseExceptionHandler(new ExceptionHandlerOptions
        {
            ExceptionHandler = WriteProblemAsync,
            SuppressDiagnosticsCallback = error => error.Exception is BadHttpRequestException, // the request log has it
        });
        app.UseStatusCodePages(WriteStatusAsync);
        app.UseRequestLog();
        app.UseResponseCompression();
        app.UseMiddleware<PageGuard>();
        app.UseConsole(settings);
        // Before anything that asks who somebody is: that asks the database.
        app.UseHealthChecks(
            "/health/live", new HealthCheckOptions { Predicate = _ => false, ResponseWriter = HealthAnswer.WriteAsync });
        app.UseHealthChecks("/health", new HealthCheckOptions { ResponseWriter = HealthAnswer.WriteAsync });
        app.UseContentTypesLater();
        app.UseRouting();
        app.UseRateLimiter();
        app.UseAuthentication();
        app.UseAuthorization();
        app.UseContentTypesNow();
        app.UseEntityTags();
        var api = app.MapGroup("/api");
        api.MapAccess();
        api.MapSessions();
        api.MapVersions();
        api.MapRemovals();
        api.MapReplacing();
        api.MapUpgrades();
        api.MapRehearsals();
        api.MapSheets();
        api.MapDrafts();
        api.MapEstates();
        api.MapInstalls();
        api.MapInstallList();
        api.MapEstateLists();
        api.MapFind();
        api.MapFits();
        api.MapJobs();
        api.MapTraces();
        api.MapAccessAnswers();
        api.MapUndo();
        api.MapRuns();
        api.MapGrants();
        api.MapSurveys();
        api.MapReplicas();
        api.MapDirectoryFiles();
        api.MapHostFacts();
        api.MapConfirmations();
        api.MapHosts();
        api.MapInstances();
        api.MapPolicies();
        api.MapHandovers();
        api.MapProtection();
        api.MapSignIns();
        api.MapFilters();
        api.MapHistory();
        api.MapProposals();
        api.MapReviews();
        api.MapAdoptions();
        api.MapReports();
        api.MapCalendar();
        api.MapNotifications();
        api.MapSchedule();
        api.MapPasswords();
        api.MapRenewals();
        api.MapLog();
        api.MapAnchors();
        api.MapSecrets();
        api.MapSecretUses();
        api.MapBackups();
        app.MapOpenApi().AllowAnonymous();
        app.MapPrometheusScrapingEndpoint("/metrics").AllowAnonymous();
        return app;
    }

    private static void MakeFolder(string folder)
    {
        try
        {
            Directory.CreateDirectory(folder);
            if (!OperatingSystem.IsWindows())
                File.SetUnixFileMode(folder, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException && !StartFault.IsFull(e))
        {
            throw StartFault.Unwritable(e.Message);
        }
    }

    private static void AddAccess(IServiceCollection services)
    {
        services.AddAuthentication("Either")
            .AddPolicyScheme("Either", null, options => options.ForwardDefaultSelector = http =>
                http.Request.Headers.Authorization.Count > 0
                    ? TokenHandler.SchemeName
                    : CookieAuthenticationDefaults.AuthenticationScheme)
            .AddScheme<AuthenticationSchemeOptions, TokenHandler>(TokenHandler.SchemeName, null)
            .AddCookie(options =>
            {
                options.Cookie.Name = "justright";
                options.Cookie.HttpOnly = true;
                options.Cookie.SameSite = SameSiteMode.Strict;
                options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                options.ExpireTimeSpan = Sessions.Longest;
                options.SlidingExpiration = false;
                options.Events.OnValidatePrincipal = context =>
                    context.HttpContext.RequestServices.GetRequiredService<DirectoryGate>().AskAgainAsync(context);
                options.Events.OnRedirectToLogin = context => SetStatus(context.Response, 401);
                options.Events.OnRedirectToAccessDenied = context => SetStatus(context.Response, 403);
            });
        services.AddOptions<CookieAuthenticationOptions>(CookieAuthenticationDefaults.AuthenticationScheme)
            .Configure<Sessions>((options, sessions) => options.SessionStore = sessions)
            .Configure<IOptions<ServiceSettings>>((options, settings) =>
            {
                if (PublicAddress.Of(settings.Value) is { Scheme: "https" })
                    options.Cookie.SecurePolicy = CookieSecurePolicy.Always;
            });
        services.AddAuthorization(Roles.AddPolicies);
        services.AddRateLimiter(limits =>
        {
            limits.RejectionStatusCode = 429;
            limits.AddPolicy(AccessEndpoints.SignInLimit, http => RateLimitPartition.GetFixedWindowLimiter(
                http.Connection.RemoteIpAddress?.ToString() ?? "", _ => new FixedWindowRateLimiterOptions
                {
                    PermitLimit = 10,
                    Window = TimeSpan.FromMinutes(1),
                }));
        });
    }

    private static async Task PrepareAsync(WebApplication app)
    {
        await using var db = await app.Services.GetRequiredService<IDbContextFactory<AppDb>>().CreateDbContextAsync();
        await KnownReleases.CheckAsync(db, CancellationToken.None);

        // Migrating compares the whole model with the last migration's, also when nothing is to be done: a second of each start.
        if ((await db.Database.GetPendingMigrationsAsync()).Any()) await db.Database.MigrateAsync();
        await StoredUpgrades.ApplyAsync(db, CancellationToken.None);
        await EstateMarks.CountAllAsync(db, CancellationToken.None); // this program may judge otherwise than the last
        var settings = app.Services.GetRequiredService<IOptions<ServiceSettings>>().Value;
        TradeWords.ApplyToSimulation(settings.Data);
        BackupMaker.Clear(settings.Data);
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;");
        await app.Services.GetRequiredService<SecretCheck>().RunAsync(CancellationToken.None);
    }

    /// <summary>Closes the connections that are kept open: what is still in the write-ahead log goes into the one file.</summary>
    private static async Task CloseDatabaseAsync(WebApplication app)
    {
        await using var db = await app.Services.GetRequiredService<IDbContextFactory<AppDb>>().CreateDbContextAsync();
        SqliteConnection.ClearPool((SqliteConnection)db.Database.GetDbConnection());
    }

    private static async Task PrintSignInLinksAsync(WebApplication app, TextWriter output)
    {
        var settings = app.Services.GetRequiredService<IOptions<ServiceSettings>>().Value;
        await output.WriteLineAsync($"Just Right listens on {app.Urls.First()}");
        var address = PublicAddress.OriginOf(settings) ?? app.Urls.First();
        await using var db = await app.Services.GetRequiredService<IDbContextFactory<AppDb>>().CreateDbContextAsync();
        var first = !await db.Log.AnyAsync();
        var keys = app.Services.GetRequiredService<AccessKeys>();
        // In the fragment, which a browser never sends: the code reaches no log and no history of a proxy.
        for (var i = 0; i < Math.Clamp(settings.SignInLinks, first ? 1 : 0, 5); i++)
            await output.WriteLineAsync(
                $"One-time sign-in link, valid for an hour: {address}/enter#{await keys.NewCodeAsync(CancellationToken.None)}");
    }

    private static async Task WriteProblemAsync(HttpContext http)
    {
        var problem = http.Features.Get<IExceptionHandlerFeature>()?.Error switch
        {
            FaultException e => Problems.Of(e.Faults),
            BadHttpRequestException e =>
                Problems.Of(
                    e.StatusCode, "bad-request",
                    e.InnerException is JsonException json ? $"The body is not the expected JSON, at {json.Path}." : e.Message),
            { } e when http.RequestServices.GetRequiredService<StorageFault>().Of(e) is { } fault => fault.Code == StartFault.Disk
                ? Problems.Of(
                    507, "disk-full", "The disk of the data folder is full: nothing was changed.",
                    "Make room; work goes on then.")
                : Problems.Of(503, "storage", fault.Message),
            Connectors.ConnectorException e => Problems.Of(502, "estate", e.Message),
            _ => Problems.Of(500, "unexpected", "Something unexpected went wrong.", "The service's log has the details."),
        };
        await problem.ExecuteAsync(http);
    }

    private static async Task WriteStatusAsync(StatusCodeContext context)
    {
        var problem = context.HttpContext.Response.StatusCode switch
        {
            401 when context.HttpContext.Items[TokenHandler.Refused] is string refusal =>
                Problems.Of(401, "token", refusal, "An owner makes a new one: justright token make NAME --role ROLE"),
            401 => Problems.Of(401, "sign-in", "Sign in first.", "Open a sign-in link, or send a token."),
            403 => Problems.Of(403, "role", Roles.Refusal(context.HttpContext)),
            404 => Problems.Of(404, "not-found", "There is nothing here."),
            415 => Problems.Of(
                415, "content-type", "This content type is not supported.",
                "Send files as application/yaml, everything else as application/json."),
            429 => Problems.Of(429, "too-often", "Too many attempts. Wait a minute."),
            var status => Problems.Of(status, "http", $"The request was answered with status {status}."),
        };
        await problem.ExecuteAsync(context.HttpContext);
    }

    private static Task SetStatus(HttpResponse response, int status)
    {
        response.StatusCode = status;
        return Task.CompletedTask;
    }
}
