using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Adoptions;
using JustRight.Service.Data.Adoptions;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Summaries;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Adoptions;

/// <summary>Adopting what was there before us: items to confirm, and the sheet and install they come to.</summary>
internal static class AdoptionEndpoints
{
    private const int LongestText = 500, MostAccounts = 50;

    public static void MapAdoptions(this IEndpointRouteBuilder api)
    {
        api.MapPost("/adoptions", BeginAsync)
            .WithName("BeginAdoption")
            .WithSummary("Starts the adoption of an existing installation by its accounts; the next survey reads what they hold")
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        api.MapGet(
            "/adoptions",
            async (AdoptionStore adoptionStore, CancellationToken cancel) =>
                TypedResults.Ok<IReadOnlyList<AdoptionSummary>>(
                    [.. (await adoptionStore.ListAsync(cancel)).Select(AdoptionService.Summary)]))
            .WithName("ListAdoptions").WithSummary("The adoptions, open and finished").RequireAuthorization(Roles.Reader);
        api.MapGet("/adoptions/{name}", ShowAdoptionAsync)
            .WithName("ShowAdoption").WithSummary("Everything that the accounts of an adoption hold, with the answers")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
        api.MapPost("/adoptions/{name}/answers", AnswerAsync)
            .WithName("AnswerAdoption").WithSummary("Answers for items: needed, not needed, or not sure")
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        api.MapGet("/adoptions/{name}/draft", DraftAdoptionAsync)
            .WithName("DraftAdoption").WithSummary("The current sheet and install of an adoption; stores nothing")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
        api.MapPost("/adoptions/{name}/finish", FinishAsync)
            .WithName("FinishAdoption").WithSummary("Adds the sheet and the install of an adoption")
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<AdoptionView>, ProblemHttpResult>> ShowAdoptionAsync(
        string name, AdoptionStore adoptionStore, AdoptionService adoptionService, CancellationToken cancel) =>
        await adoptionStore.FindAsync(name, cancel) is { } kept
            ? TypedResults.Ok(await adoptionService.ViewAsync(kept, cancel))
            : await NotFoundAsync(name, adoptionStore, cancel);

    private static async Task<Results<Ok<AdoptionDraftView>, ProblemHttpResult>> DraftAdoptionAsync(
        string name, AdoptionStore adoptionStore, AdoptionService adoptionService, CancellationToken cancel)
    {
        if (await adoptionStore.FindAsync(name, cancel) is not { } kept)
            return await NotFoundAsync(name, adoptionStore, cancel);
        var estate = await adoptionService.EstateAsync(kept.Adoption, cancel);
        if (await adoptionService.FindAsync(kept.Adoption, estate, cancel) is not { } found)
            return NotSurveyed(kept.Adoption);
        var files = await adoptionService.DraftAsync(kept.Adoption, found, estate, cancel);
        return TypedResults.Ok(new AdoptionDraftView(files.SheetText, files.InstallText));
    }

    private static async Task<Results<Ok<AdoptionSummary>, ProblemHttpResult>> BeginAsync(
        AdoptionOrder order, ClaimsPrincipal user, Library library, AdoptionStore adoptionStore, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.EstateKind, order.Estate, cancel) is not { } row)
            return Problems.NotFound(
                "estate", order.Estate, (await library.ListAsync(Library.EstateKind, cancel)).Select(d => d.Name));
        if (await library.RehearsalAsync(order.Estate, cancel) is { } rehearsal)
            return RealOnly.Refused("Nothing is adopted from it", rehearsal);
        if (order.Accounts.Count is 0 or > MostAccounts)
            return Problems.Bad(
                "accounts", "An adoption has from 1 to 50 accounts.", "the logon names of the product's accounts");
        var accounts = order.Accounts.Select(a =>
            new AdoptedAccount(
                a.Key ?? KeyOf(a.Name), a.Name.Trim(),
                a.Purpose?.Trim() is { Length: > 0 } purpose ? purpose : $"{a.Name} existed before", a.WorksAs))
            .ToList();
        if (accounts.GroupBy(a => a.Key).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return Problems.Bad("accounts", "Two accounts have the same key.", "another key for one of them", twice.Key);
        var adoption = new Adoption(
            order.Name, order.Product, order.Release, order.Title?.Trim() is { Length: > 0 } title ? title : order.Product,
            order.Estate, accounts);
        var files = AdoptionService.Empty(adoption, Library.ReadEstate(row));
        // the lines of files that nobody has seen yet would say nothing
        if (files.Faults is [var fault, ..])
            return Problems.Bad(fault.Field, fault.Message, fault.Expected ?? "another one", fault.Found);
        if (await TakenAsync(
            adoption, (await adoptionStore.FindAsync(order.Name, cancel))?.FinishedAt is not null, library, cancel) is { } taken)
            return taken;
        await adoptionStore.BeginAsync(adoption, user.Identity!.Name!, cancel);
        return TypedResults.Ok(AdoptionService.Summary((await adoptionStore.FindAsync(order.Name, cancel))!));
    }

