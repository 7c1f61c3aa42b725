using JustRight.Core.Directory;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.SignIn.Tests;

/// <summary>More people than the server gives in one answer, and groups nested six deep. The large numbers are in bench/.</summary>
public sealed class ManyPeopleTests(SceneOn<ContractorsServer> on) : IClassFixture<SceneOn<ContractorsServer>>
{
    private const int People = 1_200, Deep = 6;

    [Fact]
    public async Task They_are_counted_page_by_page_with_progress_and_a_product_that_cannot_is_told_so()
    {
        var directory = on.Server.Directory;
        using (var connection = on.Server.Write())
        {
            for (var i = 0; i < People; i++)
                connection.Add(
                    $"uid=m{i},{directory.PeopleIn.Text}", ("objectClass", ["inetOrgPerson"]), ("uid", [$"m{i}"]),
                    ("cn", [$"M {i}"]), ("sn", ["M"]));
            for (var level = Deep; level > 0; level--)
            {
                var own = Enumerable.Range(0, People).Where(i => i % Deep == level - 1)
                    .Select(i => $"uid=m{i},{directory.PeopleIn.Text}");
                connection.Add(
                    $"cn=deep-{level},{directory.GroupsIn.Text}", ("objectClass", ["groupOfNames"]),
                    (
                        "member",
                        [.. own, .. level < Deep ? [$"cn=deep-{level + 1},{directory.GroupsIn.Text}"] : Array.Empty<string>()]));
            }
        }

        var plan = on.Scene.Plan(
            WireSecurity.Tls, i => i with { ExpectedPeople = People, ExpectedNames = [], ExpectedGroups = [], MayEnter = "m7" });
        plan = plan with
        {
            EnterName = "deep-1",
            EnterDn = $"cn=deep-1,{directory.GroupsIn.Text}",
            Wants = plan.Wants with { Nested = NestedGroups.ByProduct, PageSize = 200 },
        };
        var test = await on.Scene.TryAsync(plan);
        test.People.ShouldNotBeNull().Agrees.ShouldBe(true);
        on.Scene.Counted.Where(c => c.What == "people").Select(c => c.Sofar).ShouldBe([500, 1000]);

        var all = await on.Scene.TryAsync(plan with { Wants = plan.Wants with { PageSize = null } });
        all.People.ShouldBeNull();
        all.Checks.Single(c => c.Id == "people")
            .ShouldSatisfyAllConditions(
                c => c.Verdict.ShouldBe(CheckVerdict.Fail),
                c => c.Fact.ShouldContain("returns at most 500 objects in one answer"));
    }
}
