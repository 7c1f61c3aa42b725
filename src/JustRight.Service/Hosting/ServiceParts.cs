using System.Net;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using JustRight.Connectors.Outbound;
using JustRight.Contracts;
using JustRight.Service.Access;
using JustRight.Service.Adoptions;
using JustRight.Service.Anchors;
using JustRight.Service.Answers;
using JustRight.Service.Backups;
using JustRight.Service.Calendar;
using JustRight.Service.Documents;
using JustRight.Service.Estates;
using JustRight.Service.Faults;
using JustRight.Service.Finding;
using JustRight.Service.Fits;
using JustRight.Service.Jobs;
using JustRight.Service.Keys;
using JustRight.Service.Log;
using JustRight.Service.Notifications;
using JustRight.Service.Passwords;
using JustRight.Service.Proposals;
using JustRight.Service.Reports;
using JustRight.Service.Reviews;
using JustRight.Service.Runs;
using JustRight.Service.Schedules;
using JustRight.Service.Secrets;
using JustRight.Service.SecretUses;
using JustRight.Service.Settings;
using JustRight.Service.SignIns;
using JustRight.Service.Storage;
using JustRight.Service.Summaries;
using JustRight.Service.Surveys;
using JustRight.Service.Traces;
using JustRight.Service.Undo;
using Quartz;

namespace JustRight.Service.Hosting;

/// <summary>What the service is made of, each part once.</summary>
internal static class ServiceParts
{
    /// <summary>Adds them.</summary>
    public static void Add(IServiceCollection services, ServiceSettings settings)
    {
        services.AddPooledDbContextFactory<AppDb>(db => AppDb.KeptIn(settings.DatabaseFile, db));
        services.AddKeyRing(settings.Data, settings.Keys);
        services.AddSingleton<StorageFault>();
        services.AddSingleton<SecretCheck>();
        services.AddSingleton<LogStore>();
        services.AddSingleton<AccessKeys>();
        services.AddSingleton<Sessions>();
        services.AddSingleton<DirectoryGate>();
        services.AddSingleton<SecretStore>();
        services.AddSingleton(new OutboundRules(settings.Outbound.Allow, Dns.GetHostAddressesAsync));
        services.AddSingleton<OutboundHandler>();
        services.AddSingleton<RefusedUses>();
        services.AddSingleton<SecretGate>();
        services.AddSingleton<SecretAllowances>();
        services.AddSingleton<AskedUses>();
        services.AddSingleton<SecretList>();
        services.AddSingleton<Library>();
        services.AddSingleton<SurveyStore>();
        services.AddSingleton<EstatePlanner>();
        services.AddSingleton<FitService>();
        services.AddSingleton<JudgedOrNot>();
        services.AddSingleton<FitHistory>();
        services.AddSingleton<SummaryMaker>();
        services.AddSingleton<SummaryKeeper>();
        services.AddSingleton<KnownPages>();
        services.AddSingleton<InstallList>();
        services.AddSingleton<EstateContents>();
        services.AddSingleton<KnownHolders>();
        services.AddSingleton<LogPages>();
        services.AddSingleton<Everything>();
        services.AddSingleton<ExceptionStore>();
        services.AddSingleton<ReviewStore>();
        services.AddSingleton<AdoptionStore>();
        services.AddSingleton<AdoptionService>();
        services.AddSingleton<UnsaidHoldings>();
        services.AddSingleton<DirectoryFiles>();
        services.AddSingleton<HostFactsStore>();
        services.AddSingleton<ConfirmationStore>();
        services.AddSingleton<ConnectorStore>();
        services.AddSingleton<JobFeed>();
        services.AddSingleton<JobQueue>();
        services.AddSingleton<SurveyJob>();
        services.AddSingleton<CrashRehearsal>();
        services.AddSingleton<TraceQuestions>();
        services.AddSingleton<AccessQuestions>();
        services.AddSingleton<WholeAccesses>();
        services.AddSingleton<TraceJob>();
        services.AddSingleton<PeopleStore>();
        services.AddSingleton<SignInService>();
        services.AddSingleton<SignInTestPasswordStore>();
        services.AddSingleton<JobEstates>();
        services.AddSingleton<RunStore>();
        services.AddSingleton<ChangeWorks>();
        services.AddSingleton<IRunWorks>(parts => parts.GetRequiredService<ChangeWorks>());
        services.AddSingleton<IRunWorks, RenewalWorks>();
        services.AddSingleton<IRunWorks, UndoWorks>();
        services.AddSingleton<IJobHandler, RunJob>();
        services.AddSingleton<IJobHandler>(parts => parts.GetRequiredService<SurveyJob>());
        services.AddSingleton<IJobHandler>(parts => parts.GetRequiredService<TraceJob>());
        services.AddSingleton<IJobHandler, SignInTestJob>();
        services.AddSingleton<PlaceLocks>();
        services.AddSingleton<PasswordService>();
        services.AddSingleton<PasswordHandOver>();
        services.AddSingleton<RenewalStore>();
        services.AddSingleton<ProposalService>();
        services.AddSingleton<FolderHealth>();
        services.AddSingleton<SecondPerson>();
        services.AddSingleton<DocumentApprovals>();
        services.AddSingleton<UndoService>();
        services.AddSingleton<ReportService>();
        services.AddSingleton<EvidenceKey>();
        services.AddSingleton<EvidenceFile>();
        services.AddSingleton<CalendarService>();
        services.AddSingleton<MailCarrier>();
        services.AddHttpClient<WebhookCarrier>()
            .ConfigurePrimaryHttpMessageHandler(parts => parts.GetRequiredService<OutboundHandler>().Make());
        services.AddSingleton<Delivery>();
        services.AddSingleton<NotificationService>();
        services.AddSingleton<DriftKeeper>();
        services.AddSingleton<OwnWork>();
        services.AddSingleton<ScheduledSurveys>();
        services.AddQuartz();
        services.AddQuartzHostedService(quartz => quartz.WaitForJobsToComplete = false);
        services.AddSingleton<SchedulePlan>();
        services.AddSingleton<LogHeads>();
        services.AddSingleton<BackupMaker>();
        // the first to start is the last to stop: it signs what the others log at their end
        services.AddHostedService<LogSigner>();
        services.AddHostedService(parts => parts.GetRequiredService<SchedulePlan>());
        services.AddHostedService(parts => parts.GetRequiredService<Delivery>());
        services.AddHostedService<WindowClock>();
        services.AddHostedService(parts => parts.GetRequiredService<SummaryKeeper>());
        services.AddHostedService<JobRunner>();
        services.ConfigureHttpJsonOptions(json =>
        {
            json.SerializerOptions.TypeInfoResolverChain.Insert(0, ContractsJson.Default.WithAddedModifier(RequiredFields.Mark));
            json.SerializerOptions.RespectNullableAnnotations = true;
            json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
        });
        // so that the problem can say what is wrong
        services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
        services.AddProblemDetails();
    }
}