    private static async Task<Results<Ok<AdoptionView>, ProblemHttpResult>> AnswerAsync(
        string name, AdoptionAnswerOrder order, ClaimsPrincipal user, AdoptionStore adoptionStore,
        AdoptionService adoptionService, CancellationToken cancel)
    {
        if (await adoptionStore.FindAsync(name, cancel) is not { } kept) return await NotFoundAsync(name, adoptionStore, cancel);
        if (AdoptionWords.Of(order.Word) is not { } word)
            return Problems.Bad("word", $"'{order.Word}' is no answer.", AdoptionWords.All);
        if (order.Why is { Length: > LongestText })
            return Problems.Bad("why", "This reason is too long.", $"up to {LongestText} characters");
        if (order.Why?.Any(char.IsControl) == true)
            return Problems.Bad("why", "A reason is one line.", "text without line breaks");
        if (order.Items.Count == 0) return Problems.Bad("items", "No item was named.", "ids of items");
        var estate = await adoptionService.EstateAsync(kept.Adoption, cancel);
        if (await adoptionService.FindAsync(kept.Adoption, estate, cancel) is not { } found) return NotSurveyed(kept.Adoption);
        var items = found.Items.Where(i => order.Items.Contains(i.Id)).ToList();
        if (order.Items.FirstOrDefault(id => items.All(i => i.Id != id)) is { } gone)
            return Problems.Of(
                409, "not-held", $"Nothing that was found has the id '{gone}'.", $"See justright adopt show {name}");
        if (word == AdoptionWord.Needed && items.FirstOrDefault(i => i.WhyNot is not null) is { } mute)
            return Problems.Of(
                409, "no-words", $"The sheet cannot ask for this: {mute.Account.Name}: {mute.Right}.",
                $"{mute.WhyNot}. Answer not-sure, or write the need into the sheet by hand afterwards.");
        await adoptionStore.AnswerAsync(
            name, items, word, order.Why?.Trim() is { Length: > 0 } why ? why : null, user.Identity!.Name!, cancel);
        return TypedResults.Ok(await adoptionService.ViewAsync(kept, cancel));
    }

