using System.Security.Claims;
using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Passwords;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Renewals;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Passwords;

/// <summary>Renewals of passwords. What is decided about one is decided about a run.</summary>
internal static class RenewalEndpoints
{
    public static void MapRenewals(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/{name}/passwords/{account}/renewals", BeginAsync)
            .WithName("BeginRenewal").WithSummary("Starts a renewal: runs the automatic steps until a manual step is due")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409).ProducesProblem(502);

        api.MapGet("/renewals/{id}", ShowRenewalAsync)
            .WithName("ShowRenewal").WithSummary("A renewal, its steps, and which password is where")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static async Task<Results<Ok<RenewalView>, ProblemHttpResult>> ShowRenewalAsync(
        string id, Library library, PasswordService passwordService, RenewalStore renewals, TimeProvider time,
        CancellationToken cancel)
    {
        if (await renewals.FindAsync(id, cancel) is not { } renewal
            || await library.EstateAsync(renewal.Row.Estate, cancel) is not { } estate)
            return Problems.NotFound("renewal", id, []);
        return TypedResults.Ok(await ViewAsync(renewal, estate, passwordService, time, cancel));
    }

    private static async Task<Results<Accepted<RenewalView>, ProblemHttpResult>> BeginAsync(
        string name, string account, ClaimsPrincipal user, Library library, PasswordService passwordService,
        RenewalStore renewals, SecretGate gate,
        ConnectorStore connectorStore, TimeProvider time, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate)
            return await library.NoEstateAsync(name, cancel);
        var books = await passwordService.ReadAsync(estate, cancel);
        if (books.Find(account) is not { } found)
            return Problems.NotFound("account of a plan", account, books.Accounts.Select(a => a.Account));
        var open = (await renewals.ListAsync(name, found.Account, cancel)).Select(r => r.Row)
            .FirstOrDefault(r => r.EndedAt is null);
        if (PasswordEndpoints.WhyNot(found, open) is { } why) return NotRenewed(found, open, why);
        if (estate.Directory.Reach == Reach.File)
            return Problems.Of(409, "read-only", "The directory is read from a file: passwords cannot be set from here.");
        var facts = await (await connectorStore.OpenAsync(estate, cancel)).Directory.ReadPasswordAsync(found.Account, cancel);
        if (facts.Disabled)
            return Problems.Of(409, "not-renewed", $"{found.Account} is disabled: enable it first, or leave its password alone.");
        var (old, _) = await passwordService.KeptAsync(estate, found.Account, cancel);
        var fresh = NewPassword.Generate(Math.Max(estate.Rules.Passwords.LeastLength, facts.LeastLength ?? 0));
        var book = books.RunBookOf(found, old is not null);
        var asked = RenewalUses.Of(estate, book, TrustAnchors.OfFolder, TrustAnchors.OfFile);
        var missing = new List<AskedUse>();
        foreach (var ask in asked)
            if (!await gate.IsAllowedAsync(ask.Subject, ask.Use, cancel)) missing.Add(ask);
        if (missing.Count > 0)
        {
            return Problems.Of(
                409, "not-allowed",
                $"{missing.Count} uses of secrets that this renewal makes are not allowed, so it did not begin.",
                $"An owner looks at them and allows them: {string.Join("; ", missing.Select(m => SecretWords.Command(m.Subject, m.Use)))}");
        }

        var allowed = asked.Select(a => SecretGate.Key(a.Subject, a.Use));
        var (renewal, begun) = await renewals.BeginAsync(name, book, fresh, old, allowed, user.Identity!.Name!, cancel);
        if (!begun) return NotRenewed(found, renewal.Row, PasswordEndpoints.WhyNot(found, renewal.Row)!);
        return TypedResults.Accepted(
            $"/api/renewals/{renewal.Row.Id}", await ViewAsync(renewal, estate, passwordService, time, cancel));
    }

    private static ProblemHttpResult NotRenewed(AccountPassword account, RenewalRow? open, string why) => Problems.Of(
        409, "not-renewed", $"The password of {account.Account} is not renewed from here: {why}.",
        open is null ? null : $"Look at it: justright password progress {open.Id}");

    private static async Task<RenewalView> ViewAsync(
        Renewal renewal, Estate estate, PasswordService passwordService, TimeProvider time, CancellationToken cancel) =>
        PasswordViews.Of(
            renewal, estate, (await passwordService.ReadAsync(estate, cancel)).PlacesOf(renewal.Row.Account), time.GetUtcNow());
}
