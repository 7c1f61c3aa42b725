using System.Text.RegularExpressions;
using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Tests.Shared;

namespace JustRight.Core.Tests.Engines;

/// <summary>
/// Every kind of right walked through all that is asked of a right: planned, seen, denied, without a way in, implied, unread,
/// absent, given, taken, undone, said in the words of a sheet. A kind without a row fails.
/// </summary>
public sealed partial class EveryKindTests
{
    public static TheoryData<string> Kinds => [.. KindRows.All.Keys];

    [Fact]
    public void Every_kind_has_a_row() =>
        typeof(Right).Assembly.GetTypes().Where(t => t is { IsAbstract: false } && t.IsAssignableTo(typeof(Right)))
            .Select(t => t.Name).Order(StringComparer.Ordinal).ShouldBe(KindRows.All.Keys.Order(StringComparer.Ordinal));

    [Theory]
    [MemberData(nameof(Kinds))]
    public void A_kind_says_what_it_is(string kind)
    {
        var right = KindRows.All[kind].Right;
        right.Key.ShouldBe(right is InDatabaseRight { Database: var exact } // names of that family are exact
            ? right.Key.ToLowerInvariant().Replace($"/{exact.ToLowerInvariant()}", $"/{exact}", StringComparison.Ordinal)
            : right.Key.ToLowerInvariant());
        right.Words.ShouldNotBeEmpty();
        right.ToString().ShouldContain(right.Words);
        right.Reach.Points.ShouldBePositive();
        right.Reach.Reason.ShouldNotBeEmpty();
        right.Above.Select(r => r.Key).ShouldBe(KindRows.All[kind].Above);
        right.Covering.ShouldBeSubsetOf(right.Above);
        right.AtPartner("fm-sql02")?.Key.ShouldBe(KindRows.All[kind].AtPartner);
        (right.AtPartner("fm-sql02") is null).ShouldBe(KindRows.All[kind].AtPartner is null);
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void Its_identity_has_a_form_that_is_documented(string kind)
    {
        if (KindRows.All[kind].Right.JudgedBy == JudgedBy.Nobody) return; // it is none
        var forms = File.ReadLines(Path.Combine(Checkout.Top, "docs", "verdicts.md"))
            .Select(line => DocumentedForm().Match(line)).Where(m => m.Success)
            .Select(m => FormWord().Replace(Regex.Escape(m.Groups[1].Value), ".+")).ToList();
        forms.Count(f => Regex.IsMatch(KindRows.All[kind].Right.Key, $"^{f}$")).ShouldBe(1);
    }

    /// <summary>A row of the table: <c>| `logon:TYPE@HOST` | what it is |</c>.</summary>
    [GeneratedRegex("^\\| `([a-z-]+[:@][^`]*)` \\|")]
    private static partial Regex DocumentedForm();

    [GeneratedRegex("[A-Z]+")]
    private static partial Regex FormWord();

    [Theory]
    [MemberData(nameof(Kinds))]
    public void A_need_becomes_the_right_and_the_right_a_need(string kind)
    {
        var row = KindRows.All[kind];
        if (row.Asked is not var (need, spot)) return;
        AllEngines.RightOf(need, At(spot)).ShouldBe(row.Right);
        AllEngines.RightOf(need, At(spot)).GetType().ShouldBe(row.Right.GetType());
        foreach (var draft in row.Right.Draft(null!, null).Needs) // only entries of access lists look at the estate
        {
            var written = need with { Kind = draft.Kind, Value = draft.Value, Attributes = draft.Attributes, Of = draft.Of };
            AllEngines.RightOf(written, At(spot)).ShouldBe(row.Right);
            draft.Place.ShouldBeOneOf("", row.Right.Place);
            (draft.PlaceKind is null || NeedKinds.ByKind[draft.Kind].Places.Contains(draft.PlaceKind.Value)).ShouldBeTrue();
        }
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void What_is_not_held_is_not_seen_and_what_is_held_is(string kind)
    {
        var row = KindRows.All[kind];
        if (row.Held is null) return;
        var (nothing, held) = (AllEngines.View(KindScene.Nothing), AllEngines.View(row.Held(KindScene.Nothing)));
        nothing.HoldingsOf(KindScene.NodeOf(nothing)).Of(row.Right).ShouldBeNull();
        var holdings = held.HoldingsOf(KindScene.NodeOf(held));
        holdings.PathsOf(holdings.Of(row.Right).ShouldNotBeNull()).ShouldHaveSingleItem().ToString().ShouldBe(row.Path);
        row.Right.GateFor(held, holdings).State.ShouldBe(GateState.Open);
        row.Right.WhyUnread(held).ShouldBeNull();
        row.Right.AbsentIn(held).ShouldBeNull();
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void What_is_shut_does_not_count(string kind)
    {
        var row = KindRows.All[kind];
        if (row is not { Shut: var (also, why), Held: { } hold }) return;
        var view = AllEngines.View(also(hold(KindScene.Nothing)));
        var holdings = view.HoldingsOf(KindScene.NodeOf(view));
        holdings.Of(row.Right).ShouldNotBeNull();
        var gate = row.Right.GateFor(view, holdings);
        gate.State.ShouldBe(GateState.Shut);
        (gate.Denials.Count > 0 ? "denied" : gate.Why).ShouldBe(why);
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void What_was_not_read_and_what_is_not_there_is_told(string kind)
    {
        var row = KindRows.All[kind];
        (row.Right.WhyUnread(AllEngines.View(KindScene.Unread)) is not null).ShouldBe(row.IsUnreadWithoutSurvey);
        if (row.Absent is var (without, what))
            row.Right.AbsentIn(AllEngines.View(without(KindScene.Nothing))).ShouldNotBeNull().What.ShouldBe(what);
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void The_steps_that_give_it_give_it_and_undone_they_take_it(string kind)
    {
        var row = KindRows.All[kind];
        if (row.Gives.Length == 0 && row.LeftToPerson is null) return;
        var giving = RecordedGiving.Of(row.Right, AllEngines.View(KindScene.Nothing));
        giving.Steps.Select(s => s.Change).ShouldBe(row.Gives);
        giving.Steps.Select(s => s.Order).ShouldBeInOrder();
        giving.Left.SingleOrDefault().ShouldBe(row.LeftToPerson);
        // What gives a branch is told as entries; and what a person gives, no step takes.
        if (row.Held is null || row.LeftToPerson is not null || row.Right.JudgedBy == JudgedBy.Branch) return;
        if (giving.Steps[^1].Change.Inverse is not { } inverse) return;
        var view = AllEngines.View(row.Held(KindScene.Nothing));
        Lost(inverse, view).ShouldContain(row.Right);
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void The_step_that_takes_it_takes_just_it(string kind)
    {
        var row = KindRows.All[kind];
        var view = AllEngines.View((row.Held ?? (s => s))(KindScene.Nothing));
        var node = KindScene.NodeOf(view);
        var holdings = view.HoldingsOf(node);
        var path = holdings.Of(row.Right) is { } held ? holdings.PathsOf(held)[0] : new RightPath([node], []);
        var taken = row.Right.Take(new Taking(view, KindScene.Domain, path, node, KindScene.Account, [], false,
            new Dictionary<string, string>()));
        taken.Change.ShouldBe(row.Takes);
        taken.WhyNot.ShouldBe(row.NotTaken ?? "");
        if (taken.Change is not { } change) return;
        Lost(change, view).ShouldBe([row.Right]);
        change.Inverse.ShouldNotBeNull().Inverse.ShouldBe(change);
    }

    public static TheoryData<Type> Changes => [.. SampleChange.Kinds];

    [Theory]
    [MemberData(nameof(Changes))]
    public void One_engine_knows_what_a_change_takes(Type change)
    {
        var view = AllEngines.View(KindScene.Nothing);
        var made = Sample(change, KindScene.Sql);
        AllEngines.List.Count(e => e.LossesBy(made, view) is not null).ShouldBe(1);
        if (made is InstanceChange)
            AllEngines.List.Count(e => e.LossesBy(Sample(change, KindScene.Pg), view) is not null).ShouldBe(1);
    }

    private static Change Sample(Type kind, string instance) => SampleChange.Of(kind, name => name switch
    {
        "Instance" => instance,
        "Type" => "service",
        "Constant" => "SeAuditPrivilege",
        _ => KindScene.Account,
    });

    private static List<Right> Lost(Change change, SurveyView view)
    {
        var node = KindScene.NodeOf(view);
        return
        [
            .. AllEngines.LossesBy(change, view).Where(l => l.Node == node)
                .Select(l => l.Right ?? view.Membership(view.Graph.PrincipalOf(l.Group)!.Name)),
        ];
    }

    private static AskedAt At(Spot? spot) => new(spot, KindScene.Domain, "Thermograph");
}
