using JustRight.Core.Installs;

namespace JustRight.Formats.Tests;

/// <summary>What an install is asked is what its sheet leaves open: what the demo's installs say, and no more.</summary>
public sealed class OpenQuestionsTests
{
    public static TheoryData<string> Installs =>
        [.. Directory.GetFiles(Path.Combine(Checkout.Top, "demo-data", "installs"))
            .Select(f => Path.GetFileNameWithoutExtension(f))];

    [Fact]
    public void A_question_of_yes_or_no_says_so_and_one_of_a_text_takes_any()
    {
        var estate = DemoFiles.Estate(DemoFiles.Text("estates/fennmoor.yaml")).Estate!;
        var sheet = DemoFiles.Sheet(DemoFiles.Text("sheets/thermograph.yaml")).Sheet!;
        var yesOrNo = OpenQuestions.Of(sheet, estate).Single(q => q.Field == "answers.nightly-jobs");
        yesOrNo.Known.ShouldBe(["yes", "no"]);
        yesOrNo.Default.ShouldBe("yes");
        var free = sheet with { Questions = [.. sheet.Questions.Select(q => q with { Type = Core.Conditions.ValueType.Text })] };
        OpenQuestions.Of(free, estate).Single(q => q.Field == "answers.nightly-jobs").Known.ShouldBeEmpty();
    }

    [Theory]
    [MemberData(nameof(Installs))]
    public void The_demos_installs_say_what_they_are_asked(string name)
    {
        var install = DemoFiles.Install(DemoFiles.Text($"installs/{name}.yaml")).Install!;
        var sheet = DemoFiles.Sheet(DemoFiles.Text($"sheets/{install.Product}.yaml")).Sheet!;
        var asked = OpenQuestions.Of(sheet, DemoFiles.Estate(DemoFiles.Text("estates/fennmoor.yaml")).Estate!);
        asked.Where(q => q.Field.StartsWith("places.", StringComparison.Ordinal)).Select(q => q.Field["places.".Length..])
            .ShouldBe(install.Places.Keys, ignoreOrder: true);
        install.Answers.Keys.ShouldBeSubsetOf(asked.Select(q => q.Field.Split('.')[1]));
        asked.Any(q => q.Field == "sign-in.directory").ShouldBe(install.SignIn is not null);
        foreach (var (place, binding) in install.Places)
        {
            var question = asked.Single(q => q.Field == $"places.{place}");
            binding.Values.Count.ShouldBeInRange(question.AtLeast, question.AtMost);
            if (question.Known.Count > 0 && sheet.Places.Single(p => p.Key == place).DatabaseName is null)
                binding.Values.ShouldBeSubsetOf(question.Known);
            if (question.Default is { } only) question.Known.ShouldBe([only]);
        }
    }
}
