using JustRight.Core.Runs;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace JustRight.Service.Data.Storage;

/// <summary>The service's database: one SQLite file in the data folder.</summary>
public sealed class AppDb(DbContextOptions<AppDb> options) : DbContext(options)
{
    public DbSet<DocumentRow> Documents => Set<DocumentRow>();

    public DbSet<DocumentVersionRow> DocumentVersions => Set<DocumentVersionRow>();

    public DbSet<SummaryRow> Summaries => Set<SummaryRow>();

    public DbSet<EstateMarkRow> EstateMarks => Set<EstateMarkRow>();

    public DbSet<SettledNameRow> SettledNames => Set<SettledNameRow>();

    public DbSet<SurveyRow> Surveys => Set<SurveyRow>();

    public DbSet<PeopleRow> People => Set<PeopleRow>();

    public DbSet<DirectoryFileRow> DirectoryFiles => Set<DirectoryFileRow>();

    public DbSet<HostFactsRow> HostFacts => Set<HostFactsRow>();

    public DbSet<SchemaRow> Schemas => Set<SchemaRow>();

    public DbSet<JobRow> Jobs => Set<JobRow>();

    public DbSet<StepRow> Steps => Set<StepRow>();

    public DbSet<LogRow> Log => Set<LogRow>();

    public DbSet<LogHeadRow> LogHeads => Set<LogHeadRow>();

    public DbSet<TokenRow> Tokens => Set<TokenRow>();

    public DbSet<SessionRow> Sessions => Set<SessionRow>();

    public DbSet<CodeRow> Codes => Set<CodeRow>();

    public DbSet<SecretRow> Secrets => Set<SecretRow>();

    public DbSet<SecretAllowanceRow> SecretAllowances => Set<SecretAllowanceRow>();

    public DbSet<PasswordRow> Passwords => Set<PasswordRow>();

    public DbSet<ConfirmationRow> Confirmations => Set<ConfirmationRow>();

    public DbSet<RenewalRow> Renewals => Set<RenewalRow>();

    public DbSet<ToldPlaceRow> ToldPlaces => Set<ToldPlaceRow>();

    public DbSet<FitRow> Fits => Set<FitRow>();

    public DbSet<ReviewRow> Reviews => Set<ReviewRow>();

    public DbSet<ExceptionRow> Exceptions => Set<ExceptionRow>();

    public DbSet<NotificationRow> Notifications => Set<NotificationRow>();

    public DbSet<AdoptionRow> Adoptions => Set<AdoptionRow>();

    public DbSet<AdoptionAnswerRow> AdoptionAnswers => Set<AdoptionAnswerRow>();

    /// <summary>The way to a database whose connections are kept open and used again.</summary>
    public static void KeptIn(string file, DbContextOptionsBuilder db) =>
        db.UseSqlite($"Data Source={file}")
            .AddInterceptors(new OneOpensAtATime())
            // Whoever began the transaction is told by the exception, and knows whether its client just hung up.
            .ConfigureWarnings(w => w.Log((RelationalEventId.TransactionError, LogLevel.Debug)));

    /// <summary>Saves, and counts within the same transaction what of it the installs of an estate are judged by.</summary>
    public override async Task<int> SaveChangesAsync(
        bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        if (await Storage.EstateMarks.OfAsync(this, cancellationToken) is not { } marks)
            return await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        await using var own = Database.CurrentTransaction is null ? await Database.BeginTransactionAsync(cancellationToken)
            : null;
        var saved = await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        await marks.CountAsync(this, cancellationToken);
        if (own is not null) await own.CommitAsync(cancellationToken);
        return saved;
    }

