using JustRight.Contracts;
using JustRight.Core.Surveys;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Estates;

/// <summary>The group policies that govern the hosts of an estate: a list, and one of them with all that it sets.</summary>
internal static class PolicyEndpoints
{
    private static readonly Columns<PolicySummary> Columns = new(
        Column<PolicySummary>.Of("name", p => p.Name + " " + p.Id), Column<PolicySummary>.Of("links", p => p.LinkedAt.Count),
        Column<PolicySummary>.Of("hosts", p => p.Hosts.Count), Column<PolicySummary>.Of("rights", p => p.Rights),
        Column<PolicySummary>.Of("groups", p => p.GroupRules));

    public static void MapPolicies(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/policies", ListAsync)
            .WithName("ListPolicies")
            .WithSummary(
                "The group policies of an estate's domain, and the hosts that each applies to: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapGet("/estates/{name}/policies/{policy}", ShowAsync)
            .WithName("ShowPolicy")
            .WithSummary(
                "A group policy from the latest survey: links, hosts, the rights that it sets, what it does to local groups")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<PolicyPage>, ProblemHttpResult>> ListAsync(
        string name, [AsParameters] ListOrder order, Library library, SurveyStore surveys, CancellationToken cancel)
    {
        if (Columns.WhyNot(order) is { } wrong) return wrong;
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var view = await surveys.LatestAsync(name, cancel);
        var words = SoughtWords.Of(order.Search);
        var all = view is null ? [] : PolicyViews.All(estate, view);
        var (rows, total) = Columns.Page(
            all.Where(p => SoughtWords.AreIn(
                words, p.Name, p.Id, string.Join(' ', p.LinkedAt), string.Join(' ', p.Hosts), p.Unread)),
            order);
        return TypedResults.Ok(new PolicyPage(rows, order.Skipped, total, PolicyViews.WhyNone(view)));
    }

    private static async Task<Results<Ok<PolicyView>, ProblemHttpResult>> ShowAsync(
        string name, string policy, Library library, SurveyStore surveys, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var view = await surveys.LatestAsync(name, cancel);
        if (view is null || PolicyViews.WhyNone(view) is not null)
            return Problems.Of(
                409, "not-surveyed", PolicyViews.WhyNone(view)!, $"Survey the estate first: justright survey {name}");
        return Find(policy, view.Policies.Policies) is { } known
            ? TypedResults.Ok(PolicyViews.Of(estate, known, view))
            : Problems.NotFound("policy", policy, view.Policies.Policies.Values.Select(p => p.Name));
    }

    /// <summary>The policy of a GUID, or of a name that only one has.</summary>
    private static GroupPolicy? Find(string policy, IReadOnlyDictionary<string, GroupPolicy> all)
    {
        if (all.TryGetValue(policy, out var known)) return known;
        var named = all.Values.Where(p => string.Equals(p.Name, policy, StringComparison.OrdinalIgnoreCase)).Take(2).ToList();
        return named.Count == 1 ? named[0] : null;
    }
}
