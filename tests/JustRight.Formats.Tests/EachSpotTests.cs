using System.Text;
using JustRight.Core.Plans;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;

namespace JustRight.Formats.Tests;

/// <summary>A place with several spots: each has conditions and alternatives of its own.</summary>
public sealed class EachSpotTests
{
    private const string OldAndNew = """
          fm-sql01: { host: fm-a, engine: sqlserver, release: "13" }
          fm-sql02: { host: fm-b, engine: sqlserver, release: "16" }
        """;

    [Theory]
    [InlineData("{ instance-role: dbcreator, at: store, when: store.release >= 16 }", "fm-sql02: dbcreator")]
    [InlineData("{ instance-role: dbcreator, at: store, when: store.release < 16 }", "fm-sql01: dbcreator")]
    [InlineData("{ instance-role: dbcreator, at: store, when: is-new }", "fm-sql02: dbcreator")]
    [InlineData("{ instance-role: dbcreator, at: store, when: store.release >= 13 }", "fm-sql01: dbcreator; fm-sql02: dbcreator")]
    [InlineData("{ local-group: L, on: web, when: store.release >= 16 }", "")] // elsewhere the lowest release counts
    [InlineData(
        "{ any-of: [ { instance-role: diskadmin, at: store, when: is-new }, { instance-role: dbcreator, at: store } ] }",
        "fm-sql01: dbcreator; fm-sql02: diskadmin")]
    [InlineData(
        "{ all-of: [ { instance-role: diskadmin, at: store }, { local-group: L, on: web } ], when: is-new }",
        "fm-sql02: diskadmin; fm-web: L")]
    public void A_row(string need, string grants)
    {
        var (plan, faults) = Plan(need, OldAndNew);
        faults.ShouldBeEmpty();
        var found = plan!.Grants.Select(g => $"{g.Right.Place}: {g.Right.Words}").Order(StringComparer.Ordinal);
        string.Join("; ", found).ShouldBe(grants);
    }

    [Fact]
    public void Each_spot_has_its_own_decision_and_a_choice_counts_where_it_is_an_alternative()
    {
        const string need =
            """
            { decision: how, any-of: [ { instance-role: diskadmin, at: store, called: new, when: is-new },
                    { instance-role: dbcreator, at: store, called: old } ] }
            """;
        var (plan, _) = Plan(need, OldAndNew);
        plan!.Decisions.Select(d => (d.Id, d.Taken)).ShouldBe([("a.how@fm-sql01", "old"), ("a.how@fm-sql02", "new")]);
        plan.Decisions[0].Reason.ShouldBe("the only alternative that applies here");

        (plan, _) = Plan(need, OldAndNew, "choices: { a.how: { take: new, why: tried, by: Maud Ferris } }\n");
        plan!.Decisions.Select(d => (d.Taken, d.ByInstall)).ShouldBe([("old", false), ("new", true)]);

        var (none, faults) = Plan(need, OldAndNew, "choices: { a.how: { take: knew, why: tried, by: Maud Ferris } }\n");
        none.ShouldBeNull();
        faults.ShouldHaveSingleItem().Code.ShouldBe("unknown-alternative");
    }

    [Fact]
    public void A_value_that_is_not_known_at_two_spots_is_one_fault()
    {
        var (_, faults) = Plan(
            "{ instance-role: dbcreator, at: store, when: store.release >= 16 }",
            "  fm-sql01: { host: fm-a, engine: sqlserver }\n  fm-sql02: { host: fm-b, engine: sqlserver }\n");
        faults.ShouldHaveSingleItem().Code.ShouldBe("condition-unknown");
    }

    private static (Plan? Plan, IReadOnlyList<Core.Faults.Fault> Faults) Plan(string need, string instances, string choices = "")
    {
        var (sheet, faults) = DemoFiles.Sheet(
            $$"""
            sheet: 1
            product: p
            release: "1"
            title: P
            source: s
            places:
              web: { kind: host }
              store: { kind: instance, engine: sqlserver, count: 1 or more }
            facts:
              is-new: store.release >= 16
            accounts:
              a:
                purpose: x
                needs:
                  - {{need}}
            """);
        faults.ShouldBeEmpty();
        var (estate, wrong) = EstateReader.Read(
            Encoding.UTF8.GetBytes(
            $$"""
            estate: 1
            name: fennmoor
            title: Fennmoor Dairy
            domain: { dns: fennmoor.example, short: FENNMOOR }
            directory: { reach: simulation }
            branches:
              service-accounts: OU=Service Accounts,DC=fennmoor,DC=example
              application-groups: OU=Application Groups,DC=fennmoor,DC=example
            naming:
              accounts: svc-{product}-{account}
              groups: app-{product}-{group}
              description: "{purpose}"
              accounts-in: service-accounts
              groups-in: application-groups
            hosts:
              fm-a: {}
              fm-b: {}
              fm-web: {}
            instances:
            {{instances}}
            """),
            "estate.yaml");
        wrong.ShouldBeEmpty();
        var (install, bad) = InstallReader.Read(
            Encoding.UTF8.GetBytes(
            $$"""
            install: 1
            name: p-here
            product: p
            release: "1"
            estate: fennmoor
            stage: planned
            places:
              web: fm-web
              store: [fm-sql01, fm-sql02]
            {{choices}}
            """),
            "install.yaml");
        bad.ShouldBeEmpty();
        return Planner.Make(sheet!, estate!, install!, NameIndex.Empty);
    }
}
