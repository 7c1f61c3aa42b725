using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;

namespace JustRight.Core.SignIn.Settings;

/// <summary>Computes sign-in settings.</summary>
public static class SettingsMaker
{
    /// <summary>The settings of a planned sign-in.</summary>
    public static SignInSettings Make(PlannedSignIn plan)
    {
        var people = SignInFilters.People(
            plan.Directory, plan.GroupInFilter ? plan.EnterDn ?? plan.EnterName : null,
            plan.Wants.Nested == NestedGroups.ByFilter, plan.FurtherParts);
        var groups = plan.Wants.Groups is { } list
            ? SignInFilters.Groups(plan.Directory, plan.GroupsStart, list.BuiltIn)
            : null;
        List<SignInSetting> settings =
        [
            .. WaySettings.Of(plan), .. BindSettings.Of(plan), .. BaseSettings.Of(plan),
            .. PeopleSettings.Of(plan, people), .. GroupSettings.Of(plan, groups), .. Others(plan),
        ];
        var ofRoles = plan.Roles.SelectMany(r => GroupSettings.OfRole(plan, r).Select(s => (r.Key, s))).ToList();
        var unfilled = new SignInSettings(settings, ofRoles, [], people, groups);
        return unfilled with
        {
            Files = [.. plan.Wants.Settings.Select(s => new FilledFile(
                s, plan.HostsOf(s), [.. s.Fields.Select(f => SettingsFilling.Fill(f, unfilled))]))],
        };
    }

    /// <summary>A setting whose value may not be known.</summary>
    internal static SignInSetting Setting(string key, string? value, string because) =>
        new(key, value is null ? [] : [value], because);

    /// <summary>The word of a setting that is yes or no.</summary>
    internal static string YesNo(bool value) => value ? "yes" : "no";

    /// <summary>A whole number as text.</summary>
    internal static string Number(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static IEnumerable<SignInSetting> Others(PlannedSignIn plan)
    {
        if (plan.Wants.PageSize is { } wanted)
        {
            var most = plan.Directory.MostInOneAnswer;
            yield return Setting(
                SettingKeys.PageSize, Number(Math.Min(wanted, most ?? wanted)),
                most is null || wanted <= most
                    ? $"the product's page size ({plan.Wants.At})"
                    : $"'{plan.Directory.Key}' returns at most {most} at a time");
        }

        if (plan.Directory.Family != DirectoryFamily.AdLike) yield break;
        yield return Setting(SettingKeys.Domain, plan.Domain.DnsName, "the estate's domain");
        yield return Setting(SettingKeys.ShortDomain, plan.Domain.ShortName, "the estate's domain");
    }
}
