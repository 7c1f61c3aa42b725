using CsCheck;
using JustRight.Core.Changes;
using JustRight.Core.Fit.Drift;

namespace JustRight.Simulation.Tests;

/// <summary>Things done in the simulation behind our back, at random: the words of the difference name each of them and nothing else.</summary>
public sealed class DriftTests
{
    private const string Install = "curdhouse-books", Domain = @"FENNMOOR\";
    private static readonly string[] Accounts = ["svc-curd-book", "svc-curd-labeller", "svc-curd-cards"];

    /// <summary>What may be held or not, with the words by which a difference must name it.</summary>
    private static readonly (Change Add, string Account, string Says)[] Toggles =
    [
        .. Accounts.SelectMany(a =>
            new[] { "fm-book01", "fm-book02" }.Select(h =>
                ((Change)new AddLocalGroupMember(h, "Event Log Readers", Domain + a), a, $"Event Log Readers on {h}"))),
        .. Accounts.Select(a =>
            ((Change)new GrantLogonRight("fm-book01", "batch", Domain + a), a, "log on as a batch job on fm-book01")),
        .. Accounts.Take(2)
            .Select(a => ((Change)new AddInstanceRoleMember("fm-sql03", "dbcreator", Domain + a), a, "dbcreator on fm-sql03")),
        // needed: it is there at first
        (
            new GrantLogonRight("fm-book02", "service", Domain + "svc-curd-labeller"), "svc-curd-labeller",
            "log on as a service on fm-book02"),
        // and so is this
        (
            new AddDatabaseRoleMember("fm-sql03", "CurdRecipes", "db_datareader", Domain + "svc-curd-labeller"),
            "svc-curd-labeller", "db_datareader on fm-sql03/CurdRecipes"),
    ];

    [Fact]
    public async Task The_words_name_every_change_and_nothing_else()
    {
        var found = 0;
        var (generator, all) = (Gen.Int[0, Toggles.Length - 1].Array[0, 9], new List<int[]>());
        generator.Sample(all.Add, iter: 25, threads: 1);
        foreach (var sequence in all)
        {
            using var simulation = new DemoSimulation();
            await simulation.VerifyAsync(Install); // an instance that does not answer at first
            var before = KeptFit.Of((await simulation.VerifyAsync(Install)).Fit);
            var held = Toggles.Select((_, i) => i >= Toggles.Length - 2).ToArray();
            var first = held.ToArray();
            foreach (var i in sequence)
            {
                await simulation.MakeAsync(held[i] ? Toggles[i].Add.Inverse! : Toggles[i].Add);
                held[i] = !held[i];
            }

            var lines = FitDrift.Between(before, KeptFit.Of((await simulation.VerifyAsync(Install)).Fit));
            var changed = Enumerable.Range(0, Toggles.Length).Where(i => held[i] != first[i]).ToList();
            lines.Select(l => (l.Account, l.Right))
                .ShouldBe(
                    changed.Select(i => (Toggles[i].Account, Toggles[i].Says)), ignoreOrder: true, string.Join(", ", sequence));
            lines.ShouldAllBe(l => l.Way == DriftWay.Worse); // more than is needed, or less
            lines.ShouldAllBe(l => l.Words.StartsWith(l.Account, StringComparison.Ordinal) && l.Words.Contains(l.Right));
            FitDrift.Between(before, before).ShouldBeEmpty();
            found += lines.Count;
        }

        found.ShouldBeGreaterThan(25); // something was there to be found
    }

    [Fact]
    public async Task Accounts_that_are_made_bring_needs_of_their_own_and_nothing_too_much()
    {
        using var simulation = new DemoSimulation();
        await simulation.VerifyAsync("thermograph-dataroom"); // a host that is restarting
        var (fit, worklist) = await simulation.VerifyAsync("thermograph-dataroom");
        await simulation.MakeAsync([.. worklist.Give.Where(s => s.Blocked is null)]);
        var lines = FitDrift.Between(KeptFit.Of(fit), KeptFit.Of((await simulation.VerifyAsync("thermograph-dataroom")).Fit));
        lines.ShouldNotContain(l => l.Way == DriftWay.Worse);
        lines.ShouldContain(l => l.Words == "svc-thermo-poller: usable on FENNMOOR: needed now, and so");
    }

    [Fact]
    public async Task What_is_fixed_and_what_can_no_longer_be_read_is_said_as_such()
    {
        using var simulation = new DemoSimulation();
        var unread = KeptFit.Of((await simulation.VerifyAsync(Install)).Fit);
        var (fit, worklist) = await simulation.VerifyAsync(Install);
        var before = KeptFit.Of(fit);
        FitDrift.Between(unread, before).ShouldContain(l => l.Words == "fm-sql04 can be read again");
        FitDrift.Between(before, unread)
            .ShouldContain(l => l.Words == "fm-sql04 can no longer be read" && l.Way == DriftWay.Other);
        await simulation.MakeAsync(worklist.Give);
        var given = KeptFit.Of((await simulation.VerifyAsync(Install)).Fit);
        FitDrift.Between(before, given).Where(l => l.Way == DriftWay.Better).Select(l => l.Words)
            .ShouldContain(w => w.StartsWith("svc-curd-cards: CurdCards runs as it on fm-book02: as needed now"));
        FitDrift.Between(before, given).ShouldNotContain(l => l.Way == DriftWay.Worse);
        FitDrift.Between(given, before).ShouldNotContain(l => l.Way == DriftWay.Better);
    }
}
