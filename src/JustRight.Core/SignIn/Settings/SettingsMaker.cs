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
        var directory = plan.Directory;
        var map = AttributeMap.Of(directory);
        var family = directory.Family == DirectoryFamily.AdLike ? "an AD-like directory" : "a directory of inetOrgPerson";
        var people = SignInFilters.People(
            directory, plan.GroupInFilter ? plan.EnterDn ?? plan.EnterName : null, plan.Wants.Nested == NestedGroups.ByFilter);
        var groups = plan.Wants.Groups is { } list ? SignInFilters.Groups(directory, plan.GroupsStart, list.BuiltIn) : null;
        var unplaced = plan.GroupInFilter && plan.EnterDn is null;
        var settings = new List<SignInSetting>();

        Add(SettingKeys.Address, directory.Address(plan.Security), $"{SecurityReason(plan)}");
        Add(SettingKeys.Host, directory.Host, $"the estate's '{directory.Key}': its certificate must have exactly this name");
        Add(
            SettingKeys.Port, directory.Offers[plan.Security].ToString(CultureInfo.InvariantCulture),
            $"where '{directory.Key}' offers {plan.Security.Word()}");
        Add(SettingKeys.Security, plan.Security.Word(), SecurityReason(plan));
        if (plan.Security != WireSecurity.Plain)
            Add(
                SettingKeys.Authorities, directory.CaFolder,
                directory.CaFolder is null
                    ? "the estate does not name the authorities to trust"
                    : "the estate's ca-folder: only certificates issued by these are to be trusted");
        AddBind(plan, settings);
        if (plan.Wants.OneBase)
        {
            var common = directory.PeopleIn.CommonWith(directory.GroupsIn);
            Add(
                SettingKeys.Base, common?.Text,
                common is null
                    ? "people and groups have no common container"
                    : "the product has one base: the nearest container of both people and groups");
        }
        else
        {
            Add(SettingKeys.PeopleBase, directory.PeopleIn.Text, $"the branch of people in '{directory.Key}'");
            Add(SettingKeys.GroupsBase, directory.GroupsIn.Text, $"the branch of groups in '{directory.Key}'");
        }

        Add(SettingKeys.PeopleClass, map.PeopleClass, $"people are of this class in {family}");
        Add(
            SettingKeys.PeopleFilter, unplaced ? null : people.Text,
            unplaced ? $"the location of {plan.EnterName} is unknown: run a survey" : PeopleReason(plan));
        if (plan.Wants.TypedName is { } typed)
            Add(
                SettingKeys.SignInFilter, unplaced ? null : SignInFilters.PersonText(people, directory, typed),
                $"the same people, and of them the one whose {map.LogonName} was typed; the product puts the name in place of {typed} and must escape it [RFC 4515]");
        Add(SettingKeys.LogonName, map.LogonName, $"what people type in {family}");
        Add(SettingKeys.DisplayName, map.DisplayName, $"the name to show in {family}");
        Add(SettingKeys.GivenName, AttributeMap.GivenName, "the same in both families");
        Add(SettingKeys.Surname, AttributeMap.Surname, "the same in both families");
        Add(SettingKeys.Mail, AttributeMap.Mail, "the same in both families");
        Add(
            SettingKeys.UniqueId, map.UniqueId,
            "it stays the same when a person is renamed or moved; logon names and DNs do not");
        Add(
            SettingKeys.MemberOf, map.MemberOf,
            map.MemberOf is null
                ? $"people in '{directory.Key}' have no attribute with their groups"
                : "people have an attribute with their direct groups");
        if (plan.EnterName is not null)
        {
            Add(
                SettingKeys.EnterGroup, plan.EnterDn,
                plan.EnterDn is null
                    ? "the group's location is unknown: run a survey"
                    : $"only its members may sign in ({plan.Wants.At})");
            Add(SettingKeys.EnterGroupName, plan.EnterName, "the same group by its name");
        }

        Add(SettingKeys.NestedGroups, plan.NestedCount ? "yes" : "no", NestedReason(plan));
        Add(SettingKeys.GroupClass, map.GroupClass, $"groups are of this class in '{directory.Key}'");
        if (groups is not null) Add(SettingKeys.GroupsFilter, groups.Text, GroupsReason(plan));
        Add(SettingKeys.GroupName, map.GroupName, "the name of a group");
        Add(SettingKeys.Member, map.Member, $"groups in '{directory.Key}' have their members there");
        Add(
            SettingKeys.MemberHolds, map.MemberIsName ? "dn" : "logon-name",
            map.MemberIsName ? "members are distinguished names" : "members are logon names");
        if (plan.Wants.PageSize is { } wanted)
        {
            var most = directory.MostInOneAnswer;
            Add(
                SettingKeys.PageSize, Math.Min(wanted, most ?? wanted).ToString(CultureInfo.InvariantCulture),
                most is null || wanted <= most
                    ? $"the product's page size ({plan.Wants.At})"
                    : $"'{directory.Key}' returns at most {most} at a time");
        }

        if (directory.Family == DirectoryFamily.AdLike)
        {
            Add(SettingKeys.Domain, plan.Domain.DnsName, "the estate's domain");
            Add(SettingKeys.ShortDomain, plan.Domain.ShortName, "the estate's domain");
        }

        return new SignInSettings(settings, [.. plan.Wants.Settings.Fields.Select(f => Fill(f, settings))], people, groups);

        void Add(string key, string? value, string because) => settings.Add(new SignInSetting(key, value, because));
    }

    private static void AddBind(PlannedSignIn plan, List<SignInSetting> settings)
    {
        var (value, because) = plan.Wants.BindForm switch
        {
            BindForm.Upn => ($"{plan.BindLogonName}@{plan.Domain.DnsName}", "the product wants name@domain"),
            BindForm.ShortName => ($"{plan.Domain.ShortName}\\{plan.BindLogonName}", "the product wants DOMAIN\\name"),
            BindForm.Dn when plan.BindDn is null =>
                (
                    null,
                    $"the product needs a distinguished name, and the location of {plan.BindLogonName} is unknown: run a survey"),
            BindForm.Dn => (plan.BindDn, "the product needs a distinguished name; it changes when the account is moved"),
        };
        settings.Add(new SignInSetting(SettingKeys.BindName, value, because));
        var secret = plan.Install.BindSecret;
        settings.Add(new SignInSetting(
            SettingKeys.BindPassword, $"<secret: {secret ?? plan.BindLogonName ?? "bind account"}>",
            secret is null
                ? "a reference; type the password that was handed over"
                : $"a reference to the secret '{secret}'; type the password itself", IsReference: true));
    }

    private static string SecurityReason(PlannedSignIn plan)
    {
        var both = $"of what the product can and '{plan.Directory.Key}' offers";
        return plan.Security switch
        {
            WireSecurity.Tls => $"the best {both}: LDAPS",
            WireSecurity.StartTls => $"the best {both}: StartTLS; check that the product does not continue without it",
            WireSecurity.Plain => $"nothing better {both}: passwords can be read on the network",
        };
    }

    private static string PeopleReason(PlannedSignIn plan)
    {
        var reason = $"objects that {FilterWords.Of(SignInFilters.People(plan.Directory, plan.GroupInFilter ? plan.EnterDn : null, plan.Wants.Nested == NestedGroups.ByFilter))}";
        if (plan.EnterName is null || plan.GroupInFilter) return reason;
        return reason + (plan.Wants.Nested == NestedGroups.ByProduct ? $"; the product itself checks who is in {plan.EnterName}" : $"; people have no attribute with their groups here, so the product must read the members of {plan.EnterName}");
    }

    private static string NestedReason(PlannedSignIn plan) => plan.Wants.Nested switch
    {
        NestedGroups.ByFilter when plan.Directory.Family == DirectoryFamily.AdLike =>
            "the filter lets the directory resolve nested groups",
        NestedGroups.ByFilter =>
            "the product leaves it to the directory, which does not resolve nested groups: only direct members count",
        NestedGroups.ByProduct => "the product resolves nested groups itself",
        NestedGroups.No => "only direct members count",
    };

    private static string GroupsReason(PlannedSignIn plan)
    {
        var starts = plan.GroupsStart.Count == 0
            ? "all groups"
            : $"groups whose names start with {string.Join(" or ", plan.GroupsStart)}";
        return $"{starts}{(plan.Wants.Groups!.BuiltIn || plan.Directory.Family != DirectoryFamily.AdLike ? "" : ", without those that a domain comes with")}: what an administrator sees when choosing one";
    }

    private static FilledField Fill(SettingsField field, List<SignInSetting> settings)
    {
        if (field.Is is null) return new FilledField(field.Name, field.Text ?? "", null, false);
        var setting = settings.FirstOrDefault(s => s.Key == field.Is);
        return new FilledField(
            field.Name, setting?.Value is { } value ? field.Words.GetValueOrDefault(value, value) : null, field.Is,
            setting?.IsReference == true);
    }
}
