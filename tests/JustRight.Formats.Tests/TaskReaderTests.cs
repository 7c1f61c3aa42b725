using JustRight.Core.Sheets;

namespace JustRight.Formats.Tests;

/// <summary>Tasks of a sheet, as written; and one clear error for each that cannot be.</summary>
public sealed class TaskReaderTests
{
    private const string Locks = "{ task: locks, do: Change the locks, done-when: the old key is refused }";

    [Fact]
    public void All_that_a_task_may_say_is_read()
    {
        var (sheet, faults) = DemoFiles.Sheet(Sheet(
            Locks,
            "{ task: alarm, on: web, team: host, do: Enter the address, done-when: a trial alarm came, "
            + "waits-for: [locks, installed, account], confirmed-for-days: 30, until: installed, why: somebody must know }"));
        faults.ShouldBeEmpty();
        var needs = sheet!.Accounts[0].Needs.Cast<Need>().ToList();
        needs[0].Task.ShouldNotBeNull().Team.ShouldBe(Team.Product);
        (needs[0].Place, needs[0].ConfirmedForDays).ShouldBe((null, 365));
        needs[1].Task.ShouldNotBeNull().ShouldSatisfyAllConditions(
            t => (t.Work, t.DoneWhen, t.Team).ShouldBe(("Enter the address", "a trial alarm came", Team.Host)),
            t => t.WaitsFor.ShouldBe(["locks", "installed", "account"]));
        (needs[1].Place, needs[1].ConfirmedForDays, needs[1].Until).ShouldBe(("web", 30, Until.Installed));
    }

    [Theory]
    [InlineData("missing-key", 13, "{ task: a, do: This }")]
    [InlineData("missing-key", 13, "{ task: a, done-when: seen }")]
    [InlineData("reserved-name", 13, "{ task: installed, do: This, done-when: seen }")]
    [InlineData("unknown-task", 14, Locks, "{ task: a, do: This, done-when: seen, waits-for: [lokcs] }")]
    [InlineData("cyclic-tasks", 13, "{ task: a, do: This, done-when: seen, waits-for: [a] }")]
    [InlineData("duplicate-name", 14, Locks, Locks)]
    [InlineData("needless-key", 13, "{ logon: service, on: web, done-when: seen }")]
    [InlineData("needless-key", 13, "{ task: a, do: This, done-when: seen, lets: [walk] }")]
    [InlineData("wrong-qualifier", 13, "{ task: a, do: This, done-when: seen, at: store }")]
    [InlineData("unknown-place", 13, "{ task: a, do: This, done-when: seen, on: wbe }")]
    public void What_no_task_can_be_is_one_error_with_its_line(string code, int line, params string[] needs)
    {
        var (sheet, faults) = DemoFiles.Sheet(Sheet(needs));
        sheet.ShouldBeNull();
        var fault = faults.ShouldHaveSingleItem();
        (fault.Code, fault.At.Line).ShouldBe((code, line));
        (fault.Expected ?? fault.Message).ShouldNotBeEmpty();
    }

    [Fact]
    public void A_ring_of_tasks_is_told_with_its_way()
    {
        var (_, faults) = DemoFiles.Sheet(Sheet(
            "{ task: a, do: This, done-when: seen, waits-for: [b] }", "{ task: b, do: That, done-when: seen, waits-for: [a] }"));
        faults.Select(f => (f.Code, f.Found)).ShouldBe([("cyclic-tasks", "a -> b -> a"), ("cyclic-tasks", "b -> a -> b")]);
    }

    private static string Sheet(params string[] needs) =>
        "sheet: 1\nproduct: p\nrelease: \"1\"\ntitle: P\nsource: s\nplaces:\n  web: { kind: host }\n"
        + "  store: { kind: database, name: S }\naccounts:\n  a:\n    purpose: x\n    needs:\n"
        + string.Concat(needs.Select(n => $"      - {n}\n"));
}
