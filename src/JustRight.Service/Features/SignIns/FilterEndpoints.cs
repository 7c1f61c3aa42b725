using JustRight.Connectors.People;
using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.SignIns;

/// <summary>Filters in words, and whom they find: among the people last read, or asked of the directory itself.</summary>
internal static class FilterEndpoints
{
    private const int LongestFilter = 10_000;

    private static readonly Columns<FoundObjectView> Columns = new(
        Column<FoundObjectView>.Of("dn", o => o.Dn), Column<FoundObjectView>.Of("name", o => o.Name),
        Column<FoundObjectView>.Of("logon-name", o => o.LogonName), Column<FoundObjectView>.Of("kind", o => o.Kind));

    public static void MapFilters(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/{name}/people-directories/{directory}/filter/ask", AskAsync)
            .WithName("AskFilter").WithSummary("Queries the directory itself for a filter: a page, searched and sorted")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(400).ProducesProblem(502);
        api.MapPost("/estates/{name}/people-directories/{directory}/filter", LookAsync)
            .WithName("TryFilter")
            .WithSummary("Explains a filter in words, and whom it finds among the people last read: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(400).ProducesProblem(409);
    }

    private static async Task<Results<Ok<FilterView>, ProblemHttpResult>> AskAsync(
        string name, string directory, FilterOrder order, [AsParameters] ListOrder page, Library library,
        ConnectorStore connectors, TimeProvider time, CancellationToken cancel)
    {
        if (Columns.WhyNot(page) is { } wrong) return wrong;
        var (estate, people, below, problem) = await FindAsync(name, directory, order, library, cancel);
        if (problem is not null) return problem;
        if (!FilterParser.TryParse(order.Filter, out var filter, out var fault))
            return TypedResults.Ok(Faulty(fault, 0, time.GetUtcNow()));
        using var session = await connectors.OpenPeopleForSurveyAsync(estate!, people!, cancel);
        var found = await Task.Run(() => PeopleSurvey.Find(session, people!, filter, below), cancel);
        var (rows, total) = PageOf(found.Select(KnownFinds.View), page);
        return TypedResults.Ok(
            new FilterView(
                null, filter.Text, Words(filter), found.Count, 0, rows, page.Skipped, total, [], [], time.GetUtcNow()));
    }

    private static async Task<Results<Ok<FilterView>, ProblemHttpResult>> LookAsync(
        string name, string directory, FilterOrder order, [AsParameters] ListOrder page, Library library, PeopleStore people,
        KnownFinds finds, CancellationToken cancel)
    {
        if (Columns.WhyNot(page) is { } wrong) return wrong;
        var (_, _, below, problem) = await FindAsync(name, directory, order, library, cancel);
        if (problem is not null) return problem;
        if (await people.FindAsync(name, directory, cancel) is not { } kept)
            return Problems.Of(
                409, "not-surveyed", $"No people of '{directory}' were read yet.", $"Take a survey: justright survey {name}");
        if (kept.Snapshot.Unread is { } unread)
            return Problems.Of(409, "unread", $"The people of '{directory}' could not be read: {unread}");
        if (!FilterParser.TryParse(order.Filter, out var filter, out var fault))
            return TypedResults.Ok(Faulty(fault, kept.Table.Objects.Count, kept.Snapshot.ReadAt));
        return TypedResults.Ok(Look(filter, kept, finds.Of(filter, kept, below), page));
    }

    private static FilterView Look(Filter filter, KeptPeople kept, IReadOnlyList<FoundObjectView> found, ListOrder page)
    {
        var (rows, total) = PageOf(found, page);
        return new FilterView(
            null, filter.Text, Words(filter), found.Count, kept.Table.Objects.Count, rows, page.Skipped, total,
            [.. FilterEvaluator.NotJudged(filter, kept.Table).Select(f => f.Text)],
            [.. Filter.AttributesOf(filter).Distinct(StringComparer.OrdinalIgnoreCase)
                .Where(a => kept.Table.Schema.Attribute(a) is null)], kept.Snapshot.ReadAt);
    }

    private static async Task<(
        Estate? Estate, PeopleDirectory? Directory, DistinguishedName? Below, ProblemHttpResult? Problem)> FindAsync(
        string name, string directory, FilterOrder order, Library library, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate)
            return (null, null, null, await library.NoEstateAsync(name, cancel));
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

    private static (IReadOnlyList<FoundObjectView> Rows, int Total) PageOf(IEnumerable<FoundObjectView> found, ListOrder page)
    {
        var words = SoughtWords.Of(page.Search);
        return Columns.Page(found.Where(o => SoughtWords.AreIn(words, o.Dn, o.Name, o.LogonName, o.Kind)), page);
    }

    private static FilterView Faulty(FilterFault fault, int of, DateTimeOffset at) =>
        new(
            new FilterFaultView(fault.Position, fault.Message, fault.Expected), null, null, 0, of, [], 0, 0, [], [], at);

    private static string Words(Filter filter) => $"objects that {FilterWords.Of(filter)}";
}
