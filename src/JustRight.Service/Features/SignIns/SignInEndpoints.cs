using System.Security.Claims;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.SignIns;

/// <summary>How people sign in to products: sign-in settings and sign-in tests.</summary>
internal static class SignInEndpoints
{
    private const int LongestPassword = 1000;

    public static void MapSignIns(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/sign-in", ShowAsync)
            .WithName("ShowSignIn").WithSummary("A product's sign-in settings, with a reason for each")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(400);

        api.MapPost("/installs/{name}/sign-in/tests", TryAsync)
            .WithName("TrySignIn").WithSummary("Tests a product's sign-in as the product will do it; changes nothing")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(400);

        api.MapGet("/jobs/{id}/sign-in-test", ShowTestAsync)
            .WithName("ShowSignInTest").WithSummary("What a sign-in test found")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static async Task<Results<Ok<SignInView>, ProblemHttpResult>> ShowAsync(
        string name, Library library, SignInService signInService, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing) return missing;
        return await signInService.ShowAsync(name, cancel) is { } view ? TypedResults.Ok(view) : NoSignIn(name);
    }

    private static async Task<Results<Ok<SignInTestView>, ProblemHttpResult>> ShowTestAsync(
        string id, IDbContextFactory<AppDb> databases, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var json = await db.Jobs.AsNoTracking().Where(j => j.Id == id && j.Kind == JobKind.SignIn).Select(j => j.ResultJson)
            .FirstOrDefaultAsync(cancel);
        return json is null ? Problems.NotFound("test", id, []) : TypedResults.Ok(StoredJson.Read<SignInTestView>(json));
    }

    private static ProblemHttpResult NoSignIn(string install) =>
        Problems.Of(
            404, "no-sign-in", $"Nobody signs in to {install} with a directory account.",
            "Its sheet needs a section sign-in, and the install the directory: sign-in.directory.");

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> TryAsync(
        string name, SignInTestOrder order, ClaimsPrincipal user, Library library, SignInService signInService, JobQueue queue,
        SignInTestPasswordStore typed, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing) return missing;
        (string Field, string? Typed)[] passwordsTyped =
            [("bindPassword", order.BindPassword), ("personPassword", order.PersonPassword)];
        foreach (var (field, password) in passwordsTyped)
            if (password is { Length: 0 or > LongestPassword })
                return Problems.Bad(
                    field,
                    password.Length == 0
                        ? "A directory treats an empty password as an anonymous bind [RFC 4513 5.1.2]."
                        : "This is too long for a password.",
                    "1 to 1000 characters, or none at all");
        if ((await signInService.LocateAsync(name, cancel)).SignIn is null) return NoSignIn(name);
        var passwords = new SignInTestPasswords(
            order.BindPassword is { } bind ? new NewPassword(bind) : null,
            order.PersonPassword is { } person ? new NewPassword(person) : null);
        var job = await queue.AddAsync(
            new JobOrder(JobKind.SignIn, name, user.Identity!.Name!) { Prepare = id => typed.Put(id, passwords) }, cancel);
        return TypedResults.Accepted($"/api/jobs/{job.Id}", JobViews.Of(job));
    }
}
