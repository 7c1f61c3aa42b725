using System.Text;
using JustRight.Contracts;
using JustRight.Core.Adoptions;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Formats.Adoptions;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;
using JustRight.Service.Data.Adoptions;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;

namespace JustRight.Service.Features.Adoptions;

/// <summary>The sheet and the install that an adoption comes to, as text and as what they say.</summary>
internal sealed record AdoptionFiles(
    string SheetText, string InstallText, Sheet? Sheet, Install? Install, IReadOnlyList<Fault> Faults);

/// <summary>
/// Brings together what an adoption rests on: the estate, the latest survey, what the installs in Just Right need, and the
/// answers.
/// </summary>
internal sealed class AdoptionService(AdoptionStore adoptionStore, Library library, SurveyStore surveys, FitService fitService)
{
    /// <summary>The estate of an adoption; it was there when the adoption was begun.</summary>
    public async Task<Estate> EstateAsync(Adoption adoption, CancellationToken cancel) =>
        await library.FindAsync(Library.EstateKind, adoption.Estate, cancel) is { } row
            ? Library.ReadEstate(row)
            : throw new FaultException(
                [new Fault(
                    "unknown-estate", new Origin(adoption.Name, 1, 1), "estate", $"There is no estate {adoption.Estate}.")]);

    /// <summary>What was found, or null while the estate was not read.</summary>
    public async Task<AdoptionFindings?> FindAsync(Adoption adoption, Estate estate, CancellationToken cancel)
    {
        if (await surveys.LatestAsync(estate.Name, cancel) is not { } view) return null;
        var others = (await fitService.PlansOfAsync(estate.Name, cancel)).Where(p => p.Install != adoption.Name);
        return AdoptionFinder.Find(adoption, view, new NeedsIndex(others), estate);
    }

    /// <summary>The files of the draft as it stands, read again as they would be.</summary>
    public async Task<AdoptionFiles> DraftAsync(
        Adoption adoption, AdoptionFindings findings, Estate estate, CancellationToken cancel) =>
        Read(AdoptionDraft.Make(adoption, findings, await adoptionStore.AnswersAsync(adoption.Name, cancel), estate));

    /// <summary>The files of an adoption of which nothing was found yet: what is wrong with its names shows there.</summary>
    public static AdoptionFiles Empty(Adoption adoption, Estate estate) =>
        Read(AdoptionDraft.Make(
            adoption, new AdoptionFindings(default, [], [], [], []), new Dictionary<string, AdoptionAnswer>(), estate));

    /// <summary>An adoption for a list.</summary>
    public static AdoptionSummary Summary(KeptAdoption kept) =>
        new(
            kept.Adoption.Name, kept.Adoption.Product, kept.Adoption.Title, kept.Adoption.Estate,
            [.. kept.Adoption.Accounts.Select(a => a.Name)], kept.By, kept.At, kept.FinishedAt);

    /// <summary>An adoption with what was found.</summary>
    public async Task<AdoptionView> ViewAsync(KeptAdoption kept, CancellationToken cancel)
    {
        var adoption = kept.Adoption;
        var estate = await EstateAsync(adoption, cancel);
        if (await FindAsync(adoption, estate, cancel) is not { } found)
            return new AdoptionView(
                Summary(kept), adoption.Release, estate.IsSimulated, null, [], [], [.. adoption.Accounts.Select(a => a.Name)], [],
                0);
        var answers = await adoptionStore.AnswersAsync(adoption.Name, cancel);
        var items = found.Items.Select((item, i) => View(item, i + 1, answers.GetValueOrDefault(item.Id))).ToList();
        return new AdoptionView(
            Summary(kept), adoption.Release, estate.IsSimulated, found.SurveyedAt, items,
            [.. found.Services.Select(s =>
                $"{s.Name} on {s.Host} runs as {adoption.Accounts.First(a => a.Key == s.Account).Name}")], found.Missing, found.Unseen, items.Count(i => i.Word is null));
    }

    private static AdoptionItemView View(AdoptionItem item, int number, AdoptionAnswer? answer) => new(
        number, item.Id, item.Account.Name, item.Right.Words, item.Right.Place, item.HeldBy, [.. item.Paths.Select(p =>
            string.Join(" → ", p.Steps.Select(s => s.Name)))], item.Brings, item.WhyNot,
        item.NeededBy, item.Forbidden, answer is null
            ? null
            : AdoptionWords.Text(answer.Word), answer?.Why, answer?.By, answer?.At)
    {
        NoEffect = item.NoEffect,
    };

    private static AdoptionFiles Read(AdoptionDraft draft)
    {
        var (sheetText, installText) = (DraftWriter.Sheet(draft), DraftWriter.Install(draft));
        var (sheet, faults) = SheetReader.Read(Encoding.UTF8.GetBytes(sheetText), $"{draft.Adoption.Product}.yaml");
        var (install, more) = InstallReader.Read(Encoding.UTF8.GetBytes(installText), $"{draft.Adoption.Name}.yaml");
        return new AdoptionFiles(sheetText, installText, sheet, install, [.. faults, .. more]);
    }
}
