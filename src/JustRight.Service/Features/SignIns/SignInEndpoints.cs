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

/// <summary>How people sign in to products: sign-in settings, sign-in tests, and whom filters find.</summary>
internal static class SignInEndpoints
{
    private const int MostShown = 200, LongestPassword = 1000, LongestFilter = 10_000;

    public static void MapSignIns(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/sign-in", async Task<Results<Ok<SignInView>, ProblemHttpResult>> (
            string name, Library library, SignInService signInService, CancellationToken cancel) =>
            await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing ? missing
                : await signInService.ShowAsync(name, cancel) is { } view ? TypedResults.Ok(view)
                : NoSignIn(name))
            .WithName("ShowSignIn").WithSummary("A product's sign-in settings, with a reason for each")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(400);

        api.MapPost("/installs/{name}/sign-in/tests", TryAsync)
            .WithName("TrySignIn").WithSummary("Tests a product's sign-in as the product will do it; changes nothing")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(400);

        api.MapGet("/jobs/{id}/sign-in-test", async Task<Results<Ok<SignInTestView>, ProblemHttpResult>> (
            string id, IDbContextFactory<AppDb> databases, CancellationToken cancel) =>
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            var json = await db.Jobs.AsNoTracking().Where(j => j.Id == id && j.Kind == JobKind.SignIn).Select(j => j.ResultJson)
                .FirstOrDefaultAsync(cancel);
            return json is null ? Problems.NotFound("test", id, []) : TypedResults.Ok(StoredJson.Read<SignInTestView>(json));
        }).WithName("ShowSignInTest").WithSummary("What a sign-in test found").RequireAuthorization(Roles.Reader)
            .ProducesProblem(404);

        api.MapPost("/estates/{name}/people-directories/{directory}/filter/ask", AskAsync)
            .WithName("AskFilter").WithSummary("Queries the directory itself for a filter").RequireAuthorization(Roles.Planner)
            .ProducesProblem(404).ProducesProblem(400).ProducesProblem(502);

        api.MapPost("/estates/{name}/people-directories/{directory}/filter", LookAsync)
            .WithName("TryFilter").WithSummary("Explains a filter in words, and whom it finds among the people last read")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(400).ProducesProblem(409);
    }

    private static async Task<Results<Ok<FilterView>, ProblemHttpResult>> AskAsync(
        string name, string directory, FilterOrder order, Library library, ConnectorStore connectors, TimeProvider time,
        CancellationToken cancel)
    {
        var (estate, people, below, problem) = await FindAsync(name, directory, order, library, cancel);
        if (problem is not null) return problem;
        if (!FilterParser.TryParse(order.Filter, out var filter, out var fault))
            return TypedResults.Ok(Faulty(fault, 0, time.GetUtcNow()));
        using var session = await connectors.OpenPeopleForSurveyAsync(estate!, people!, cancel);
        var found = await Task.Run(() => PeopleSurvey.Find(session, people!, filter, below), cancel);
        return TypedResults.Ok(
            new FilterView(null, filter.Text, Words(filter), found.Count, 0, Shown(found), [], [], time.GetUtcNow()));
    }

    private static async Task<(
        Estate? Estate, PeopleDirectory? Directory, DistinguishedName? Below, ProblemHttpResult? Problem)> FindAsync(
        string name, string directory, FilterOrder order, Library library, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.EstateKind, name, cancel) is not { } row)
            return (
                null, null, null,
                Problems.NotFound("estate", name, (await library.ListAsync(Library.EstateKind, cancel)).Select(d => d.Name)));
        var estate = Library.ReadEstate(row);
        if (estate.PeopleDirectories.FirstOrDefault(d => d.Key == directory) is not { } people)
            return (
                null, null, null,
                Problems.NotFound("directory of people", directory, estate.PeopleDirectories.Select(d => d.Key)));
        if (order.Filter.Length > LongestFilter)
            return (null, null, null, Problems.Bad("filter", "This filter is too long.", $"at most {LongestFilter} characters"));
        DistinguishedName? below = null;
        if (order.Below is { Length: > 0 } text && !DistinguishedName.TryParse(text, out below))
            return (
                null, null, null,
                Problems.Bad(
                    "below", "This is not a distinguished name.", "a name such as ou=People,dc=contractors,dc=example", text));
        return (estate, people, below, null);
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
        foreach (var (field, password) in new[] { ("bindPassword", order.BindPassword), (
            "personPassword", order.PersonPassword) })
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

    private static async Task<Results<Ok<FilterView>, ProblemHttpResult>> LookAsync(
        string name, string directory, FilterOrder order, Library library, PeopleStore people, CancellationToken cancel)
    {
        var (_, _, below, problem) = await FindAsync(name, directory, order, library, cancel);
        if (problem is not null) return problem;
        if (await people.FindAsync(name, directory, cancel) is not { } kept)
            return Problems.Of(
                409, "not-surveyed", $"No people of '{directory}' were read yet.", $"Take a survey: justright survey {name}");
        if (kept.Snapshot.Unread is { } unread)
            return Problems.Of(409, "unread", $"The people of '{directory}' could not be read: {unread}");
        if (!FilterParser.TryParse(order.Filter, out var filter, out var fault))
            return TypedResults.Ok(Faulty(fault, kept.Table.Objects.Count, kept.Snapshot.ReadAt));
        return TypedResults.Ok(Look(filter, kept, below));
    }

    private static FilterView Look(Filter filter, KeptPeople kept, DistinguishedName? below)
    {
        var found = FilterEvaluator.Matching(filter, kept.Table)
            .Where(o => below is null || (DistinguishedName.TryParse(o.Dn, out var dn) && dn.IsAtOrBelow(below))).ToList();
        return new FilterView(
            null, filter.Text, Words(filter), found.Count, kept.Table.Objects.Count, Shown(found),
            [.. FilterEvaluator.NotJudged(filter, kept.Table).Select(f => f.Text)],
            [.. Filter.AttributesOf(filter).Distinct(StringComparer.OrdinalIgnoreCase).Where(a =>
                kept.Table.Schema.Attribute(a) is null)], kept.Snapshot.ReadAt);
    }

    private static FilterView Faulty(FilterFault fault, int of, DateTimeOffset at) =>
        new(new FilterFaultView(fault.Position, fault.Message, fault.Expected), null, null, 0, of, [], [], [], at);

    private static string Words(Filter filter) => $"objects that {FilterWords.Of(filter)}";

    private static List<FoundObjectView> Shown(IEnumerable<PeopleObject> found) =>
        [.. found.OrderBy(o => o.Dn, StringComparer.OrdinalIgnoreCase).Take(MostShown).Select(o =>
            new FoundObjectView(
                o.Dn, o.First("displayName") ?? o.First("cn") ?? o.Dn, o.First("sAMAccountName") ?? o.First("uid"), KindOf(o)))];

    private static string KindOf(PeopleObject one)
    {
        var classes = one.All("objectClass").ToHashSet(StringComparer.OrdinalIgnoreCase);
        return classes.Contains("computer") ? "computer"
            : classes.Contains("user") || classes.Contains("inetOrgPerson") || classes.Contains("person") ? "person"
            : classes.Any(c => c.Contains("group", StringComparison.OrdinalIgnoreCase)) ? "group"
            : "other";
    }
}