    private static async Task<Results<Ok<InstallView>, ProblemHttpResult>> FinishAsync(
        string name, ClaimsPrincipal user, AdoptionStore adoptionStore, AdoptionService adoptionService, Library library,
        FitService fits, SummaryMaker summaries, DocumentApprovals approvals, UnsaidHoldings unsaid, CancellationToken cancel)
    {
        if (await adoptionStore.FindAsync(name, cancel) is not { } kept) return await NotFoundAsync(name, adoptionStore, cancel);
        var (adoption, who) = (kept.Adoption, user.Identity!.Name!);
        var estate = await adoptionService.EstateAsync(adoption, cancel);
        if (await adoptionService.FindAsync(adoption, estate, cancel) is not { } found) return NotSurveyed(adoption);
        if (found.Missing.Count > 0)
            return Problems.Of(
                409, "not-found-there", $"Not found in {estate.Name}: {string.Join(", ", found.Missing)}.",
                $"Survey the estate, or begin again without them: justright adopt begin {name} …");
        var answers = await adoptionStore.AnswersAsync(name, cancel);
        if (found.Items.Count(i => !answers.ContainsKey(i.Id)) is > 0 and var open)
            return Problems.Of(
                409, "unanswered", $"{open} of {found.Items.Count} items are not answered yet.",
                "Answer each one: needed, not-needed or not-sure.");
        if (await TakenAsync(adoption, kept.FinishedAt is not null, library, cancel) is { } taken) return taken;
        var files = await adoptionService.DraftAsync(adoption, found, estate, cancel);
        var faults = files is { Sheet: { } sheet, Install: { } install }
            ? await fits.WhyNotPlannedAsync(install, cancel, sheet)
            : files.Faults;
        if (faults.Count > 0) return Problems.Of(faults);
        // Finished again, it replaces what it wrote before: where two must agree that waits, the sheet first.
        if (await approvals.WaitsAsync(files.Sheet!, files.SheetText, who, cancel) is { } sheetWaits) return sheetWaits;
        await library.SaveAsync(Library.SheetKind, files.Sheet!.Name, $"{adoption.Product}.yaml", files.SheetText, who, cancel);
        if (await approvals.WaitsAsync(files.Install!, files.InstallText, who, cancel) is { } installWaits) return installWaits;
        await library.SaveAsync(Library.InstallKind, name, $"{name}.yaml", files.InstallText, who, cancel);
        if (await unsaid.KeepAsync(adoption, found, answers, estate, who, cancel) is { } keepingWaits) return keepingWaits;
        await adoptionStore.FinishAsync(name, who, cancel);
        return TypedResults.Ok(
            new InstallView(await summaries.NowAsync(name, cancel), files.InstallText));
    }

    /// <summary>A sheet or an install that the adoption did not write is never written over by it.</summary>
    private static async Task<ProblemHttpResult?> TakenAsync(
        Adoption adoption, bool finished, Library library, CancellationToken cancel)
    {
        if (finished) return null;
        if (await library.FindAsync(Library.InstallKind, adoption.Name, cancel) is not null)
            return Problems.Of(
                409, "taken", $"There is an install {adoption.Name} already.", "Choose another name for the adoption.");
        var sheet = $"{adoption.Product}@{adoption.Release}";
        return await library.FindAsync(Library.SheetKind, sheet, cancel) is null
            ? null
            : Problems.Of(
                409, "taken", $"There is a sheet {sheet} already.",
                "Write an install for it, with its accounts as existing ones; or choose another product or release.");
    }

    /// <summary>A key made from a logon name: without the prefix that all such names have.</summary>
    private static string KeyOf(string name)
    {
        var plain = new string(
            [.. name.Trim().ToLowerInvariant().Select(c => c is >= 'a' and <= 'z' or >= '0' and <= '9' ? c : '-')])
            .Trim('-');
        if (plain.StartsWith("svc-", StringComparison.Ordinal)) plain = plain[4..];
        if (plain.Length == 0 || !char.IsAsciiLetter(plain[0])) plain = $"a-{plain}";
        return plain[..Math.Min(plain.Length, 40)].TrimEnd('-');
    }

    private static async Task<ProblemHttpResult> NotFoundAsync(
        string name, AdoptionStore adoptionStore, CancellationToken cancel) => Problems.NotFound(
        "adoption", name, (await adoptionStore.ListAsync(cancel)).Select(a => a.Adoption.Name));

    private static ProblemHttpResult NotSurveyed(Adoption adoption) =>
        Problems.Of(
            409, "not-surveyed", "No survey of this estate was taken yet.",
            $"Survey it first: justright survey {adoption.Estate}");
}
