namespace JustRight.Structure.Tests;

/// <summary>
/// Which rooms know of one another. Two that use each other cannot be moved, tested or understood one without the other.
/// </summary>
public sealed class RoomTests
{
    private const string Core = "JustRight.Core", Service = "JustRight.Service", Features = "Features";

    /// <summary>The floors of the service, the lowest first: each knows those below it, and none above.</summary>
    private static readonly string[] Floors = ["Platform", "Data", "Jobs", Features, "Hosting"];

    [Theory]
    [InlineData(Core)]
    [InlineData(Service)]
    public void No_two_rooms_use_each_other(string project) => Mutual(RoomUses.In(project)).ShouldBeEmpty();

    [Fact]
    public void Each_floor_of_the_service_knows_only_those_below_it()
    {
        var uses = RoomUses.In(Service);
        uses.SelectMany(u => new[] { Floor(u.User), Floor(u.Used) }).Distinct().Except(Floors).ShouldBeEmpty("no such floor");
        Upward(uses).ShouldBeEmpty("move what is asked for to a floor below both, or turn the question round");
    }

    [Fact]
    public void No_feature_knows_another() => Between(RoomUses.In(Service)).ShouldBeEmpty();

    [Fact]
    public void A_use_is_told_by_what_it_means_and_not_by_its_words()
    {
        const string Farm = "namespace P.Farm { public sealed record Cow(string Name) { public static int Legs => 4; } }";
        const string Words = "namespace P.Dairy { /* Cow */ class Milk { string Cow = nameof(Cow); } }";
        const string Use = "namespace P.Dairy { class Churn { int Feet() => P.Farm.Cow.Legs; } }";
        const string Back = "namespace P.Farm { class Barn { object? Churn => new P.Dairy.Churn(); } }";

        (string, string)[] files = [("Farm/Cow.cs", Farm), ("Dairy/Milk.cs", Words)];
        RoomUses.In(files, "P").ShouldBeEmpty();
        files = [.. files, ("Dairy/Churn.cs", Use)];
        (string, string, string)[] used = [("Dairy", "Farm", "Cow"), ("Dairy", "Farm", "Legs")];
        RoomUses.In(files, "P").Select(u => (u.User, u.Used, u.Name)).ShouldBe(used);
        Mutual(RoomUses.In(files, "P")).ShouldBeEmpty();
        Mutual(RoomUses.In([.. files, ("Farm/Barn.cs", Back)], "P")).ShouldBe(["Dairy + Farm"]);
    }

    [Fact]
    public void A_room_stands_on_its_floor()
    {
        const string Cow = "namespace P.Data.Farm { public sealed class Cow; }";
        const string Milk = "namespace P.Features.Milk { public sealed class Churn { P.Data.Farm.Cow? Of; } }";
        const string Cheese = "namespace P.Features.Cheese { class Round { P.Features.Milk.Churn? Of; } }";
        const string Shed = "namespace P.Data.Shed { class Shed { P.Features.Milk.Churn? In; } }";

        (string, string)[] files = [("Data/Farm/Cow.cs", Cow), ("Features/Milk/Churn.cs", Milk)];
        RoomUses.In(files, "P").Select(u => (u.User, u.Used)).ShouldBe([("Features/Milk", "Data/Farm")]);
        Upward(RoomUses.In(files, "P")).ShouldBeEmpty();
        Between(RoomUses.In(files, "P")).ShouldBeEmpty();
        Between(RoomUses.In([.. files, ("Features/Cheese/Round.cs", Cheese)], "P")).Count.ShouldBe(1);
        Upward(RoomUses.In([.. files, ("Data/Shed/Shed.cs", Shed)], "P")).Count.ShouldBe(1);
    }

    private static IReadOnlyCollection<string> Mutual(IReadOnlyList<RoomUse> uses)
    {
        var known = uses.Select(u => (u.User, u.Used)).ToHashSet();
        return
        [
            .. known.Where(pair => string.CompareOrdinal(pair.User, pair.Used) < 0 && known.Contains((pair.Used, pair.User)))
                .Select(pair => $"{pair.User} + {pair.Used}")
                .Order(StringComparer.Ordinal),
        ];
    }

    private static IReadOnlyCollection<string> Upward(IEnumerable<RoomUse> uses) =>
        Told(uses.Where(u => Array.IndexOf(Floors, Floor(u.User)) < Array.IndexOf(Floors, Floor(u.Used))));

    private static IReadOnlyCollection<string> Between(IEnumerable<RoomUse> uses) =>
        Told(uses.Where(u => Floor(u.User) == Features && Floor(u.Used) == Features));

    private static IReadOnlyCollection<string> Told(IEnumerable<RoomUse> uses) =>
        [.. uses.Select(u => $"{u.File} uses {u.Name} of {u.Used}").Distinct()];

    private static string Floor(string room) => room.Split('/')[0];
}
