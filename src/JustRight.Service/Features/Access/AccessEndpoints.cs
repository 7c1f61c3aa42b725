using System.Net;
using System.Security.Claims;
using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Access;

/// <summary>Sign-in and tokens.</summary>
internal static class AccessEndpoints
{
    /// <summary>The rate limit for sign-in, by address.</summary>
    public const string SignInLimit = "sign-in";

    private const int FirstTokenDays = 90;

    public static void MapAccess(this IEndpointRouteBuilder api)
    {
        api.MapPost("/sign-in", SignInAsync)
            .WithName("SignIn").WithSummary("Signs the console in with a one-time code").RequireRateLimiting(SignInLimit)
            .AllowAnonymous().ProducesProblem(401);

        api.MapGet("/sign-in/ways", ShowSignInWays)
            .WithName("ShowSignInWays").WithSummary("How people can sign in to the console").AllowAnonymous();

        api.MapPost("/sign-in/person", SignInPersonAsync)
            .WithName("SignInPerson").WithSummary("Signs the console in with a directory account")
            .RequireRateLimiting(SignInLimit).AllowAnonymous().ProducesProblem(401).ProducesProblem(403).ProducesProblem(404)
            .ProducesProblem(429).ProducesProblem(502);

        api.MapPost("/sign-out", (Delegate)SignOutAsync)
            .WithName("SignOut").WithSummary("Signs the console out").AllowAnonymous();

        api.MapGet("/me", WhoAmI)
            .WithName("WhoAmI").WithSummary("Who is signed in")
            .RequireAuthorization(Roles.Reader);

        api.MapPost("/tokens/claim", ClaimTokenAsync)
            .WithName("ClaimToken").WithSummary("Exchanges a one-time code for a token").RequireRateLimiting(SignInLimit)
            .AllowAnonymous().ProducesProblem(401).ProducesProblem(400);

        api.MapGet("/tokens", ListTokensAsync)
            .WithName("ListTokens").WithSummary("The tokens, without their values")
            .RequireAuthorization(Roles.Owner);

        api.MapPost("/tokens", MakeTokenAsync)
            .WithName("MakeToken").WithSummary("Creates a token; its value is shown only once")
            .RequireAuthorization(Roles.Owner).ProducesProblem(400);

        api.MapDelete("/tokens/{name}", RevokeTokenAsync)
            .WithName("RevokeToken").WithSummary("Revokes a token")
            .RequireAuthorization(Roles.Owner).ProducesProblem(404);
    }

    private static async Task<Results<Ok<WhoView>, ProblemHttpResult>> SignInAsync(
        SignInCode order, HttpContext http, AccessKeys keys, LogStore log, CancellationToken cancel)
    {
        if (!await keys.UseCodeAsync(order.Code, cancel)) return WrongCode();
        await http.SignInAsync(
            CookieAuthenticationDefaults.AuthenticationScheme,
            TokenHandler.Principal("owner (sign-in link)", Roles.Owner, CookieAuthenticationDefaults.AuthenticationScheme));
        await log.AddAsync("owner (sign-in link)", "sign-in", "console", "by a one-time link", cancel);
        return TypedResults.Ok(new WhoView("owner (sign-in link)", Roles.Owner));
    }

    private static Ok<SignInWaysView> ShowSignInWays(DirectoryGate gate) =>
        TypedResults.Ok(new SignInWaysView(gate.Directory));

    private static async Task<NoContent> SignOutAsync(HttpContext http)
    {
        await http.SignOutAsync(CookieAuthenticationDefaults.AuthenticationScheme);
        return TypedResults.NoContent();
    }

    private static Ok<WhoView> WhoAmI(ClaimsPrincipal user) =>
        TypedResults.Ok(
            new WhoView(user.Identity!.Name!, user.FindFirstValue(ClaimTypes.Role)!) { Release = ProgramRelease.Number });

    private static async Task<Results<Ok<NewTokenView>, ProblemHttpResult>> ClaimTokenAsync(
        TokenClaim claim, AccessKeys keys, LogStore log, CancellationToken cancel)
    {
        if (NameFault(claim.Name) is { } fault) return fault;
        if (!await keys.UseCodeAsync(claim.Code, cancel)) return WrongCode();
        var (token, row) = await keys.NewTokenAsync(claim.Name, Roles.Owner, TimeSpan.FromDays(FirstTokenDays), null, cancel);
        await log.AddAsync(
            claim.Name, "token", claim.Name, $"claimed with a one-time code: {row.Role}, until {row.ExpiresAt:yyyy-MM-dd}",
            cancel);
        return TypedResults.Ok(new NewTokenView(row.Name, row.Role, token, row.ExpiresAt));
    }

    private static async Task<Ok<IReadOnlyList<TokenView>>> ListTokensAsync(
        IDbContextFactory<AppDb> databases, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.Tokens.AsNoTracking().Where(t => t.RevokedAt == null).OrderBy(t => t.Name).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<TokenView>>(
            [.. rows.Select(t => new TokenView(t.Name, t.Role, t.CreatedAt, t.ExpiresAt, t.LastUsedAt, t.Person))]);
    }

