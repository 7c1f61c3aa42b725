using System.Security.Claims;
using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Passwords;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Renewals;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Passwords;

/// <summary>When passwords are due, where they are typed, and whether one works.</summary>
internal static class PasswordEndpoints
{
    private const int LongestPassword = 1000, LongestWords = 300;

    /// <summary>In the order of the calendar of passwords, where nobody says another: what is most urgent first.</summary>
    private static readonly Columns<(int Place, AccountPassword Account)> Columns = new(
        Column<(int Place, AccountPassword Account)>.Of("urgency", a => a.Place),
        Column<(int Place, AccountPassword Account)>.Of("account", a => a.Account.Account),
        Column<(int Place, AccountPassword Account)>.Of("due", a => a.Account.Due),
        Column<(int Place, AccountPassword Account)>.Of("set", a => a.Account.SetAt),
        Column<(int Place, AccountPassword Account)>.Of("keeper", a => a.Account.KeptBy));

    public static void MapPasswords(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/passwords", ListAsync)
            .WithName("ListAccountPasswords")
            .WithSummary("When each password of an estate is due, and who changes it: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);

        api.MapGet("/estates/{name}/passwords/{account}", ShowAsync)
            .WithName("ShowAccountPassword").WithSummary("Where a password is used, and the steps of a renewal")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapGet("/estates/{name}/password-places", ListPasswordPlacesAsync)
            .WithName("ListPasswordPlaces")
            .WithSummary("Where passwords are used, and what stops if one is changed in the directory first")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapPost("/estates/{name}/passwords/{account}/places", TellAsync)
            .WithName("TellPasswordPlace").WithSummary("Adds a place where a password is used")
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404);

        api.MapDelete("/estates/{name}/passwords/{account}/places/{number}", ForgetPasswordPlaceAsync)
            .WithName("ForgetPasswordPlace").WithSummary("Removes a place that somebody added")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404);

