namespace JustRight.Structure.Tests;

/// <summary>No line is longer than a reader takes in at once.</summary>
public sealed class LineLengthTests
{
    /// <summary>As <c>.editorconfig</c> says it to editors.</summary>
    private const int Longest = 130;

    [Fact]
    public void Lines_have_at_most_130_characters() => ShrinkingList.Check(
        "long-lines.txt", [.. SourceFile.All.Where(file => LongLines(file.Text) > 0).Select(file => file.Path)],
        $"break its lines of more than {Longest} characters");

    [Theory]
    [InlineData(129, 0)]
    [InlineData(130, 0)]
    [InlineData(131, 1)]
    public void A_line_is_long_from_131_characters_on(int length, int lines) =>
        LongLines($"short\n{new string('x', length)}\nshort\n").ShouldBe(lines);

    private static int LongLines(string text) => text.Split('\n').Count(line => line.TrimEnd('\r').Length > Longest);
}
