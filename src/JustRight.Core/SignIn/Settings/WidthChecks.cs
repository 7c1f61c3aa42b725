using JustRight.Core.Directory;
using JustRight.Core.Sheets;

namespace JustRight.Core.SignIn.Settings;

/// <summary>Whether a product looks where people and groups are, and nowhere else.</summary>
internal static class WidthChecks
{
    /// <summary>Every finding.</summary>
    public static IEnumerable<SettingsFinding> Of(PlannedSignIn plan, SignInSettings settings)
    {
        var directory = plan.Directory;
        if (plan.Wants.Bases != ProductBases.One)
        {
            foreach (var (key, whose, branches) in new[] {
                (SettingKeys.PeopleBase, "people", directory.PeopleBranches),
                (SettingKeys.GroupsBase, "groups", directory.GroupsBranches) })
                if (branches.Count > 1 && plan.Wants.Bases != ProductBases.Several && settings[key] is { } wide)
                    yield return new SettingsFinding(
                        "wider-base", FindingWeight.Caution, key,
                        $"The product has one base for {whose}: it looks below {wide}, which holds more than the "
                        + $"{branches.Count} branches.",
                        "Compare who is found with who is expected, or name one branch in the install: sign-in.people-in.");
        }

        foreach (var (key, whose, looks, keeps) in new[] {
            (SettingKeys.PeopleDepth, "people", plan.PeopleDepth, directory.PeopleDepth),
            (SettingKeys.GroupsDepth, "groups", plan.GroupsDepth, directory.GroupsDepth) })
            if (looks != keeps)
                yield return new SettingsFinding(
                    "other-depth", keeps == SearchDepth.Subtree ? FindingWeight.Wrong : FindingWeight.Caution, key,
                    keeps == SearchDepth.Subtree
                        ? $"The product looks only directly below its base: {whose} further down are not found."
                        : $"The product looks through the whole branch: it also finds {whose} of the OUs inside it.",
                    keeps == SearchDepth.Subtree
                        ? "Name the OUs that directly hold them as branches, where the product takes several."
                        : "Compare who is found with who is expected.");
        if (plan.Wants is { BindsAs: BindsAs.Person, BindForm: BindForm.Dn } && directory.PeopleDepth == SearchDepth.Subtree)
            yield return new SettingsFinding(
                "template-depth", FindingWeight.Caution, SettingKeys.PersonTemplate,
                "The name that a person binds with is made by a template: it reaches those directly below "
                + $"{directory.PeopleIn.Written} alone.",
                "Compare who can sign in with who is expected; people of OUs inside it cannot.");
        if (directory.IsCatalog)
            yield return new SettingsFinding(
                "catalog", FindingWeight.Caution, SettingKeys.Port,
                "The catalog holds a part of the attributes, and of groups in other domains the members of universal ones alone.",
                "Use universal groups to let people of other domains in; the sign-in test tells which attributes are not there.");
    }
}
