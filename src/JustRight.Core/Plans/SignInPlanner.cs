using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;

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
        Fits(sheet, wants, here, directory, account, faults);
        var both = wants.Security.Where(directory.Offers.ContainsKey).ToList();
        if (both.Count == 0)
            faults.Add(new Fault(
                "no-way", here.Line("directory"), "sign-in.directory",
                $"{sheet.Title} and '{directory.Key}' support no common connection.")
            {
                Found = $"{Words(wants.Security)} and {Words(directory.Offers.Keys)}",
                Expected = "one of tls, start-tls, plain on both sides",
            });
        if (faults.Count > before) return null;

        return new PlannedSignIn(directory, wants, here, both[0], [.. places[wants.Settings.TypedOn].Select(s => s.Host)])
        {
            Domain = estate.Domain,
            BindLogonName = here.BindAs is null ? account?.Name : null,
            BindDn = here.BindAs ?? account?.Dn,
            EnterName = group?.Name
                ?? (here.EnterThrough is { } dn && DistinguishedName.TryParse(dn, out var name) ? name.Parts[0].Value : null),
            EnterDn = here.EnterThrough ?? group?.Dn,
        };
    }

    /// <summary>
    /// Whether a group of the sheet says who may enter and nothing else, and a group of the directory's own stands for it here:
    /// then the domain needs none.
    /// </summary>
    public static bool HasGroupElsewhere(
        PlannedGroup group, Sheet sheet, Estate estate, Install install, IEnumerable<PlannedGrant> grants) =>
        install.SignIn is { } here && sheet.SignIn?.Enter == group.Key
        && (here.EnterThrough is not null || estate.PeopleDirectories.Any(d => d.Key == here.Directory && !d.IsOfDomain))
        && group.Members.Count == 0 && !sheet.Groups.Any(g => g.Members.Contains(group.Key))
            && !grants.Any(g => g.Through == group.Key);

    private static void Fits(
        Sheet sheet, SheetSignIn wants, InstallSignIn here, PeopleDirectory directory, PlannedAccount? account,
        List<Fault> faults)
    {
        if (!wants.Families.Contains(directory.Family))
            faults.Add(new Fault(
                "wrong-family", here.Line("directory"), "sign-in.directory",
                $"{sheet.Title} cannot use a directory of this family ({wants.At}).")
            { Found = $"'{directory.Key}'" });
        if (account is null && here.BindAs is null)
            faults.Add(new Fault(
                "missing-key", here.Line("bind-as"), "sign-in.bind-as",
                $"No account of the plan can bind to '{directory.Key}'.")
            {
                Expected = "bind-as: the distinguished name of an account of that directory",
            });
        if (here.BindAs is not null && wants.BindForm != BindForm.Dn)
            faults.Add(new Fault(
                "wrong-value", here.Line("bind-as"), "sign-in.bind-as",
                $"{sheet.Title} needs its bind account in another form than its DN ({wants.At}).")
            {
                Expected = "an account of the sheet in the estate's own domain",
            });
        if (directory.Family != DirectoryFamily.AdLike && wants.BindForm != BindForm.Dn)
            faults.Add(new Fault(
                "wrong-family", here.Line("directory"), "sign-in.directory",
                $"'{directory.Key}' accepts only DNs, and {sheet.Title} needs its bind account in another form ({wants.At})."));
        if (wants.Enter is not null && !directory.IsOfDomain && here.EnterThrough is null)
            faults.Add(new Fault(
                "missing-key", here.Line("enter-through"), "sign-in.enter-through",
                $"{sheet.Title} lets members of a group sign in, and no group of the plan is in '{directory.Key}'.")
            {
                Expected = "enter-through: the distinguished name of a group of that directory",
            });
        if (here.EnterMembers.Count > 0 && (wants.Enter is null || !directory.IsOfDomain || here.EnterThrough is not null))
            faults.Add(new Fault(
                "needless-key", here.Line("enter-members"), "sign-in.enter-members",
                "The plan has no group for sign-in here, so it can have no members.")
            {
                Expected = "a sheet with 'enter', and a directory of the estate's domain",
            });
        foreach (var (field, text) in new[] { ("bind-as", here.BindAs), ("enter-through", here.EnterThrough) })
            if (text is not null && !DistinguishedName.TryParse(text, out _))
                faults.Add(new Fault(
                    "not-a-dn", here.Line(field), $"sign-in.{field}",
                    "This is not a distinguished name.")
                {
                    Found = $"'{text}'",
                    Expected = "a name such as cn=reader,ou=Services,dc=contractors,dc=example",
                });
    }

    private static string Words(IEnumerable<WireSecurity> ways) => string.Join(", ", ways.Order().Select(w => w.Word()));
}
