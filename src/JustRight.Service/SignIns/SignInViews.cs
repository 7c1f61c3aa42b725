using JustRight.Contracts;
using JustRight.Core.Plans;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Cards;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.Trials;
using JustRight.Core.Surveys;
using JustRight.Formats.SignIn;

namespace JustRight.Service.SignIns;

/// <summary>Cards, trials and filters for the wire.</summary>
internal static class SignInViews
{
    public static SignInView Of(Plan plan, PlannedSignIn signIn, SettingsCard card, IReadOnlyList<CardFinding> findings, IReadOnlyList<PasswordPlaceView> places, PeopleSnapshot? people, TrialView? trial)
    {
        var settings = signIn.Wants.Settings;
        return new SignInView(
            plan.Install, plan.Title, plan.Estate, signIn.Directory.Reach == Core.Estates.Reach.Lab, signIn.Directory.Key, Family(signIn.Directory), signIn.Directory.Host,
            signIn.TypedOn, settings.Where, settings.Form.ToString().ToLowerInvariant(), SettingsFile.Write(settings.Form, card.Fields),
            $"people who {FilterWords.Of(card.People)}", card.Groups is null ? null : $"groups that {FilterWords.Of(card.Groups)}",
            [.. card.Settings.Select(s => new CardSettingView(s.Key, CardKeys.Says(s.Key), s.Value, s.Because, s.IsReference))],
            [.. card.Fields.Select(f => new CardFieldView(f.Name, f.Value, f.Key, f.IsReference))],
            [.. findings.Select(f => new CardFindingView(f.Code, f.Weight.ToString().ToLowerInvariant(), f.Key, f.Text, f.Mend))],
            places,
            people is { Unread: null } ? people.ReadAt : null, trial);
    }

    public static string Family(Core.Estates.PeopleDirectory directory) => directory.Family == DirectoryFamily.AdLike ? "ad-like" : "inetorgperson";

    public static TrialCheckView Of(TrialCheck check) => new(check.Id, check.Asks, check.Verdict.ToString().ToLowerInvariant(), check.Fact, check.Mend);

    public static TrialView Of(string job, SignInTrial trial) => new(
        job, trial.Install, trial.Directory, trial.StartedAt, trial.EndedAt, trial.IsPretend, trial.Words, [.. trial.Checks.Select(Of)], Of(trial.People), Of(trial.Groups), trial.GroupNames);

    private static ComparisonView? Of(FoundAndExpected? compared) => compared is null ? null : new ComparisonView(
        compared.Expected, compared.Found, [.. compared.Missing.Select(d => new NamedDifferenceView(d.Name, d.Why))], [.. compared.Extra.Select(d => new NamedDifferenceView(d.Name, d.Why))]);
}
