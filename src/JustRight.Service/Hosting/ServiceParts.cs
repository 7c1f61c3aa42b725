using System.Net;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using JustRight.Connectors.Outbound;
using JustRight.Contracts;
using JustRight.Service.Data.Adoptions;
using JustRight.Service.Data.Calendar;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Evidence;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Passwords;
using JustRight.Service.Data.Reviews;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Summaries;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Features.Access;
using JustRight.Service.Features.Adoptions;
using JustRight.Service.Features.Anchors;
using JustRight.Service.Features.Backups;
using JustRight.Service.Features.Estates;
using JustRight.Service.Features.Finding;
using JustRight.Service.Features.Installs;
using JustRight.Service.Features.Passwords;
using JustRight.Service.Features.Reports;
using JustRight.Service.Features.Secrets;
using JustRight.Service.Features.SignIns;
using JustRight.Service.Features.Traces;
using JustRight.Service.Features.Undo;
using JustRight.Service.Jobs.Notifications;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Jobs.Renewals;
using JustRight.Service.Jobs.Runs;
using JustRight.Service.Jobs.Schedules;
using JustRight.Service.Jobs.Surveys;
using JustRight.Service.Jobs.Traces;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Faults;
using JustRight.Service.Platform.Keys;
using JustRight.Service.Platform.Settings;
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
        services.AddSingleton<KnownFinds>();
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
