using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Passwords;
using JustRight.Core.Replicas;
using JustRight.Core.Runs;
using JustRight.Core.Worklists.Undo;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Traces;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Undo;

/// <summary>
/// Brings together what undoing a job rests on: the latest survey, what all installs need, what the controllers know.
/// </summary>
internal sealed class UndoService(
    Library library, EstatePlanner planner, SurveyStore surveys, ConnectorStore connectorStore,
    IDbContextFactory<AppDb> databases)
{
    /// <summary>The changes that a job made, in the order in which they were made.</summary>
    public static IReadOnlyList<Change> MadeBy(JobRow job) =>
        [.. StepsMade(job).Select(s => s.Change)];

    /// <summary>
    /// For each of the changes that undo a job, the number of its step that it undoes; null where it is of none.
    /// </summary>
    public static IReadOnlyList<int?> StepsUndone(JobRow job, IReadOnlyList<Change> undo)
    {
        var steps = StepsMade(job).Where(s => s.Change.Inverse is not null).ToLookup(s => s.Change.Inverse!.Key, s => s.Number);
        return [.. undo.Select(c => steps[c.Key].Select(n => (int?)n).LastOrDefault())];
    }

    private static IEnumerable<(int Number, Change Change)> StepsMade(JobRow job) => job.Steps
        .Where(s => s.State == RunStepState.Made).OrderBy(s => s.Number).Select(s => (s.Number, ChangeJson.Read(s.ChangeJson!)));

    /// <summary>The name of the estate that a job changed.</summary>
    public async Task<string> EstateOfAsync(JobRow job, CancellationToken cancel) =>
        await InstallOfAsync(job, cancel) is { } install ? Library.ReadInstall(install).Estate : job.Subject;

    /// <summary>What undoing a job would do, as things are.</summary>
    public async Task<UndoPlan> PlanAsync(JobRow job, CancellationToken cancel)
    {
        var made = MadeBy(job);
        var install = await InstallOfAsync(job, cancel);
        var estate = await EstateOfAsync(job, cancel);
        var needs = (await planner.PlanAllAsync(estate, cancel))?.Needs ?? new NeedsIndex([]);
        var accounts = UndoRules.AccountsOf(made);
        return UndoRules.Of(made, new UndoFacts(await surveys.LatestAsync(estate, cancel), needs)
        {
            Install = install?.Name,
            Fixed = job.Kind == JobKind.Fix ? StoredJson.Read<SettledTrace>(job.OrderJson!).Account : null,
            Stage = install is null ? null : Library.ReadInstall(install).Stage,
            PasswordsOut = await PasswordsOutAsync(estate, made, cancel),
            Uses = accounts.Count == 0 ? new Dictionary<string, AccountUse>() : await UsesAsync(estate, accounts, cancel),
        });
    }

    private async Task<DocumentRow?> InstallOfAsync(JobRow job, CancellationToken cancel) =>
        job.OrderJson is null ? await library.FindAsync(Library.InstallKind, job.Subject, cancel) : null;

    /// <summary>A password that is not kept here any more, or never was, may be in use anywhere.</summary>
    private async Task<HashSet<string>> PasswordsOutAsync(string name, IReadOnlyList<Change> made, CancellationToken cancel)
    {
        var estate = Library.ReadEstate((await library.FindAsync(Library.EstateKind, name, cancel))!);
        await using var db = await databases.CreateDbContextAsync(cancel);
        var kept = (
            await db.Passwords.AsNoTracking().Where(p => p.Protected != null && p.HandedOverAt == null).Select(p => p.Account)
            .ToListAsync(cancel))
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        return made.OfType<CreateAccount>()
            .Where(c => !kept.Contains(PasswordSubject.Of(estate, $"{c.Domain}\\{c.Name}").Text)).Select(c => c.Name)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
    }

    private async Task<Dictionary<string, AccountUse>> UsesAsync(
        string name, IReadOnlyList<string> accounts, CancellationToken cancel)
    {
        var estate = Library.ReadEstate((await library.FindAsync(Library.EstateKind, name, cancel))!);
        var uses = new Dictionary<string, AccountUse>(StringComparer.OrdinalIgnoreCase);
        foreach (var account in accounts) uses[account] = await UseAsync(estate, account, cancel);
        return uses;
    }

    private async Task<AccountUse> UseAsync(Estate estate, string account, CancellationToken cancel)
    {
        try
        {
            return await (await connectorStore.OpenAsync(estate, cancel)).Directory.ReadUseAsync(account, cancel);
        }
        catch (ConnectorException e)
        {
            return new AccountUse(account, [new ControllerLogon(estate.Domain.DnsName, e.Message, null)]);
        }
    }
}
