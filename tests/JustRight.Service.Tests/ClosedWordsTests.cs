using System.ComponentModel.DataAnnotations;
using System.Reflection;
using System.Text.Json;
using JustRight.Contracts;
using JustRight.Core.Calendar;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Policies;
using JustRight.Core.SecretUses;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.SignInTests;
using JustRight.Core.Surveys;

namespace JustRight.Service.Tests;

/// <summary>The closed sets of words of the API are those of the core: a value that is added there is added here.</summary>
public sealed class ClosedWordsTests
{
    public static TheoryData<Type, string, string[]> Sets => new()
    {
        { typeof(JudgementView), nameof(JudgementView.Verdict), Of<Verdict>() },
        { typeof(JudgementView), nameof(JudgementView.Team), Of<Team>() },
        { typeof(JudgementView), nameof(JudgementView.GivenBy), Of<GivenBy>() },
        { typeof(JudgementView), nameof(JudgementView.Kind), [.. NeedKinds.ByKind.Values.Select(k => k.Key), "account"] },
        { typeof(PlannedGrantView), nameof(PlannedGrantView.Until), Of<Until>() },
        { typeof(PlannedGroupView), nameof(PlannedGroupView.Scope), Of<GroupScope>() },
        { typeof(BranchFailureView), nameof(BranchFailureView.Cause), Of<FailureCause>() },
        { typeof(SignInCheckView), nameof(SignInCheckView.Cause), Of<SignInCause>() },
        { typeof(SignInCheckView), nameof(SignInCheckView.Verdict), Of<CheckVerdict>() },
        { typeof(NamedDifferenceView), nameof(NamedDifferenceView.Cause), Of<SignInCause>() },
        { typeof(PolicyGroupRuleView), nameof(PolicyGroupRuleView.Act), Of<PolicyGroupAct>() },
        { typeof(PolicyHostView), nameof(PolicyHostView.Fate), Of<LinkFate>() },
        { typeof(ReviewStand), nameof(ReviewStand.Standing), [.. Of<EntryStanding>(), "never"] },
        { typeof(SheetPlaceView), nameof(SheetPlaceView.Kind), Of<PlaceKind>() },
        { typeof(NeedDifferenceView), nameof(NeedDifferenceView.Change), Of<NeedChange>() },
        { typeof(InstallSummary), nameof(InstallSummary.Stage), [.. Of<Stage>(), ""] },
        { typeof(EstateSummary), nameof(EstateSummary.Reach), [.. Enum.GetValues<Reach>().Select(ReachWords.Of), ""] },
        {
            typeof(SecretUseView), nameof(SecretUseView.Purpose),
            [.. Enum.GetValues<SecretPurpose>().Select(p => p.Name())]
        },
    };

    [Theory]
    [MemberData(nameof(Sets))]
    public void A_set_has_the_words_of_the_core(Type view, string property, string[] words) =>
        view.GetProperty(property)!.GetCustomAttribute<AllowedValuesAttribute>()!.Values.Cast<string>()
            .ShouldBe(words, ignoreOrder: true);

    [Fact]
    public void The_page_by_symptom_has_each_cause_of_a_sign_in_that_fails()
    {
        var page = File.ReadAllText(Path.Combine(Checkout.Top, "docs", "why-nobody-can-sign-in.md"));
        foreach (var cause in Of<SignInCause>()) page.ShouldContain($"\n| `{cause}` | ");
    }

    [Fact]
    public void The_reference_has_each_neutral_name_of_a_setting_as_the_code_explains_it()
    {
        var page = File.ReadAllText(Path.Combine(Checkout.Top, "docs", "sign-in-reference.md"));
        foreach (var (key, says) in SettingKeys.All) page.ShouldContain($"\n| `{key}` | {says} |\n");
    }

    private static string[] Of<T>()
        where T : struct, Enum => [.. Enum.GetNames<T>().Select(JsonNamingPolicy.KebabCaseLower.ConvertName)];
}
