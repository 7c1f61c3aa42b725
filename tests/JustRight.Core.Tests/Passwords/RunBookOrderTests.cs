using CsCheck;
using JustRight.Core.Changes;
using JustRight.Core.Hosts;
using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Passwords;

/// <summary>The order of a renewal, over generated hosts: rings of services, shared hosts, hosts that do not answer.</summary>
public sealed class RunBookOrderTests
{
    private const string Account = "svc-read";

    private static readonly Gen<(
        bool Reached, bool Read, bool Window, (bool Holds, bool Running, int[] Waits)[] Services)[]> Hosts = Gen.Select(
        Gen.Bool, Gen.Bool, Gen.Bool, Gen.Select(Gen.Bool, Gen.Bool, Gen.Int[0, 4].Array[0, 2]).Array[0, 5]).Array[0, 4];

    private static readonly Gen<(bool AtOnce, int Host, int Reference)[]> Typed = Gen.Select(
        Gen.Bool, Gen.Int[0, 3], Gen.Int[0, 5]).Array[0, 4];

    [Fact]
    public void Whatever_the_hosts_are_like_the_order_keeps_its_promises() =>
        Gen.Select(Hosts, Typed, Gen.Bool).Sample((made, typed, own) =>
    {
        var hosts = made.Select((h, i) =>
            (Name: $"fm-{i}", Known: new HostForRenewal(Snapshot($"fm-{i}", h.Read, h.Services), h.Reached, h.Window)))
            .ToDictionary(h => h.Name, h => h.Known);
        var places = made.SelectMany((h, i) =>
            h.Services.Select((s, j) => (s, j)).Where(s => s.s.Holds).Select(s => Service($"fm-{i}", $"S{s.j}")))
            .ToList();
        places.AddRange(typed.Select((t, i) => new PasswordPlace(
            Account, PasswordPlaceKind.Setting, t.Host < made.Length ? $"fm-{t.Host}" : "", "page", $"setting {i}", "stops")
        {
            ReadByService = t.AtOnce || t.Host >= made.Length ? null : "S0",
            Reference = t.Reference < 2 ? $"vault/{t.Reference}" : null,
        }));
        if (own) places.Add(new PasswordPlace(Account, PasswordPlaceKind.OwnSecret, "", "Just Right", "svc-read", "we"));
        var book = RunBookMaker.Make(
            "FENNMOOR", Account, null, places, h => hosts.GetValueOrDefault(h) ?? new HostForRenewal(null, false, false));
        var steps = book.Steps;

        steps.Select(s => s.Number).ShouldBe(Enumerable.Range(1, steps.Count));
        steps[0].Act.ShouldBe(RunBookAct.SetInDirectory);
        steps[^1].Act.ShouldBe(RunBookAct.Check);
        steps.Select(s => Rank(s, places)).ShouldBeInOrder();

        // Every place is brought in line once, those that share a reference together.
        var put = steps.Where(s => s.Puts && s.Act != RunBookAct.SetInDirectory).Select(s => s.Place).ToList();
        put.ShouldBeUnique();
        put.ShouldBe(places.Select(p => p.Reference is { } r ? $"reference|{r}" : p.Id).Distinct(), ignoreOrder: true);

        // What can be reached is given, what cannot is for a person, and said.
        foreach (var place in places.Where(p => p.Kind == PasswordPlaceKind.Service))
        {
            var machine = hosts[place.Host] is { Reached: true, Host.Unread: null };
            steps.Single(s => s.Place == place.Id).Act.ShouldBe(machine ? RunBookAct.Set : RunBookAct.Type);
            if (!machine)
                book.Remarks.ShouldContain(r =>
                    r.StartsWith(place.Words + " cannot be changed from here", StringComparison.Ordinal));
        }

        // Each running service that holds it starts anew, by one step, after all that it waits for and that starts anew too.
        foreach (var (name, known) in hosts)
        {
            var restarts = steps.Where(s => s.Act == RunBookAct.Restart && s.Host == name).Select(s => (RestartService)s.Change!)
                .ToList();
            if (known is not { Reached: true, Host.Unread: null })
            {
                restarts.ShouldBeEmpty();
                continue;
            }

            var again = restarts.SelectMany(r => r.Dependents.Prepend(r.Service)).ToList();
            var asked = places.Where(p => p.Host == name)
                .Select(p => p.Kind == PasswordPlaceKind.Service ? p.Setting : p.Reference is null ? p.ReadByService : null)
                .OfType<string>().Distinct().Where(s => known.Host!.Services.Any(k => k.Name == s && k.Running)).ToList();
            foreach (var service in asked) again.ShouldContain(service);
            var order = new ServiceOrder(known.Host!.Services);
            var free = again.Where(s => order.RingOf(s) is null && order.WaitsForAll(s).All(w => order.RingOf(w) is null))
                .ToList();
            for (var i = 0; i < restarts.Count; i++)
                for (var j = i + 1; j < restarts.Count; j++)
                    if (free.Contains(restarts[i].Service))
                        order.WaitsForAll(restarts[i].Service).ShouldNotContain(restarts[j].Service);
            if (free.Count < again.Count) continue; // in a ring nothing can be promised
            restarts.Select(r => r.Service).ShouldBeUnique();
            // it started anew with what it waits for
            for (var i = 0; i < restarts.Count; i++)
                restarts.Take(i).SelectMany(r => r.Dependents).ShouldNotContain(restarts[i].Service);
        }
    }, iter: 3000);

