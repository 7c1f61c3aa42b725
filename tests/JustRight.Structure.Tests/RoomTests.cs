namespace JustRight.Structure.Tests;

/// <summary>
/// Which rooms know of one another. Two that use each other cannot be moved, tested or understood one without the other.
/// </summary>
public sealed class RoomTests
{
    [Theory]
    [InlineData("JustRight.Core", "mutual-rooms-core.txt")]
    [InlineData("JustRight.Service", "mutual-rooms-service.txt")]
    public void Rooms_that_use_each_other_become_fewer(string project, string list) =>
        ShrinkingList.Check(list, Mutual(RoomUses.In(project)), "let one of the two do without the other");

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
}
