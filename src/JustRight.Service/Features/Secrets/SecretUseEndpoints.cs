using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Secrets;

/// <summary>What secrets are asked for, and what owners allow.</summary>
internal static class SecretUseEndpoints
{
    public static void MapSecretUses(this IEndpointRouteBuilder api)
    {
        api.MapGet("/secrets", ListSecretsAsync)
            .WithName("ListSecrets").WithSummary("The secrets, without their values: what each is asked for, and what is allowed")
            .RequireAuthorization(Roles.Owner);

        api.MapPut("/secrets/{name}/uses/{use}", AllowSecretUseAsync)
            .WithName("AllowSecretUse").WithSummary("Allows a secret for one use, exactly as it is asked for")
            .RequireAuthorization(Roles.Owner).ProducesProblem(404).ProducesProblem(409);

        api.MapDelete("/secrets/{name}/uses/{use}", EndSecretUseAsync)
            .WithName("EndSecretUse").WithSummary("No longer allows a secret for a use")
            .RequireAuthorization(Roles.Owner).ProducesProblem(404);
    }

    private static async Task<Ok<IReadOnlyList<SecretView>>> ListSecretsAsync(SecretList list, CancellationToken cancel) =>
        TypedResults.Ok(await list.ReadAsync(cancel));

    private static async Task<Results<NoContent, ProblemHttpResult>> AllowSecretUseAsync(
        string name, string use, ClaimsPrincipal user, AskedUses asked, SecretAllowances allowances, SecondPerson second,
        CancellationToken cancel)
    {
        var known = (await asked.ListAsync(cancel)).Where(a => a.Subject == name).ToList();
        if (known.FirstOrDefault(a => a.Use.Id == use) is not { } found)
            return Problems.NotFound("use of this secret", use, known.Select(a => a.Use.Id));
        var act = new ProposedAct(JobKind.Allowance, name, [$"allow {name}: it {found.Use.Words}"], found.Use.Id);
        if (await second.AskAsync(
            found.Use.Estate.Length == 0 ? [] : [found.Use.Estate], act, user.Identity!.Name!, cancel) is { } waits)
            return waits;
        await allowances.AllowAsync(name, found.Use, user.Identity!.Name!, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EndSecretUseAsync(
        string name, string use, ClaimsPrincipal user, SecretAllowances allowances, CancellationToken cancel)
    {
        if (await allowances.EndAsync(name, use, user.Identity!.Name!, cancel)) return TypedResults.NoContent();
        var known = (await allowances.ListAsync(cancel)).Where(a => a.Subject == name).Select(a => a.UseId);
        return Problems.NotFound("allowed use of this secret", use, known);
    }
}
