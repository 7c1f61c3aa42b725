using System.Net;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>What an estate holds, as its lists and pages tell it: instances, organizational units, policies, reviews.</summary>
public sealed class EstateListTests
{
    private const string Jobs = "OU=Job Servers,OU=Servers,OU=Fennmoor,DC=fennmoor,DC=example";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Before_a_survey_nothing_is_told_as_there()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        var estate = (await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), Cancel))
            .Replace("name: fennmoor", "name: unread", StringComparison.Ordinal);
        (await service.AddAsync("estates", "unread.yaml", Encoding.UTF8.GetBytes(estate))).EnsureSuccessStatusCode();

        var units = (await service.GetAsync("estates/unread/ous", ContractsJson.Default.OrganizationalUnitPage)).Items;
        units.Select(u => u.Branch).ShouldContain("service-accounts");
        units.ShouldAllBe(u => u.State == "unseen" && u.BlocksInheritance == null);
        var instances = (await service.GetAsync("estates/unread/instances", ContractsJson.Default.InstancePage)).Items;
        instances.Select(i => i.Name).ShouldContain("fm-sql01");
        instances.ShouldAllBe(i => i.ReadAt == null && i.Databases == null);
        var policies = await service.GetAsync("estates/unread/policies", ContractsJson.Default.PolicyPage);
        (policies.Total, policies.Unread).ShouldBe((0, "The estate was not surveyed yet."));
        using var policy = await service.Http.GetAsync("/api/estates/unread/policies/any", Cancel);
        policy.StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_unit_says_what_lies_in_it_and_what_is_linked_there()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync("estates/fennmoor/survey");
        var units = (await service.GetAsync("estates/fennmoor/ous", ContractsJson.Default.OrganizationalUnitPage)).Items;
        var jobs = units.Single(u => u.Dn == Jobs);
        jobs.ShouldSatisfyAllConditions(
            u => u.State.ShouldBe("there"), u => u.Hosts.ShouldContain("fm-night01"),
            u => u.Policies.ShouldBe(["Job servers: who may log on"]), u => u.BlocksInheritance.ShouldBe(false));
        // what an account lies in is there, and named after the estate's branch
        units.Where(u => u.Accounts.Count > 0).ShouldNotBeEmpty();
        units.Where(u => u.Accounts.Count > 0).ShouldAllBe(u => u.State == "there");
    }

    [Fact]
    public async Task An_ou_that_a_product_is_to_have_to_itself_is_listed_as_not_there_before_it_is_made()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        const string Above = "OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example";
        var estate = (await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), Cancel))
            .Replace("\n  accounts-in: service-accounts", $"\n  accounts-in: 'OU={{product}},{Above}'", StringComparison.Ordinal);
        (await service.AddAsync("estates", "fennmoor.yaml", Encoding.UTF8.GetBytes(estate))).EnsureSuccessStatusCode();
        await service.RunAsync("estates/fennmoor/survey");
        var units = (await service.GetAsync("estates/fennmoor/ous?take=200", ContractsJson.Default.OrganizationalUnitPage)).Items;
        var own = units.Single(u => u.Dn == $"OU=thermo,{Above}");
        (own.State, own.Branch).ShouldBe(("not-there", ""));
        units.Single(u => u.Branch == "service-accounts").State.ShouldBe("there");
    }

    [Fact]
    public async Task A_policy_says_which_rights_it_sets_and_on_which_hosts_that_counts()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync("estates/fennmoor/survey");
        var listed = (await service.GetAsync("estates/fennmoor/policies?search=job", ContractsJson.Default.PolicyPage)).Items
            .ShouldHaveSingleItem();
        (listed.LinkedAt.Single(), listed.Rights).ShouldBe((Jobs, 2));
        listed.Hosts.ShouldContain("fm-night01");

        foreach (var name in new[] { listed.Id, listed.Name })
        {
            var policy = await service.GetAsync(
                $"estates/fennmoor/policies/{Uri.EscapeDataString(name)}", ContractsJson.Default.PolicyView);
            policy.Links.ShouldBe([new PolicyLinkView(Jobs, 1, false, false)]);
            policy.Hosts.Single(h => h.Host == "fm-night01").Fate.ShouldBe("applies");
            policy.Hosts.ShouldNotContain(h => h.Host == "fm-sql01");
            var batch = policy.Rights.Single(r => r.Constant == "SeBatchLogonRight");
            batch.Holders.ShouldBe(["Administrators", "Backup Operators"]);
            batch.DecidesOn.ShouldContain("fm-night01");
        }

        using var unknown = await service.Http.GetAsync("/api/estates/fennmoor/policies/Job%20server", Cancel);
        (await unknown.Content.ReadAsStringAsync(Cancel)).ShouldContain("There is no policy called");
    }

    [Fact]
    public async Task Reviews_say_of_every_install_who_looked_and_when_to_look_again()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync("installs/curdhouse-books/verify");
        var latest = (await service.GetAsync("installs/curdhouse-books/history", ContractsJson.Default.IReadOnlyListKeptFitView))
            .Max(h => h.Number);
        (await service.Http.PostAsJsonAsync(
            "/api/installs/curdhouse-books/reviews", new ReviewOrder(latest, "Maud Ferris", new DateOnly(2099, 1, 1)),
            ContractsJson.Default.ReviewOrder, Cancel)).StatusCode.ShouldBe(HttpStatusCode.BadRequest); // more than ten years on
        var by = DateOnly.FromDateTime(DateTime.UtcNow.AddDays(90));
        (await service.Http.PostAsJsonAsync(
            "/api/installs/curdhouse-books/reviews", new ReviewOrder(latest, "Maud Ferris", by),
            ContractsJson.Default.ReviewOrder, Cancel)).EnsureSuccessStatusCode();

        var stands = (await service.GetAsync(
            "estates/fennmoor/reviews?sort=-reviewed", ContractsJson.Default.ReviewStandPage)).Items;
        stands.Count.ShouldBe((await service.InstallsAsync()).Count(i => i.Estate == "fennmoor"));
        var reviewed = stands.Single(s => s.Install == "curdhouse-books");
        (reviewed.Latest!.By, reviewed.Standing).ShouldBe(("Maud Ferris", "later"));
        DateOnly.FromDateTime(reviewed.DueAt!.Value.DateTime).ShouldBe(by);
        stands.Where(s => s.Install != "curdhouse-books").ShouldAllBe(s => s.Latest == null);
    }
}
