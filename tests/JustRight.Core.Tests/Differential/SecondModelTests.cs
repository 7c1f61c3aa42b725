using System.Text.RegularExpressions;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Tests.Differential;

/// <summary>
/// Verdicts on random worlds, asked for as a verification asks: they are what a second, plain model says; and hiding a part of
/// a world from its reader never turns one certain verdict into another.
/// </summary>
public sealed partial class SecondModelTests
{
    private static readonly int Worlds = int.TryParse(Environment.GetEnvironmentVariable("JUSTRIGHT_WORLDS"), out var n)
        ? n
        : 500;

    private static readonly (Right Right, Func<PlainModel, Answer> Ask)[] Questions =
    [
        (new LogonRight(SmallWorld.Host, "service"), m => m.LogsOn("Service")),
        (new LogonRight(SmallWorld.Host, "batch"), m => m.LogsOn("Batch")),
        (
            new PrivilegeRight(SmallWorld.Host, "SeIncreaseQuotaPrivilege"),
            m => new(m.HasPrivilege("SeIncreaseQuotaPrivilege"), true)),
        .. SmallWorld.LocalGroups.Select(g =>
            ((Right)new LocalGroupRight(SmallWorld.Host, g), Asks(m => new(m.HasLocalGroup(g), true)))),
        .. SmallWorld.Groups.Select(g => ((Right)new DomainGroupRight("FENNMOOR", g), Asks(m => new(m.HasGroup(g), true)))),
        .. SmallWorld.InstanceRoles.Select(r =>
            ((Right)new InstanceRoleRight(SmallWorld.Instance, r), Asks(m => m.InInstanceRole(r)))),
        .. new[] { "VIEW SERVER STATE", "VIEW SERVER PERFORMANCE STATE", "CREATE ANY DATABASE", "CONTROL SERVER" }.Select(p =>
            ((Right)new InstancePermissionRight(SmallWorld.Instance, p), Asks(m => m.AtInstance(p)))),
        .. new[] { "db_owner", "db_datareader", "clerks" }.Select(r =>
            ((Right)new DatabaseRoleRight(SmallWorld.Instance, SmallWorld.Database, r), Asks(m => m.InDatabaseRole(r)))),
        .. new[]
        {
            "SELECT", "SELECT SCHEMA::s", "SELECT OBJECT::s.p", "EXECUTE OBJECT::s.p", "ALTER SCHEMA::s",
            "TAKE OWNERSHIP OBJECT::s.p",
        }.Select(p =>
            (
                (Right)DatabasePermissionRight.Parse(
                    SmallWorld.Instance, SmallWorld.Database, OnSomething().Replace(p, " on $1")),
                Asks(m => m.InDatabase(p)))),
        (new DatabaseOwnerRight(SmallWorld.Instance, SmallWorld.Database), m => m.OwnsDatabase),
    ];

    [Fact]
    public void Every_verdict_is_what_the_plain_model_says() => ForEach(maker =>
    {
        var world = maker.World();
        var model = new PlainModel(world);
        var wrong = new List<string>();
        foreach (var (plan, verdicts) in Judged(maker, world, Hidden.Nothing))
        {
            foreach (var (right, ask) in Questions)
            {
                var (told, reason) = verdicts[right.Key];
                var expected = Expected(ask(model), plan[right.Key]);
                if (told != expected) wrong.Add($"{right.Key}: {told} ({reason}), by the model {expected}");
            }
        }

        return wrong;
    });

    [Fact]
    public void What_is_hidden_makes_a_verdict_unseen_and_never_another() => ForEach(maker =>
    {
        var world = maker.World();
        var hidden = maker.Hide();
        var stages = maker.Of([Stage.Planned, Stage.Installed]);
        var plan = Draw(maker);
        var whole = Verdicts(world, Hidden.Nothing, plan, stages);
        var seen = Verdicts(world, hidden, plan, stages);
        return
        [
            .. Questions.Where(q => seen[q.Right.Key].Verdict != Verdict.Unseen
                    && seen[q.Right.Key].Verdict != whole[q.Right.Key].Verdict)
                .Select(q => $"{q.Right.Key}: {seen[q.Right.Key]} without {hidden}, {whole[q.Right.Key]} with it"),
        ];
    });

    [Fact]
    public void Excess_is_what_the_plain_model_holds_and_nothing_asks_for() => ForEach(maker =>
    {
        var world = maker.World();
        var model = new PlainModel(world);
        var scene = world.Scene(Hidden.Nothing);
        var found = scene.Judge().Accounts[0].Judgements.Where(j => j.Verdict == Verdict.Excess).ToDictionary(j => j.Right.Key);
        return
        [
            .. Questions.Where(q => found.ContainsKey(q.Right.Key) && !q.Ask(model).IsHeld)
                .Select(q => $"{q.Right.Key} is told as excess, and not held"),
            .. Questions.Where(q => IsOwn(world, q.Right) && !found.ContainsKey(q.Right.Key))
                .Select(q => $"{q.Right.Key} is its own, and not told"),
        ];
    });

