using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;

namespace JustRight.Core.Tests.SignIn;

/// <summary>A planned sign-in on either family, to be changed in one point by each test.</summary>
internal static class SettingsScene
{
    private static readonly Origin Here = new("sheet.yaml", 9, 1);

    public static PeopleDirectory Staff { get; } = new(
        "staff", DirectoryFamily.AdLike, "fm-dc01", new Dictionary<WireSecurity,
        int>
        { [WireSecurity.Tls] = 636, [WireSecurity.StartTls] = 389, [WireSecurity.Plain] = 389 }, Name("DC=x"),
        Name("OU=People,DC=x"), Name("OU=Groups,DC=x"), GroupKind.Group, true, Here)
    {
        IsOfDomain = true,
        CaFolder = "/authorities",
        MostInOneAnswer = 1000,
    };

    public static PeopleDirectory Contractors { get; } = new(
        "contractors", DirectoryFamily.InetOrgPerson, "fm-ldap01", new Dictionary<WireSecurity, int> { [WireSecurity.Tls] = 636 }, Name("dc=c,dc=x"), Name(
            "ou=People,dc=c,dc=x"), Name("ou=Groups,dc=c,dc=x"), GroupKind.GroupOfNames, true, Here)
    {
        CaFolder = "/authorities",
    };

    public static SheetSignIn Wants { get; } = new(
        [
            DirectoryFamily.AdLike,
            DirectoryFamily.InetOrgPerson], "reader", BindForm.Dn, [WireSecurity.Tls], ProductBases.Separate, "staff", NestedGroups.ByFilter, "{0}", new SheetGroupList(
            ["app-"], false, Here), 500,
        [
            new SheetSettings(
                "web", "x.conf", SettingsForm.Ini,
                [
                    Field("reader", "bind-name"), Field("secret", "bind-password"), Field("who", "people-filter"),
                    Field("lock", "security", ("tls", "SEALED")), Field("groups", "member-of")],
                Here),
        ],
        Here);

    public static PlannedSignIn Plan(
        PeopleDirectory directory, SheetSignIn? wants = null, WireSecurity security = WireSecurity.Tls,
        InstallSignIn? install = null) => new(directory, wants ?? Wants, install
            ?? new InstallSignIn(directory.Key, Here), security)
        {
            HostsOfPlaces = new Dictionary<string, IReadOnlyList<string>> { ["web"] = ["fm-web01"] },
            Domain = new Domain("fennmoor.example", "FENNMOOR"),
            BindLogonName = directory.IsOfDomain ? "svc-reader" : null,
            BindDn = directory.IsOfDomain ? "CN=svc-reader,OU=Service,DC=x" : "uid=reader,ou=Services,dc=c,dc=x",
            EnterName = "app-staff",
            EnterDn = directory.IsOfDomain ? "CN=app-staff,OU=Groups,DC=x" : "cn=app-staff,ou=Groups,dc=c,dc=x",
        };

    public static DistinguishedName Name(string text) => DistinguishedName.Parse(text);

    public static SettingsField Field(string name, string isKey, params (string, string)[] words) =>
        new(name, isKey, null, words.ToDictionary(), Here);
}
