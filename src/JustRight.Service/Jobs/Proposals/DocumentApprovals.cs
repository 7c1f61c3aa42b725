using JustRight.Core.Estates;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Jobs.Proposals;

/// <summary>
/// Which documents wait for a second person: those that are replaced, where an estate that wants two-person approval rests on
/// them and the new one may loosen a rule; an estate over systems of such an estate; the stage of an install.
/// </summary>
internal sealed class DocumentApprovals(Library library, SecondPerson second)
{
    /// <summary>Why a sheet is not stored yet, or null.</summary>
    public async Task<ProblemHttpResult?> WaitsAsync(Sheet sheet, string text, string who, CancellationToken cancel)
    {
        var stored = await library.ListAsync(Library.InstallKind, cancel);
        var installs = stored.Select(r => Library.OpenInstall(r).Document).ToList();
        var estates = installs.OfType<Install>().Where(i => i.Sheet == sheet.Name).Select(i => i.Estate);
        // An install that can no longer be read may be of this sheet, in any estate.
        if (installs.Contains(null))
            estates = estates.Concat((await library.ListAsync(Library.EstateKind, cancel)).Select(e => e.Name));
        return await ReplacedAsync(Library.SheetKind, sheet.Name, text, [.. estates], who, cancel);
    }

    /// <summary>Why an estate is not stored yet, or null.</summary>
    public async Task<ProblemHttpResult?> WaitsAsync(Estate estate, string text, string who, CancellationToken cancel)
    {
        var before = await library.FindAsync(Library.EstateKind, estate.Name, cancel);
        var differences = before is null ? [] : Library.Differences(Library.EstateKind, before.Text, text);
        var read = before is null ? null : Library.OpenEstate(before).Document;
        var known = read is null ? [] : await second.SharingAsync(read, cancel);
        var sharing = (await second.SharingAsync(estate, cancel)).Except(known).ToList();
        var loosens = differences.Any(d => d.MayLoosen);
        if (!loosens && sharing.Count == 0) return null;

        // One proposal for both: an approval that is used for the one would be gone while the other waits.
        var words = differences.Select(d => $"{Library.EstateKind} {estate.Name}: {d.Words}")
            .Concat(sharing.Select(s => $"estate {estate.Name}: it is about {s.Shared}, as {s.Estate} is, where two must agree"));
        var estates = sharing.Select(s => s.Estate).Concat(loosens ? [estate.Name] : []);
        var act = new ProposedAct(JobKind.Document, estate.Name, [.. words], Library.EstateKind, before?.Text ?? "", text);
        return await second.AskAsync(estates, act, who, cancel);
    }

    /// <summary>
    /// Why an install is not stored yet, or null. One that is new changes nothing before its steps are proposed.
    /// </summary>
    public async Task<ProblemHttpResult?> WaitsAsync(Install install, string text, string who, CancellationToken cancel)
    {
        var before = await library.FindAsync(Library.InstallKind, install.Name, cancel);
        var formerly = before is null ? null : Library.OpenInstall(before).Document?.Estate;
        return await ReplacedAsync(
            Library.InstallKind, install.Name, text, [.. new[] { formerly, install.Estate }.OfType<string>()], who, cancel);
    }

    /// <summary>Why the stage of an install is not set yet, or null.</summary>
    public Task<ProblemHttpResult?> StageWaitsAsync(DocumentRow install, string stage, string who, CancellationToken cancel) =>
        second.AskAsync(
            [Library.ReadInstall(install).Estate],
            new ProposedAct(JobKind.Stage, install.Name, [$"set the stage of {install.Name} to {stage}"], stage, install.Text),
                who, cancel);

    private async Task<ProblemHttpResult?> ReplacedAsync(
        string kind, string name, string text, IReadOnlyList<string> estates, string who, CancellationToken cancel)
    {
        if (await library.FindAsync(kind, name, cancel) is not { } before) return null;
        var differences = Library.Differences(kind, before.Text, text);
        if (!differences.Any(d => d.MayLoosen)) return null;
        var words = differences.Select(d => $"{kind} {name}: {d.Words}");
        return await second.AskAsync(
            estates, new ProposedAct(JobKind.Document, name, [.. words], kind, before.Text, text), who, cancel);
    }
}