    /// <summary>Not used: what is saved this way would not be counted.</summary>
    public override int SaveChanges(bool acceptAllChangesOnSuccess) =>
        throw new NotSupportedException($"Use {nameof(SaveChangesAsync)}.");

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<DocumentRow>().HasIndex(d => new { d.Kind, d.Name }).IsUnique();
        modelBuilder.Entity<DocumentVersionRow>().HasIndex(v => new { v.Kind, v.Name, v.Number }).IsUnique();
        modelBuilder.Entity<SummaryRow>().HasIndex(s => s.Install).IsUnique();
        modelBuilder.Entity<SummaryRow>().HasIndex(s => s.Estate);
        modelBuilder.Entity<SummaryRow>().HasIndex(s => s.HoldsUntil);
        modelBuilder.Entity<EstateMarkRow>().HasIndex(m => m.Estate).IsUnique();
        modelBuilder.Entity<SettledNameRow>().HasIndex(n => new { n.Install, n.Estate, n.Kind, n.Key }).IsUnique();
        modelBuilder.Entity<SurveyRow>().HasIndex(s => new { s.Estate, s.Id });
        modelBuilder.Entity<PeopleRow>().HasIndex(p => new { p.Estate, p.Directory }).IsUnique();
        modelBuilder.Entity<DirectoryFileRow>().HasIndex(f => f.Estate).IsUnique();
        modelBuilder.Entity<HostFactsRow>().HasIndex(f => new { f.Estate, f.Host }).IsUnique();
        modelBuilder.Entity<SchemaRow>().HasIndex(s => s.Version).IsUnique();
        modelBuilder.Entity<JobRow>().HasMany(j => j.Steps).WithOne().HasForeignKey(s => s.JobId);
        modelBuilder.Entity<JobRow>().HasIndex(j => new { j.Subject, j.Kind });
        modelBuilder.Entity<JobRow>().HasIndex(j => j.State);
        modelBuilder.Entity<StepRow>().HasIndex(s => new { s.JobId, s.Number }).IsUnique();
        modelBuilder.Entity<StepRow>().HasIndex(s => s.At);
        modelBuilder.Entity<LogRow>().HasKey(l => l.Number);
        modelBuilder.Entity<LogRow>().Property(l => l.Number).ValueGeneratedNever();
        modelBuilder.Entity<LogHeadRow>().HasIndex(h => h.Number);
        modelBuilder.Entity<TokenRow>().HasIndex(t => t.Hash).IsUnique();
        modelBuilder.Entity<SessionRow>().HasIndex(s => s.Hash).IsUnique();
        modelBuilder.Entity<CodeRow>().HasIndex(c => c.Hash).IsUnique();
        modelBuilder.Entity<SecretRow>().HasIndex(s => s.Name).IsUnique();
        modelBuilder.Entity<SecretAllowanceRow>().HasIndex(a => new { a.Subject, a.UseId }).IsUnique();
        modelBuilder.Entity<ConfirmationRow>().HasIndex(c => new { c.Install, c.GrantId });
        modelBuilder.Entity<FitRow>().HasIndex(f => new { f.Install, f.Number }).IsUnique();
        modelBuilder.Entity<FitRow>().HasIndex(f => f.SurveyId);
        modelBuilder.Entity<ReviewRow>().HasIndex(r => new { r.Install, r.Number }).IsUnique();
        modelBuilder.Entity<ExceptionRow>().HasIndex(e => new { e.Install, e.Target });
        modelBuilder.Entity<ExceptionRow>().Property(e => e.Verdict).HasConversion<string>();
        modelBuilder.Entity<AdoptionRow>().HasIndex(a => a.Name).IsUnique();
        modelBuilder.Entity<AdoptionAnswerRow>().HasIndex(a => new { a.Adoption, a.Item });
        modelBuilder.Entity<NotificationRow>().HasIndex(n => n.Key).IsUnique();
        modelBuilder.Entity<NotificationRow>().HasIndex(n => new { n.Estate, n.Id });
        modelBuilder.Entity<DeliveryRow>().HasIndex(d => d.State);
        modelBuilder.Entity<NotificationRow>().HasMany(n => n.Deliveries).WithOne().HasForeignKey(d => d.NotificationId);
        modelBuilder.Entity<RenewalRow>().HasIndex(r => new { r.Estate, r.Account });
        modelBuilder.Entity<ToldPlaceRow>().HasIndex(p => new { p.Estate, p.Account });
        modelBuilder.Entity<PasswordRow>().HasIndex(p => p.Account).IsUnique();
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<DateTimeOffsetToStringConverter>();
        configurationBuilder.Properties<JobKind>().HaveConversion<ClosedWordConverter<JobKind>>();
        configurationBuilder.Properties<JobState>().HaveConversion<ClosedWordConverter<JobState>>();
        configurationBuilder.Properties<RunStepState>().HaveConversion<ClosedWordConverter<RunStepState>>();
        configurationBuilder.Properties<DeliveryState>().HaveConversion<ClosedWordConverter<DeliveryState>>();
        configurationBuilder.Properties<DeliveryChannel>().HaveConversion<ClosedWordConverter<DeliveryChannel>>();
        configurationBuilder.Properties<NamedKind>().HaveConversion<ClosedWordConverter<NamedKind>>();
    }
}
