using CsCheck;
using JustRight.Core.Changes;
using JustRight.Core.Fit.Drift;

namespace JustRight.Lab.Tests;

/// <summary>Things done in the lab behind our back, at random: the words of the difference name each of them and nothing else.</summary>
public sealed class DriftTests
{
    private const string Install = "curdhouse-portals", Domain = @"FENNMOOR\";
    private static readonly string[] Accounts = ["svc-curd-keep", "svc-curd-web", "svc-curd-read"];

    /// <summary>What may be held or not, with the words by which a difference must name it.</summary>
    private static readonly (Change Add, string Account, string Says)[] Toggles =
    [
        .. Accounts.SelectMany(a => new[] { "fm-portal01", "fm-portal02" }.Select(h => ((Change)new AddLocalGroupMember(h, "Event Log Readers", Domain + a), a, $"Event Log Readers on {h}"))),
        .. Accounts.Select(a => ((Change)new GrantLogonRight("fm-portal01", "batch", Domain + a), a, "log on as a batch job on fm-portal01")),
        .. Accounts.Take(2).Select(a => ((Change)new AddInstanceRoleMember("fm-sql03", "dbcreator", Domain + a), a, "dbcreator on fm-sql03")),
        (new GrantLogonRight("fm-portal02", "service", Domain + "svc-curd-web"), "svc-curd-web", "log on as a service on fm-portal02"), // needed: it is there at first
        (new AddDatabaseRoleMember("fm-sql03", "CurdRecipes", "db_datareader", Domain + "svc-curd-web"), "svc-curd-web", "db_datareader on fm-sql03/CurdRecipes"), // and so is this
    ];

    [Fact]
    public async Task The_words_name_every_change_and_nothing_else()
    {
        var found = 0;
        var (generator, all) = (Gen.Int[0, Toggles.Length - 1].Array[0, 9], new List<int[]>());
        generator.Sample(all.Add, iter: 25, threads: 1);
        foreach (var sequence in all)
        {
            using var lab = new DemoLab();
            await lab.VerifyAsync(Install); // an instance that does not answer at first
            var before = KeptFit.Of((await lab.VerifyAsync(Install)).Fit);
            var held = Toggles.Select((_, i) => i >= Toggles.Length - 2).ToArray();
            var first = held.ToArray();
            foreach (var i in sequence)
            {
                await lab.MakeAsync(held[i] ? Toggles[i].Add.Inverse! : Toggles[i].Add);
                held[i] = !held[i];
            }

            var lines = FitDrift.Between(before, KeptFit.Of((await lab.VerifyAsync(Install)).Fit));
            var changed = Enumerable.Range(0, Toggles.Length).Where(i => held[i] != first[i]).ToList();
            lines.Select(l => (l.Account, l.Right)).ShouldBe(changed.Select(i => (Toggles[i].Account, Toggles[i].Says)), ignoreOrder: true, string.Join(", ", sequence));
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
        using var lab = new DemoLab();
        await lab.VerifyAsync("thermograph-dataroom"); // a host that is restarting
        var (fit, worklist) = await lab.VerifyAsync("thermograph-dataroom");
        await lab.MakeAsync([.. worklist.Give.Where(s => s.Blocked is null)]);
        var lines = FitDrift.Between(KeptFit.Of(fit), KeptFit.Of((await lab.VerifyAsync("thermograph-dataroom")).Fit));
        lines.ShouldNotContain(l => l.Way == DriftWay.Worse);
        lines.ShouldContain(l => l.Words == "svc-thermo-poller: usable on FENNMOOR: needed now, and so");
    }

    [Fact]
    public async Task What_is_mended_and_what_can_no_longer_be_read_is_said_as_such()
    {
        using var lab = new DemoLab();
        var unread = KeptFit.Of((await lab.VerifyAsync(Install)).Fit);
        var (fit, worklist) = await lab.VerifyAsync(Install);
        var before = KeptFit.Of(fit);
        FitDrift.Between(unread, before).ShouldContain(l => l.Words == "fm-sql04 can be read again");
        FitDrift.Between(before, unread).ShouldContain(l => l.Words == "fm-sql04 can no longer be read" && l.Way == DriftWay.Other);
        await lab.MakeAsync(worklist.Give);
        var given = KeptFit.Of((await lab.VerifyAsync(Install)).Fit);
        FitDrift.Between(before, given).Where(l => l.Way == DriftWay.Better).Select(l => l.Words).ShouldContain(w => w.StartsWith("svc-curd-read: CurdReader runs as it on fm-portal02: as needed now"));
        FitDrift.Between(before, given).ShouldNotContain(l => l.Way == DriftWay.Worse);
        FitDrift.Between(given, before).ShouldNotContain(l => l.Way == DriftWay.Better);
    }
}