    [Fact]
    public void No_excess_is_told_that_is_not_held_or_that_another_install_needs() => ForEach(maker =>
    {
        var world = maker.World();
        var model = new PlainModel(world);
        var hidden = maker.Hide();
        var needed = maker.Some(Questions, 0.3);
        var scene = world.Scene(hidden);
        foreach (var (right, _) in needed) scene.OtherInstall($"other-{right.Key}", right);
        var found = scene.Judge().Accounts[0].Judgements.Where(j => j.Verdict == Verdict.Excess).Select(j => j.Right.Key)
            .ToHashSet();
        return
        [
            .. Questions.Where(q => found.Contains(q.Right.Key) && !q.Ask(model).IsHeld)
                .Select(q => $"{q.Right.Key} is told as excess without {hidden}, and not held"),
            .. needed.Where(q => found.Contains(q.Right.Key)).Select(q => $"{q.Right.Key} is told as excess, and needed"),
        ];
    });

    [GeneratedRegex(" (SCHEMA::|OBJECT::)")]
    private static partial Regex OnSomething();

    private static Func<PlainModel, Answer> Asks(Func<PlainModel, Answer> ask) => ask;

    /// <summary>An entry of the account itself, with nothing else that could bring it: nothing may pass it over.</summary>
    private static bool IsOwn(SmallWorld world, Right right) => right switch
    {
        LocalGroupRight local => world.Local[local.Group].Contains(SmallWorld.Account)
            && !world.Local[local.Group].Any(m => m is SmallWorld.Everyone or SmallWorld.DomainUsers),
        ListRight list => world.OnList[list.Constant].Contains(SmallWorld.Account)
            && !world.OnList[list.Constant].Any(m => m is SmallWorld.Everyone or SmallWorld.DomainUsers || m.StartsWith('@')),
        InstanceRoleRight role => IsOwnIn(world, world.Roles[role.Role]),
        DatabaseRoleRight role => IsOwnIn(world, world.RolesWithin[role.Role]),
        _ => false,
    };

    /// <summary>Where everybody is in a local group that has the role, it is everybody's.</summary>
    private static bool IsOwnIn(SmallWorld world, string[] members) => members.Contains(SmallWorld.Account)
        && !world.Local["Operators"].Any(m => m is SmallWorld.Everyone or SmallWorld.DomainUsers);

    private static (Verdict Verdict, string Reason) Told(Judgement judgement) => (judgement.Verdict, judgement.Reason);

    private static Verdict Expected(Answer answer, Asked asked) => !asked.Stands ? Verdict.Done
        : answer.Can ? Verdict.Met
        : answer.IsHeld ? Verdict.Missing
        : asked.By == GivenBy.Setup && asked.Stage == Stage.Planned ? Verdict.Pending
        : Verdict.Missing;

    private static IEnumerable<(Dictionary<string, Asked> Plan, Dictionary<string, (Verdict Verdict, string Reason)> Told)>
        Judged(WorldMaker maker, SmallWorld world, Hidden hidden)
    {
        foreach (var stage in new[] { Stage.Planned, Stage.Installed })
        {
            var plan = Draw(maker).ToDictionary(p => p.Key, p => p.Value with { Stage = stage });
            yield return (plan, Verdicts(world, hidden, plan, stage));
        }
    }

    private static Dictionary<string, Asked> Draw(WorldMaker maker) => Questions.ToDictionary(q => q.Right.Key, _ => new Asked(
        maker.Perhaps(0.3) ? GivenBy.Setup : GivenBy.Us, maker.Perhaps(0.2) ? Until.Installed : Until.Always, Stage.Planned));

    private static Dictionary<string, (Verdict Verdict, string Reason)> Verdicts(
        SmallWorld world, Hidden hidden, Dictionary<string, Asked> plan, Stage stage)
    {
        var scene = world.Scene(hidden);
        scene.Stage = stage;
        foreach (var (right, _) in Questions) scene.Need(right, plan[right.Key].By, plan[right.Key].Until);
        return scene.Judge().Accounts[0].Judgements.Where(j => j.Grant is not null).ToDictionary(j => j.Right.Key, Told);
    }

    private static void ForEach(Func<WorldMaker, IReadOnlyList<string>> check)
    {
        var wrong = Enumerable.Range(0, Worlds)
            .Select(n => (n, Wrong: check(new WorldMaker(n)))).Where(w => w.Wrong.Count > 0).ToList();
        wrong.Sum(w => w.Wrong.Count).ShouldBe(
            0, string.Join('\n', wrong.Take(12).SelectMany(w => w.Wrong.Select(t => $"world {w.n}: {t}"))));
    }

    /// <summary>How a plan asks for a right.</summary>
    private sealed record Asked(GivenBy By, Until Until, Stage Stage)
    {
        public bool Stands => Until == Until.Always || Stage == Stage.Planned;
    }
}
