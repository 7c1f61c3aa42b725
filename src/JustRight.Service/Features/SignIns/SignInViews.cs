using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Settings;
using JustRight.Core.SignIn.SignInTests;
using JustRight.Core.Surveys;
using JustRight.Formats.SignIn;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Views;
using JustRight.Service.Platform.Answers;

namespace JustRight.Service.Features.SignIns;

/// <summary>Sign-in settings, sign-in tests and filters for the wire.</summary>
internal static class SignInViews
{
    public static SignInView Of(
        Plan plan, PlannedSignIn signIn, SignInSettings settings, IReadOnlyList<SettingsFinding> findings,
        IReadOnlyList<PasswordPlaceView> places, string? ldif, PeopleSnapshot? people, SignInTestView? test)
    {
        return new SignInView(
            plan.Install, plan.Title, plan.Estate, signIn.Directory.Reach == Core.Estates.Reach.Simulation, signIn.Directory.Key,
            DocumentViews.FamilyOf(signIn.Directory), signIn.Directory.Host,
            $"people who {FilterWords.Of(settings.People)}", settings.Groups is null
                ? null
                : $"groups that {FilterWords.Of(settings.Groups)}",
            [.. settings.Settings.Select(s =>
                new SignInSettingView(s.Key, SettingKeys.Says(s.Key), s.Value, s.Because, s.IsReference))],
            [.. settings.Files.Select(f => Of(f, settings))],
            [.. signIn.Roles.Select(r =>
                new SignInRoleView(r.Key, r.Called, [.. r.Groups.Select(g => g.Dn ?? g.Name)], r.Person))],
            [.. findings.Select(f =>
                new SettingsFindingView(f.Code, f.Weight.Word(), f.Key, f.Text, f.Fix))],
            places, ldif,
            people is { Unread: null } ? people.ReadAt : null, test);
    }

    private static SignInFileView Of(FilledFile file, SignInSettings settings) => new(
        file.TypedOn, file.Is.Where, file.Is.Form.Word(), SettingsFile.Write(file.Is, file.Fields),
        [.. file.Fields.Select(f => new SignInFieldView(
            f.Name, f.Value, f.Key, f.IsReference, f.Key is null ? null : settings.Find(f.Key, f.Role)?.Because))]);

    public static SignInCheckView Of(SignInCheck check) =>
        new(check.Id, check.Asks, check.Verdict.Word(), check.Fact, check.Fix)
        {
            Cause = check.Cause?.Word(),
            Seconds = check.Took is { } took ? Math.Round(took.TotalSeconds, 3) : null,
        };

    public static SignInTestView Of(string job, SignInTest test) => new(
        job, test.Install, test.Directory, test.StartedAt, test.EndedAt, test.IsSimulated, test.Words,
        [.. test.Checks.Select(Of)], Of(test.People), Of(test.Groups), test.GroupNames);

    private static ComparisonView? Of(FoundAndExpected? compared) => compared is null ? null : new ComparisonView(
        compared.Expected, compared.Found, [.. compared.Missing.Select(Of)], [.. compared.Extra.Select(Of)]);

    private static NamedDifferenceView Of(NamedDifference difference) =>
        new(difference.Name, difference.Why?.Words) { Cause = difference.Why?.Cause.Word() };
}
