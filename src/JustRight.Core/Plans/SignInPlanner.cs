using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;

namespace JustRight.Core.Plans;

/// <summary>Lays what a sheet says of signing in over the directory that the install names.</summary>
internal static class SignInPlanner
{
    /// <summary>The planned sign-in; null when there is none, or with faults.</summary>
    public static PlannedSignIn? Make(
        Sheet sheet, Estate estate, Install install, PlaceMap places, PlanNames names, List<string> notes, List<Fault> faults)
    {
        if (install.SignIn is not { } here)
        {
            if (sheet.SignIn is not null)
                notes.Add($"{sheet.Title} lets people sign in with their directory account, and the install names no directory: sign-in.directory.");
            return null;
        }

        if (sheet.SignIn is not { } wants)
        {
            faults.Add(new Fault(
                "needless-key", here.At, "sign-in", $"{sheet.Name} has no sign-in section.")
            { Expected = "no sign-in" });
            return null;
        }

        if (estate.PeopleDirectories.FirstOrDefault(d => d.Key == here.Directory) is not { } directory)
        {
            faults.Add(new Fault(
                "unknown-directory", here.Line("directory"), "sign-in.directory",
                $"'{here.Directory}' is not a people-directory of {estate.Name}.")
            {
                Expected = "a key of the estate's people-directories",
                Nearest = Spelling.Nearest(here.Directory, estate.PeopleDirectories.Select(d => d.Key)),
            });
            return null;
        }

        var account = wants.BindAccount is { } key && directory.IsOfDomain ? names.Accounts.First(a => a.Key == key) : null;
        var group = wants.Enter is { } enter && directory.IsOfDomain && here.EnterThrough is null
            ? names.Groups.First(g => g.Key == enter)
            : null;
        var before = faults.Count;
        SignInFits.Check(sheet, wants, here, directory, account, faults);
        var told = ToldOf(wants, here, directory);
        var both = wants.Security.Where(told.Offers.ContainsKey).ToList();
        if (both.Count == 0)
            faults.Add(new Fault(
                "no-way", here.Line("directory"), "sign-in.directory",
                $"{sheet.Title} and '{directory.Key}' support no common connection.")
            {
                Found = $"{Words(wants.Security)} and {Words(told.Offers.Keys)}",
                Expected = "one of tls, start-tls, plain on both sides",
            });
        var types = Typed(sheet, wants, here, directory, faults);
        var roles = SignInRoles.Of(sheet, wants, here, directory, names, faults);
        if (faults.Count > before) return null;

        return new PlannedSignIn(told, wants, here, both[0])
        {
            HostsOfPlaces = wants.Settings.Select(s => s.TypedOn).Distinct().ToDictionary(
                p => p, p => (IReadOnlyList<string>)[.. places[p].Select(s => s.Host)]),
            Domain = estate.Domain,
            PeopleType = types,
            Roles = roles,
            Memberships = SignInRoles.Memberships(wants, here, directory, group, names),
            FurtherParts = [
                .. new[] { wants.Only, here.Only }.OfType<string>().Select(FilterParser.Parse),
                .. new[] { wants.Without, here.Without }.OfType<string>().Select(f => new Filter.Not(FilterParser.Parse(f)))],
            BindLogonName = here.BindAs is null ? account?.Name : null,
            BindDn = here.BindAs ?? account?.Dn,
            EnterName = group?.Name ?? SignInRoles.NameOf(here.EnterThrough),
            EnterDn = here.EnterThrough ?? group?.Dn,
        };
    }

    /// <summary>
    /// Whether a group of the sheet says who may enter or has a role and nothing else, and groups of the directory's own stand
    /// for it here: then the domain needs none.
    /// </summary>
    public static bool HasGroupElsewhere(
        PlannedGroup group, Sheet sheet, Estate estate, Install install, IEnumerable<PlannedGrant> grants) =>
        install.SignIn is { } here && sheet.SignIn is { } wants && IsElsewhere(group.Key, wants, here, estate)
        && group.Members.Count == 0 && !sheet.Groups.Any(g => g.Members.Contains(group.Key))
            && !grants.Any(g => g.Through == group.Key);

    private static bool IsElsewhere(string group, SheetSignIn wants, InstallSignIn here, Estate estate)
    {
        var roles = wants.Roles.Where(r => r.Group == group).Select(r => here.Roles.FirstOrDefault(h => h.Key == r.Key)).ToList();
        if (wants.Enter != group && roles.Count == 0) return false;
        return estate.PeopleDirectories.Any(d => d.Key == here.Directory && !d.IsOfDomain)
            || ((wants.Enter != group || here.EnterThrough is not null) && roles.TrueForAll(r => r?.Groups.Count > 0));
    }

    /// <summary>The directory as the product is told of it.</summary>
    private static PeopleDirectory ToldOf(SheetSignIn wants, InstallSignIn here, PeopleDirectory directory) => directory with
    {
        Host = wants.SeveralServers ? directory.Host : directory.SharedName ?? directory.Host,
        OtherHosts = wants.SeveralServers ? directory.OtherHosts : [],
        Offers = here.Catalog ? directory.Catalog ?? directory.Offers : directory.Offers,
        IsCatalog = here.Catalog,
        PeopleIn = here.PeopleIn.Count > 0 ? here.PeopleIn[0] : directory.PeopleIn,
        MorePeopleIn = here.PeopleIn.Count > 0 ? [.. here.PeopleIn.Skip(1)] : directory.MorePeopleIn,
    };

    private static IReadOnlyList<TypedForm> Typed(
        Sheet sheet, SheetSignIn wants, InstallSignIn here, PeopleDirectory directory, List<Fault> faults)
    {
        foreach (var form in here.PeopleType.Where(f => !wants.PeopleType.Contains(f)))
            faults.Add(new Fault(
                "wrong-value", here.Line("people-type"), "sign-in.people-type",
                $"{sheet.Title} does not let people type their {form.Word()} ({wants.At}).")
            {
                Expected = string.Join(", ", wants.PeopleType.Select(f => f.Word())),
            });
        foreach (var form in here.PeopleType.Where(f => AttributeMap.TypedIn(directory, f) is null))
            faults.Add(new Fault(
                "wrong-value", here.Line("people-type"), "sign-in.people-type",
                $"People in '{directory.Key}' have no {form.Word()}."));
        if (here.PeopleType.Count > 1 && wants.TypedName is null)
            faults.Add(new Fault(
                "wrong-value", here.Line("people-type"), "sign-in.people-type",
                $"{sheet.Title} looks people up by one attribute: only a filter with a placeholder can look in several (typed-name).")
            { Expected = "one of them" });
        if (here.PeopleType.Count > 0) return here.PeopleType;
        if (wants.PeopleType.FirstOrDefault(f => AttributeMap.TypedIn(directory, f) is not null, (TypedForm)(-1)) is >= 0 and var first)
            return [first];
        faults.Add(new Fault(
            "wrong-family", here.Line("directory"), "sign-in.directory",
            $"What people type in {sheet.Title} is nothing that '{directory.Key}' has ({wants.At}).")
        {
            Found = string.Join(", ", wants.PeopleType.Select(f => f.Word())),
        });
        return [];
    }

    private static string Words(IEnumerable<WireSecurity> ways) => string.Join(", ", ways.Order().Select(w => w.Word()));
}
