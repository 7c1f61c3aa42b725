using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Estates;

/// <summary>The hosts, accounts and groups of an estate, as lists.</summary>
internal static class EstateListEndpoints
{
    private static readonly Columns<HostSummary> Hosts = new(
        Column<HostSummary>.Of("name", h => h.Name), Column<HostSummary>.Of("system", h => h.System),
        Column<HostSummary>.Of("reach", h => h.Reach), Column<HostSummary>.Of("read", h => h.ReadAt),
        Column<HostSummary>.Of("installs", h => h.Installs.Count));

    private static readonly Columns<AccountSummary> Accounts = new(
        Column<AccountSummary>.Of("name", a => a.Name), Column<AccountSummary>.Of("state", a => a.State),
        Column<AccountSummary>.Of("password-set", a => a.PasswordSetAt), Column<AccountSummary>.Of("uses", a => a.Uses.Count));

    private static readonly Columns<GroupSummary> Groups = new(
        Column<GroupSummary>.Of("name", g => g.Name), Column<GroupSummary>.Of("state", g => g.State),
        Column<GroupSummary>.Of("members", g => g.Members), Column<GroupSummary>.Of("installs", g => g.Installs.Count));

    public static void MapEstateLists(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/hosts", HostsAsync)
            .WithName("ListHosts").WithSummary("The hosts of an estate, and when each was read: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapGet("/estates/{name}/accounts", AccountsAsync)
            .WithName("ListAccounts")
                .WithSummary("The accounts that installs need, and whether they are there: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapGet("/estates/{name}/groups", GroupsAsync)
            .WithName("ListGroups")
                .WithSummary("The groups that installs need, and whether they are there: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
    }

    private static async Task<Results<Ok<HostPage>, ProblemHttpResult>> HostsAsync(
        string name, [AsParameters] ListOrder order, Library library, EstateContents contents, CancellationToken cancel)
    {
        if (Hosts.WhyNot(order) is { } wrong) return wrong;
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var words = SoughtWords.Of(order.Search);
        var (rows, total) = Hosts.Page(
            (await contents.HostsAsync(estate, cancel)).Where(h => EstateContents.Matches(h, words)), order);
        return TypedResults.Ok(new HostPage(rows, order.Skipped, total));
    }

    private static async Task<Results<Ok<AccountPage>, ProblemHttpResult>> AccountsAsync(
        string name, [AsParameters] ListOrder order, Library library, EstateContents contents, CancellationToken cancel)
    {
        if (Accounts.WhyNot(order) is { } wrong) return wrong;
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var words = SoughtWords.Of(order.Search);
        var (rows, total) = Accounts.Page(
            (await contents.AccountsAsync(estate, cancel)).Where(a => EstateContents.Matches(a, words)), order);
        return TypedResults.Ok(new AccountPage(rows, order.Skipped, total));
    }

    private static async Task<Results<Ok<GroupPage>, ProblemHttpResult>> GroupsAsync(
        string name, [AsParameters] ListOrder order, Library library, EstateContents contents, CancellationToken cancel)
    {
        if (Groups.WhyNot(order) is { } wrong) return wrong;
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var words = SoughtWords.Of(order.Search);
        var (rows, total) = Groups.Page(
            (await contents.GroupsAsync(estate, cancel)).Where(g => EstateContents.Matches(g, words)), order);
        return TypedResults.Ok(new GroupPage(rows, order.Skipped, total));
    }
}
