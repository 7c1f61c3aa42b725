using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Secrets;

/// <summary>Secrets go in and are never shown.</summary>
internal static class SecretEndpoints
{
    public static void MapSecrets(this IEndpointRouteBuilder api)
    {
        api.MapPut("/secrets/{name}", SetSecretAsync)
            .WithName("SetSecret").WithSummary("Keeps a secret, encrypted")
            .RequireAuthorization(Roles.Owner).ProducesProblem(400);

        api.MapDelete("/secrets/{name}", RemoveSecretAsync)
            .WithName("RemoveSecret").WithSummary("Removes a secret")
            .RequireAuthorization(Roles.Owner).ProducesProblem(404);

        api.MapGet("/installs/{name}/passwords", ListPasswordsAsync)
            .WithName("ListPasswords").WithSummary("The passwords that grants made, without their values")
            .RequireAuthorization(Roles.Reader);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SetSecretAsync(
        string name, SecretValue secret, ClaimsPrincipal user, SecretStore secrets, LogStore log, CancellationToken cancel)
    {
        if (name.Length is 0 or > 40 || !name.All(c => char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c == '-'))
            return Problems.Bad("name", "This cannot be a secret's name.", "small letters, digits and hyphens, at most 40");
        if (secret.Value.Length is 0 or > 1000)
            return Problems.Bad("value", "A secret has 1 to 1000 characters.", "1 to 1000 characters");
        var who = user.Identity!.Name!;
        await log.AddWithAsync(db => secrets.Set(db, name, secret.Value, who), who, "secret", name, "set", cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveSecretAsync(
        string name, ClaimsPrincipal user, LogStore log, IDbContextFactory<AppDb> databases, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (!await db.Secrets.AnyAsync(s => s.Name == name, cancel))
            return Problems.NotFound("secret", name, await db.Secrets.Select(s => s.Name).ToListAsync(cancel));
        await log.AddWithAsync(
            kept => kept.Secrets.RemoveRange(kept.Secrets.Where(s => s.Name == name)),
            user.Identity!.Name!, "secret", name, "removed", cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<IReadOnlyList<PasswordView>>> ListPasswordsAsync(
        string name, IDbContextFactory<AppDb> databases, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.Passwords.AsNoTracking().Where(p => p.Install == name).OrderBy(p => p.Account)
            .ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<PasswordView>>(
            [.. rows.Select(p => new PasswordView(p.Account, p.CreatedAt, p.HandedOverAt, p.HandedOverBy))]);
    }
}