        api.MapPost("/estates/{name}/passwords/{account}/try", TryAsync)
            .WithName("TryPassword")
            .WithSummary("Tests a password with one sign-in; not done if a failure would lock the account")
            .RequireAuthorization(Roles.Granter).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409)
            .ProducesProblem(502);

        api.MapPost("/estates/{name}/passwords/{account}/seal", SealAsync)
            .WithName("SealAccountPassword").WithSummary("Hands over a password once, encrypted to a certificate")
            .RequireAuthorization(Roles.Granter).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);

        api.MapPost("/estates/{name}/passwords/{account}/show", ShowOnceAsync)
            .WithName("ShowPasswordOnce").WithSummary("Hands over a password once, in clear").RequireAuthorization(Roles.Granter)
            .ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<IReadOnlyList<PasswordPlaceView>>, ProblemHttpResult>> ListPasswordPlacesAsync(
        string name, string? account, Library library, PasswordService passwordService, RenewalStore renewals,
        IDbContextFactory<AppDb> databases, CancellationToken cancel) =>
        await library.EstateAsync(name, cancel) is not { } estate
            ? await library.NoEstateAsync(name, cancel)
            : TypedResults.Ok(await PlacesAsync(
                (await passwordService.ReadAsync(estate, cancel)).Places.Where(p =>
                    account is null || string.Equals(p.Account, account, StringComparison.OrdinalIgnoreCase)),
                name, renewals, databases, cancel));

    private static async Task<Results<NoContent, ProblemHttpResult>> ForgetPasswordPlaceAsync(
        string name, string account, int number, ClaimsPrincipal user, LogStore log, IDbContextFactory<AppDb> databases,
        CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (await db.ToldPlaces.AsNoTracking().FirstOrDefaultAsync(
            p => p.Id == number && p.Estate == name, cancel) is not { } row
            || !string.Equals(row.Account, account, StringComparison.OrdinalIgnoreCase))
            return Problems.NotFound("place of this account", $"{number}", []);
        await log.AddWithAsync(
            journal => journal.ToldPlaces.Remove(row), user.Identity!.Name!, "password place", row.Account,
            $"taken out: {PasswordService.Of(row).Words}", cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<PasswordsView>, ProblemHttpResult>> ListAsync(
        string name, [AsParameters] ListOrder order, Library library, PasswordService passwordService, RenewalStore renewals,
        CancellationToken cancel)
    {
        if (Columns.WhyNot(order) is { } wrong) return wrong;
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var books = await passwordService.ReadAsync(estate, cancel);
        var open = (await renewals.ListAsync(name, null, cancel)).Select(r => r.Row).Where(r => r.EndedAt is null)
            .ToLookup(r => r.Account, StringComparer.OrdinalIgnoreCase);
        var words = SoughtWords.Of(order.Search);
        var matching = books.Accounts.Select((a, i) => (Place: i, Account: a)).Where(a =>
            SoughtWords.AreIn(words, a.Account.Account, a.Account.KeptBy, a.Account.Words, string.Join(' ', a.Account.Uses)));
        var (rows, total) = Columns.Page(matching, order);
        return TypedResults.Ok(
            new PasswordsView(
                name, estate.IsSimulated, books.View?.Survey.Directory.ReadAt,
                [.. rows.Select(r => PasswordViews.Of(
                    r.Account, books.PlacesOf(r.Account.Account).Count, open[r.Account.Account].FirstOrDefault()?.Id))],
                order.Skipped, total));
    }

    private static async Task<Results<Ok<SealedPassword>, ProblemHttpResult>> SealAsync(
        string name, string account, SealOrder order, ClaimsPrincipal user, Library library, PasswordHandOver hand,
        SecondPerson second, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        if (Recipient.Of(order.Certificate, out var recipient) is { } bad) return bad;
        var (subject, who) = (PasswordSubject.Of(estate, account).Text, user.Identity!.Name!);
        if (!await hand.HasAsync(subject, cancel)) return Refused(account);
        var act = new ProposedAct(
            JobKind.HandOver, subject,
            [$"hand over the password of {subject}, encrypted to {recipient!.Subject} ({recipient.Thumbprint})"], "sealed",
            recipient.Thumbprint);
        if (await second.AskAsync([name], act, who, cancel) is { } waits) return waits;
        return await hand.TakeAsync(
            subject, who, $"sealed to {recipient.Subject}", p => PasswordHandOver.Seal(account, p, recipient),
            cancel) is (null, var sealing)
            ? TypedResults.Ok(sealing!) : Refused(account);
    }

    private static async Task<Results<Ok<ShownPassword>, ProblemHttpResult>> ShowOnceAsync(
        string name, string account, ClaimsPrincipal user, Library library, PasswordHandOver hand, SecondPerson second,
        CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var (subject, who) = (PasswordSubject.Of(estate, account).Text, user.Identity!.Name!);
        if (!await hand.HasAsync(subject, cancel)) return Refused(account);
        var act = new ProposedAct(JobKind.HandOver, subject, [$"show the password of {subject} to {who}"], "shown", who);
        if (await second.AskAsync([name], act, who, cancel) is { } waits) return waits;
        return await hand.TakeAsync(subject, who, "shown", p => new ShownPassword(account, p), cancel) is (null, var shown)
            ? TypedResults.Ok(shown!) : Refused(account);
    }

    private static ProblemHttpResult Refused(string account) =>
        Problems.Of(
            409, "nothing-to-hand-over", $"There is no password of {account} to hand over.",
            "There is one after a grant created the account or a renewal set it; it is handed over once.");

    private static async Task<Results<Ok<PasswordDetailView>, ProblemHttpResult>> ShowAsync(
        string name, string account, Library library, PasswordService passwordService, RenewalStore renewals,
        IDbContextFactory<AppDb> databases, TimeProvider time, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var books = await passwordService.ReadAsync(estate, cancel);
        if (books.Find(account) is not { } found)
            return Problems.NotFound("account of a plan", account, books.Accounts.Select(a => a.Account));
        var rows = await renewals.ListAsync(name, found.Account, cancel);
        var open = rows.FirstOrDefault(r => r.Row.EndedAt is null)?.Row;
        var whyNot = WhyNot(found, open);
        var book = found.Keeper == PasswordKeeper.Us
            ? books.RunBookOf(found, (await passwordService.KeptAsync(estate, found.Account, cancel)).Password is not null)
            : null;
        var places = books.PlacesOf(found.Account);
        await using var db = await databases.CreateDbContextAsync(cancel);
        var subject = PasswordSubject.Of(estate, found.Account).Text;
        var waits = await db.Passwords.AnyAsync(p => p.Account == subject && p.Protected != null, cancel);
        return TypedResults.Ok(new PasswordDetailView(
            PasswordViews.Of(found, places.Count, open?.Id), await PlacesAsync(places, name, renewals, databases, cancel),
            found.Keeper == PasswordKeeper.Directory
                ? null
                : ManagedCandidate.Obstacles(found.Account, books.Plans, places, books.View),
            [.. book?.Steps.Select(PasswordViews.Of) ?? []], book?.Remarks ?? [], whyNot, waits,
            [.. rows.Select(r => PasswordViews.Of(r, estate, places, time.GetUtcNow()))]));
    }

    /// <summary>Why a renewal cannot begin, or null.</summary>
    public static string? WhyNot(AccountPassword account, RenewalRow? open) => account switch
    {
        _ when open is not null => "a renewal is under way already",
        { Keeper: PasswordKeeper.Directory } => "the directory changes it",
        { Keeper: PasswordKeeper.Product } =>
            $"{account.KeptBy} changes it, in the directory and in its services together; a change elsewhere breaks them. Change it in the product",
        { Standing: PasswordStanding.NotMade } => account.Words,
        { Standing: PasswordStanding.Unseen } => $"where it is used now is not known: {account.Words}",
        _ => null,
    };

    private static async Task<IReadOnlyList<PasswordPlaceView>> PlacesAsync(
        IEnumerable<PasswordPlace> places, string estate, RenewalStore renewals, IDbContextFactory<AppDb> databases,
        CancellationToken cancel)
    {
        var books = (await renewals.ListAsync(estate, null, cancel)).Select(r => r.Book)
            .ToLookup(b => b.Account, StringComparer.OrdinalIgnoreCase);
        await using var db = await databases.CreateDbContextAsync(cancel);
        var told = await db.ToldPlaces.AsNoTracking().Where(p => p.Estate == estate).ToListAsync(cancel);
        return [.. places.Select(p =>
            PasswordViews.Of(
                p, books[p.Account],
                told.Find(t =>
                    string.Equals(t.Account, p.Account, StringComparison.OrdinalIgnoreCase)
                        && PasswordService.Of(t).Id == p.Id)))];
    }

    private static async Task<Results<Created, ProblemHttpResult>> TellAsync(
        string name, string account, PlaceOrder order, ClaimsPrincipal user, Library library, PasswordService passwordService,
        LogStore log, TimeProvider time, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var books = await passwordService.ReadAsync(estate, cancel);
        if (books.Find(account) is not { } found)
            return Problems.NotFound("account of a plan", account, books.Accounts.Select(a => a.Account));
        foreach (var (field, text, needed) in new[] { ("host", order.Host, false), ("where", order.Where, true), (
            "setting", order.Setting, true), ("breaks", order.Breaks, true), (
            "reference", order.Reference ?? "", false) })
            if (text.Length > LongestWords || (needed && string.IsNullOrWhiteSpace(text)))
                return Problems.Bad(
                    field, needed && string.IsNullOrWhiteSpace(text) ? "This must be said." : "This is too long.",
                    $"1 to {LongestWords} characters");
        if (order.Host.Length > 0 && estate.Host(order.Host) is null)
            return Problems.Bad(
                "host", $"'{order.Host}' is not a host of {name}.", "a host of the estate, or none", order.Host,
                [.. estate.Hosts.Select(h => h.Name)]);
        var row = new ToldPlaceRow
        {
            Estate = name,
            Account = found.Account,
            Host = order.Host,
            Where = order.Where,
            Setting = order.Setting,
            Breaks = order.Breaks,
            Reference = string.IsNullOrWhiteSpace(order.Reference) ? null : order.Reference,
            ToldAt = time.GetUtcNow(),
            ToldBy = user.Identity!.Name!,
        };
        if (books.PlacesOf(found.Account).Any(p => p.Id == PasswordService.Of(row).Id))
            return Problems.Of(409, "known", "This place is known already.");
        await log.AddWithAsync(
            db => db.ToldPlaces.Add(row), user.Identity!.Name!, "password place", found.Account,
            $"told of {PasswordService.Of(row).Words}", cancel);
        return TypedResults.Created($"/api/estates/{name}/passwords/{found.Account}");
    }

    private static async Task<Results<Ok<PasswordTryView>, ProblemHttpResult>> TryAsync(
        string name, string account, PasswordTryOrder order, ClaimsPrincipal user, Library library,
        PasswordService passwordService, ConnectorStore connectorStore, LogStore log, TimeProvider time, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var books = await passwordService.ReadAsync(estate, cancel);
        if (books.Find(account) is not { } found)
            return Problems.NotFound("account of a plan", account, books.Accounts.Select(a => a.Account));
        if (order.Password is { Length: 0 or > LongestPassword })
            return Problems.Bad(
                "password",
                order.Password.Length == 0
                    ? "A directory treats an empty password as an anonymous bind [RFC 4513 5.1.2]."
                    : "This is too long for a password.",
                "1 to 1000 characters, or none at all");
        var (kept, withheld) = order.Password is { } typed
            ? (new NewPassword(typed), null)
            : await passwordService.KeptAsync(estate, found.Account, cancel);
        if (withheld is not null) return Problems.Of(409, "not-allowed", withheld);
        if (kept is not { } password)
            return Problems.Of(
                409, "not-kept", $"No password of {found.Account} is stored here.", "Type the password that you were given.");
        var directory = (await connectorStore.OpenAsync(estate, cancel)).Directory;
        var now = time.GetUtcNow();
        var facts = await directory.ReadPasswordAsync(found.Account, cancel);
        var tried = facts.WhyNotTried(now) is { } why
            ? new PasswordTry(null, $"not tried: {why}")
            : await directory.TryPasswordAsync(found.Account, password, cancel);
        await log.AddAsync(
            user.Identity!.Name!, "try password", found.Account,
            tried.Works switch { true => "it works", false => "it does not work", _ => tried.Words }, cancel);
        return TypedResults.Ok(
            new PasswordTryView(found.Account, tried.Works, tried.Words, facts.CountNow(now), facts.LockedAfter, now));
    }
}