    [Fact]
    public void What_others_wait_for_is_restarted_first_and_they_with_it()
    {
        var host = Snapshot("fm-0", true, [(true, true, []), (true, true, [0]), (false, true, [1]), (true, false, [])]);
        var book = RunBookMaker.Make(
            "FENNMOOR", Account, null, [Service("fm-0", "S1"), Service("fm-0", "S0"), Service("fm-0", "S3")],
            _ => new HostForRenewal(host, true, false));
        book.Steps.Select(s => s.Words).ShouldBe([
            @"set a new password of FENNMOOR\svc-read in the directory", "give it to the service S1 on fm-0",
            "give it to the service S0 on fm-0", "give it to the service S3 on fm-0",
            "restart S0 on fm-0, and with it S1 and S2",
            @"sign in as FENNMOOR\svc-read with it, and check that every service runs with it"]);
        RunBookMaker.Make(
            "FENNMOOR", Account, null, [Service("fm-0", "S0")],
            _ => new HostForRenewal(Snapshot("fm-0", true, [(true, true, [1]), (false, true, [0])]), true, false))
            .Remarks.ShouldContain("On fm-0 S0 waits for S1 waits for S0: a circular dependency. Fix it before the restart.");
    }

    private static PasswordPlace Service(string host, string name) =>
        new(Account, PasswordPlaceKind.Service, host, "service", name, "stops")
        {
            Install = "x",
        };

    private static HostSnapshot Snapshot(string name, bool read, (bool Holds, bool Running, int[] Waits)[] services) =>
        !read
            ? HostSnapshot.NotRead(name, FitScene.Now, "it does not answer")
            : new HostSnapshot(name, FitScene.Now, null, [], [], [])
            {
                Services = [.. services.Select((s, i) =>
            new HostService(
                $"S{i}", @"FENNMOOR\svc-read", ServiceStart.Automatic, s.Running,
                [.. s.Waits.Where(w => w < services.Length && w != i).Distinct().Select(w => $"S{w}")]))],
            };

    /// <summary>A simpler saying of the order: what breaks soonest, and costs least, comes first.</summary>
    private static int Rank(RunBookStep step, List<PasswordPlace> places) => step.Act switch
    {
        RunBookAct.SetInDirectory => 0,
        RunBookAct.Keep => 1,
        RunBookAct.Set => 2,
        RunBookAct.Type when step.Place.StartsWith("reference|", StringComparison.Ordinal) => 3,
        RunBookAct.Type => places.First(p => p.Id == step.Place).BreaksAtOnce ? 4 : 5,
        RunBookAct.Restart => 6,
        _ => 7,
    };
}
