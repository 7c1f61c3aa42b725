using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Estates;

/// <summary>What an estate holds that installs have to do with, as lists.</summary>
internal static class EstateListEndpoints
{
    private static readonly Columns<HostSummary> Hosts = new(
        Column<HostSummary>.Of("name", h => h.Name), Column<HostSummary>.Of("system", h => h.System),
        Column<HostSummary>.Of("reach", h => h.Reach), Column<HostSummary>.Of("read", h => h.ReadAt),
        Column<HostSummary>.Of("installs", h => h.Installs.Count));

    private static readonly Columns<InstanceSummary> Instances = new(
        Column<InstanceSummary>.Of("name", i => i.Name), Column<InstanceSummary>.Of("engine", i => i.Engine + " " + i.Release),
        Column<InstanceSummary>.Of("host", i => i.Host), Column<InstanceSummary>.Of("reach", i => i.Reach),
        Column<InstanceSummary>.Of("read", i => i.ReadAt), Column<InstanceSummary>.Of("installs", i => i.Installs.Count));

    private static readonly Columns<AccountSummary> Accounts = new(
        Column<AccountSummary>.Of("name", a => a.Name), Column<AccountSummary>.Of("state", a => a.State),
        Column<AccountSummary>.Of("password-set", a => a.PasswordSetAt), Column<AccountSummary>.Of("uses", a => a.Uses.Count));

    private static readonly Columns<GroupSummary> Groups = new(
        Column<GroupSummary>.Of("name", g => g.Name), Column<GroupSummary>.Of("state", g => g.State),
        Column<GroupSummary>.Of("members", g => g.Members), Column<GroupSummary>.Of("installs", g => g.Installs.Count));

    private static readonly Columns<OrganizationalUnitSummary> Units = new(
        Column<OrganizationalUnitSummary>.Of("dn", u => u.Dn), Column<OrganizationalUnitSummary>.Of("branch", u => u.Branch),
        Column<OrganizationalUnitSummary>.Of("state", u => u.State),
        Column<OrganizationalUnitSummary>.Of("accounts", u => u.Accounts.Count),
        Column<OrganizationalUnitSummary>.Of("hosts", u => u.Hosts.Count),
        Column<OrganizationalUnitSummary>.Of("policies", u => u.Policies.Count));

    public static void MapEstateLists(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/hosts", HostsAsync)
            .WithName("ListHosts").WithSummary("The hosts of an estate, and when each was read: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapGet("/estates/{name}/instances", InstancesAsync)
            .WithName("ListInstances")
            .WithSummary("The database instances of an estate, and when each was read: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapGet("/estates/{name}/accounts", AccountsAsync)
            .WithName("ListAccounts")
            .WithSummary("The accounts that installs need, and whether they are there: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapGet("/estates/{name}/groups", GroupsAsync)
            .WithName("ListGroups")
            .WithSummary("The groups that installs need, and whether they are there: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapGet("/estates/{name}/ous", UnitsAsync)
            .WithName("ListOrganizationalUnits")
            .WithSummary(
                "The organizational units that installs have to do with, what lies in each and which policies are linked there: "
                + "a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
    }

    private static Task<Results<Ok<HostPage>, ProblemHttpResult>> HostsAsync(
        string name, [AsParameters] ListOrder order, Library library, EstateContents contents, CancellationToken cancel) =>
        PageAsync(
            name, order, library, Hosts, contents.HostsAsync, EstateContents.Matches,
            (rows, total) => new HostPage(rows, order.Skipped, total), cancel);

    private static Task<Results<Ok<InstancePage>, ProblemHttpResult>> InstancesAsync(
        string name, [AsParameters] ListOrder order, Library library, EstateContents contents, CancellationToken cancel) =>
        PageAsync(
            name, order, library, Instances, contents.InstancesAsync, EstateContents.Matches,
            (rows, total) => new InstancePage(rows, order.Skipped, total), cancel);

    private static Task<Results<Ok<AccountPage>, ProblemHttpResult>> AccountsAsync(
        string name, [AsParameters] ListOrder order, Library library, EstateContents contents, CancellationToken cancel) =>
        PageAsync(
            name, order, library, Accounts, contents.AccountsAsync, EstateContents.Matches,
            (rows, total) => new AccountPage(rows, order.Skipped, total), cancel);

    private static Task<Results<Ok<GroupPage>, ProblemHttpResult>> GroupsAsync(
        string name, [AsParameters] ListOrder order, Library library, EstateContents contents, CancellationToken cancel) =>
        PageAsync(
            name, order, library, Groups, contents.GroupsAsync, EstateContents.Matches,
            (rows, total) => new GroupPage(rows, order.Skipped, total), cancel);

    private static Task<Results<Ok<OrganizationalUnitPage>, ProblemHttpResult>> UnitsAsync(
        string name, [AsParameters] ListOrder order, Library library, OrganizationalUnits units, CancellationToken cancel) =>
        PageAsync(
            name, order, library, Units, units.ListAsync, OrganizationalUnits.Matches,
            (rows, total) => new OrganizationalUnitPage(rows, order.Skipped, total), cancel);

    private static async Task<Results<Ok<TPage>, ProblemHttpResult>> PageAsync<TRow, TPage>(
        string name, ListOrder order, Library library, Columns<TRow> columns,
        Func<Estate, CancellationToken, Task<IReadOnlyList<TRow>>> read, Func<TRow, string[], bool> matches,
        Func<IReadOnlyList<TRow>, int, TPage> page, CancellationToken cancel)
    {
        if (columns.WhyNot(order) is { } wrong) return wrong;
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var words = SoughtWords.Of(order.Search);
        var (rows, total) = columns.Page((await read(estate, cancel)).Where(r => matches(r, words)), order);
        return TypedResults.Ok(page(rows, total));
    }
}
