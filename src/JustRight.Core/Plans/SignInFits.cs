using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>Whether what a product can, what a directory is and what an install says go together.</summary>
internal static class SignInFits
{
    /// <summary>Adds what does not.</summary>
    /// <param name="account">The account of the plan that the product binds as; null when it is none of the plan.</param>
    public static void Check(
        Sheet sheet, SheetSignIn wants, InstallSignIn here, PeopleDirectory directory, PlannedAccount? account,
        List<Fault> faults)
    {
        if (!wants.Families.Contains(directory.Family))
            faults.Add(new Fault(
                "wrong-family", here.Line("directory"), "sign-in.directory",
                $"{sheet.Title} cannot use a directory of this family ({wants.At}).")
            { Found = $"'{directory.Key}'" });
        Bind(sheet, wants, here, directory, account, faults);
        if (wants.Enter is not null && !directory.IsOfDomain && here.EnterThrough is null)
            faults.Add(new Fault(
                "missing-key", here.Line("enter-through"), "sign-in.enter-through",
                $"{sheet.Title} lets members of a group sign in, and no group of the plan is in '{directory.Key}'.")
            {
                Expected = "enter-through: the distinguished name of a group of that directory",
            });
        var ours = directory.IsOfDomain ? here.EnterThrough is null : directory.Family == DirectoryFamily.InetOrgPerson;
        if (here.EnterMembers.Count > 0 && (wants.Enter is null || !ours))
            faults.Add(new Fault(
                "needless-key", here.Line("enter-members"), "sign-in.enter-members",
                "No group for sign-in is made here, so it can be given no members.")
            {
                Expected = "a sheet with 'enter', and a directory of the estate's domain or of the inetOrgPerson family",
            });
        if (here.Catalog && directory.Catalog is null)
            faults.Add(new Fault(
                "no-catalog", here.Line("catalog"), "sign-in.catalog",
                $"The estate names no catalog of '{directory.Key}'.")
            {
                Expected = "catalog: yes in the estate's people-directory",
            });
        foreach (var branch in here.PeopleIn.Where(b => !directory.PeopleBranches.Any(b.IsAtOrBelow)))
            faults.Add(new Fault(
                "branch-outside", here.Line("people-in"), "sign-in.people-in",
                $"'{directory.Key}' has no people there.")
            {
                Found = branch.Written,
                Expected = $"a name that ends in {string.Join(" or ", directory.PeopleBranches.Select(b => b.Written))}",
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

    private static void Bind(
        Sheet sheet, SheetSignIn wants, InstallSignIn here, PeopleDirectory directory, PlannedAccount? account,
        List<Fault> faults)
    {
        if (account is null && here.BindAs is null && wants.BindsAs == BindsAs.Account)
            faults.Add(new Fault(
                "missing-key", here.Line("bind-as"), "sign-in.bind-as",
                $"No account of the plan can bind to '{directory.Key}'.")
            {
                Expected = "bind-as: the distinguished name of an account of that directory",
            });
        if (wants.BindsAs == BindsAs.Person && here.PeopleType.Contains(TypedForm.Mail))
            faults.Add(new Fault(
                "wrong-value", here.Line("people-type"), "sign-in.people-type",
                $"{sheet.Title} binds as the person who signs in, and no directory takes a mail address for that.")
            {
                Expected = "logon-name or upn",
            });
        if (wants is { BindsAs: BindsAs.Person, BindForm: BindForm.Dn }
            && (here.PeopleIn.Count > 0 ? here.PeopleIn : directory.PeopleBranches).Count > 1)
            faults.Add(new Fault(
                "wrong-value", here.Line("directory"), "sign-in.people-in",
                $"{sheet.Title} makes the name of a person by a template, which reaches one branch alone.")
            {
                Expected = "one branch of people: people-in",
            });
        if (wants.BindsAs == BindsAs.Person)
            foreach (var (field, value) in new[] { ("bind-as", here.BindAs), ("bind-secret", here.BindSecret) })
                if (value is not null)
                    faults.Add(new Fault(
                        "needless-key", here.Line(field), $"sign-in.{field}",
                        $"{sheet.Title} binds as the person who signs in, not as an account of its own ({wants.At})."));
        if (wants.BindsAs != BindsAs.Certificate)
            foreach (var (field, value) in new[] {
                ("client-certificate", here.ClientCertificate), ("client-key", here.ClientKey) })
                if (value is not null)
                    faults.Add(new Fault(
                        "needless-key", here.Line(field), $"sign-in.{field}",
                        $"{sheet.Title} does not bind with a certificate ({wants.At})."));
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
    }
}
