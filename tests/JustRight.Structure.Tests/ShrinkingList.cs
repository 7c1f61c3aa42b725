namespace JustRight.Structure.Tests;

/// <summary>
/// What is not yet as it should be, in a text file beside the tests, one entry a line. The file may only shrink: an entry that is
/// not in it fails, and so does a line that no longer holds, until somebody takes it out.
/// </summary>
internal static class ShrinkingList
{
    /// <summary>When set to <c>yes</c>, lines that no longer hold are taken out. Nothing ever puts a line in.</summary>
    private const string Shrink = "JUSTRIGHT_SHRINK_LISTS";

    /// <summary>Holds what was found against a list.</summary>
    /// <param name="name">The list's file.</param>
    /// <param name="found">What was found, an entry each.</param>
    /// <param name="fix">What to do about an entry that is not in the list.</param>
    public static void Check(string name, IReadOnlyCollection<string> found, string fix)
    {
        var file = Path.Combine(Checkout.Top, "tests", "JustRight.Structure.Tests", name);
        var listed = File.ReadAllLines(file);
        listed.ShouldBe([.. listed.Order(StringComparer.Ordinal)]);
        if (Environment.GetEnvironmentVariable(Shrink) == "yes") File.WriteAllLines(file, listed = [.. listed.Intersect(found)]);
        found.Except(listed).ShouldBeEmpty($"not in {name}, which may only shrink: {fix}");
        listed.Except(found).ShouldBeEmpty($"better than {name} says: take it out there ({Shrink}=yes ./test structure does)");
    }
}