    private static async Task<Results<Ok<NewTokenView>, ProblemHttpResult>> MakeTokenAsync(
        TokenOrder order, ClaimsPrincipal user, AccessKeys keys, LogStore log, IDbContextFactory<AppDb> databases,
        CancellationToken cancel)
    {
        if (NameFault(order.Name) is { } fault) return fault;
        if (!Roles.All.Contains(order.Role))
            return Problems.Bad(
                "role", $"'{order.Role}' is not a role.", string.Join(", ", Roles.All), order.Role, Roles.All);
        if (order.Days is < 1 or > 366) return Problems.Bad("days", "A token is valid for 1 to 366 days.", "1 to 366");
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (order.Person is { } person && (person.Length is 0 or > 200 || person.Any(char.IsControl)))
            return Problems.Bad(
                "person", "This cannot be a person's name.", @"as they sign in to the console, such as FENNMOOR\a.brandt");
        if (await db.Tokens.AnyAsync(t => t.Name == order.Name && t.RevokedAt == null, cancel))
            return Problems.Bad(
                "name", $"There is a token called '{order.Name}' already.", "another name, or revoke that one first");
        var (token, row) = await keys.NewTokenAsync(
            order.Name, order.Role, TimeSpan.FromDays(order.Days), order.Person, cancel);
        await log.AddAsync(
            user.Identity!.Name!, "token", order.Name,
            $"made{(order.Person is { } of ? $" for {of}" : "")}: {row.Role}, until {row.ExpiresAt:yyyy-MM-dd}", cancel);
        return TypedResults.Ok(new NewTokenView(row.Name, row.Role, token, row.ExpiresAt));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RevokeTokenAsync(
        string name, ClaimsPrincipal user, LogStore log, TimeProvider time, IDbContextFactory<AppDb> databases,
        CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (await db.Tokens.FirstOrDefaultAsync(t => t.Name == name && t.RevokedAt == null, cancel) is not { } row)
            return Problems.NotFound(
                "token", name, await db.Tokens.Where(t => t.RevokedAt == null).Select(t => t.Name).ToListAsync(cancel));
        var (now, who) = (time.GetUtcNow(), user.Identity!.Name!);
        await log.AddWithAsync(
            journal =>
            {
                var kept = journal.Tokens.First(t => t.Id == row.Id);
                (kept.RevokedAt, kept.RevokedBy) = (now, who); // kept, so that whoever still uses it is told
            },
            who, "token", name, "revoked", cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<WhoView>, ProblemHttpResult>> SignInPersonAsync(
        PersonSignInOrder order, HttpContext http, DirectoryGate gate, LogStore log, CancellationToken cancel)
    {
        if (gate.Directory is not { } directory)
            return Problems.Of(
                404, "no-directory", "Nobody signs in to this console with a directory account.",
                "Use a one-time link; docs/operations.md explains how to set up a directory.");
        if (!http.Request.IsHttps && http.Connection.RemoteIpAddress is { } from && !IPAddress.IsLoopback(from))
            return Problems.Of(
                403, "plain-way", "A password is refused over an unprotected connection.", "Reach the console over https.");
        var (answer, person) = await gate.EnterAsync(order.Name, new NewPassword(order.Password), cancel);
        if (answer == GateAnswer.Entered)
        {
            var (name, role) = (person!.Identity!.Name!, person.FindFirstValue(ClaimTypes.Role)!);
            await http.SignInAsync(CookieAuthenticationDefaults.AuthenticationScheme, person);
            await log.AddAsync(name, "sign-in", "console", $"as {role}, by the directory {directory}", cancel);
            return TypedResults.Ok(new WhoView(name, role));
        }

        // What was typed is not written down: people type passwords into the field for the name.
        await log.AddAsync(
            "somebody", "sign-in", "console",
            $"refused, by the directory {directory}: {(answer == GateAnswer.NoRole ? "no group of theirs has a role" : answer == GateAnswer.TooOften ? "too many attempts" : "wrong name or password")}",
            cancel);
        return answer switch
        {
            GateAnswer.NoRole =>
                Problems.Of(
                    403, "no-role", "Your directory account is valid, but none of your groups has a role here.",
                    "Ask an owner which group gives a role."),
            GateAnswer.TooOften =>
                Problems.Of(
                    429, "too-often", "Too many attempts under this name.",
                    "Wait half an hour: more attempts could lock the account in the directory."),
            _ => Problems.Of(
                401, "sign-in", "Wrong name or password, or the account is disabled.",
                "Use only the logon name, such as a.brandt."),
        };
    }

    private static ProblemHttpResult? NameFault(string name) =>
        name.Length is > 0 and <= 60
            && name.All(c => char.IsAsciiLetterOrDigit(c) || "-_.@ ".Contains(c, StringComparison.Ordinal))
            ? null
            : Problems.Bad("name", "This cannot be a token's name.", "1 to 60 letters, digits, spaces or - _ . @");

    private static ProblemHttpResult WrongCode() =>
        Problems.Of(
            401, "sign-in", "This code is unknown, used or too old.",
            "Ask for a new link: restart the service with --JustRight:SignInLinks 1.");
}
