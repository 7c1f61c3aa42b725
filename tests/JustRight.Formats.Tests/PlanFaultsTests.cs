using System.Text;
using JustRight.Core.Faults;
using JustRight.Core.Plans;

namespace JustRight.Formats.Tests;

/// <summary>
/// Faults that a plan can have, word for word, in <c>plan-faults.txt</c>: what was changed in the demo's documents, and what
/// is then told. Written anew with <c>JUSTRIGHT_WRITE_FAULTS=yes</c>, and read before it is kept.
/// </summary>
public sealed class PlanFaultsTests
{
    private static readonly string Kept =
        Path.Combine(Checkout.Top, "tests", "JustRight.Formats.Tests", "plan-faults.txt");

    private const string Temp = "console-server: [fm-temp01, fm-temp02]";
    private const string Store = "reporting-store: fm-sql01";
    private const string Bind = "bind-as: uid=brinebook,ou=Services,dc=contractors,dc=fennmoor,dc=example";
    private const string Enter = "enter-through: cn=brinebook-users,ou=Groups,dc=contractors,dc=fennmoor,dc=example";

    /// <summary>The install of the demo, and what is put in the place of what, in which document.</summary>
    private static readonly (string Install, Document In, string Part, string Instead)[] Rows =
    [
        ("thermograph-dataroom", Document.Install, Temp, "console-servr: fm-temp01"),
        ("thermograph-dataroom", Document.Install, Temp, "console-server: fm-tmp01"),
        ("thermograph-dataroom", Document.Install, Store, "reporting-store: fm-sqll01"),
        ("thermograph-dataroom", Document.Install, Store, "reporting-store: fm-sqll01/Reports"),
        ("thermograph-dataroom", Document.Install, Store, "reporting-store: [fm-sql01, fm-sql02]"),
        ("curdhouse-books", Document.Sheet, "engine: sqlserver, name: CurdRecipes", "engine: postgresql, name: CurdRecipes"),
        ("thermograph-dataroom", Document.Sheet, "engine: sqlserver, name: ThermoReports,", "engine: sqlserver,"),
        ("thermograph-dataroom", Document.Sheet,
            "console-server: { kind: host, count: 1 or more }", "console-server: { kind: host, count: 3 }"),
        ("thermograph-dataroom", Document.Sheet,
            "console-server: { kind: host, count: 1 or more }", "console-server: { kind: host, count: 3 to 4 }"),
        ("thermograph-dataroom", Document.Sheet,
            "console-server: { kind: host, count: 1 or more }", "console-server: { kind: host, count: 3 or more }"),
        ("thermograph-dataroom", Document.Install, "stage: planned", "stage: planned\nanswers: { nightly-jobz: \"yes\" }"),
        ("thermograph-dataroom", Document.Install, "stage: planned", "stage: planned\nanswers: { nightly-jobs: maybe }"),
        ("thermograph-dataroom", Document.Sheet, "answer: yes-no, default: \"yes\"", "answer: yes-no"),
        ("thermograph-dataroom", Document.Sheet, "answer: yes-no, default: \"yes\"", "answer: yes-no, default: some"),
        ("thermograph-dataroom", Document.Sheet, "answer: yes-no, default: \"yes\"", "answer: number, default: some"),
        ("thermograph-dataroom", Document.Install, "  archivist: {", "  archivst: {"),
        ("thermograph-dataroom", Document.Install, "existing: svc-archive", "existing: \"svc*archive\""),
        ("thermograph-dataroom", Document.Install, "stage: planned", "stage: planned\ngroups: { nosuch: { name: some } }"),
        ("thermograph-dataroom", Document.Install,
            "stage: planned", "stage: planned\nnever-expires: { nosuch: { why: w, by: Maud Ferris, review-by: 2027-06-01 } }"),
        ("thermograph-dataroom", Document.Install,
            "stage: planned", "stage: planned\nchoices: { archivist.nightly: { take: a, why: w, by: Maud Ferris } }"),
        ("thermograph-dataroom", Document.Install,
            "stage: planned", "stage: planned\nchoices: { archivist.nightly-jobs: { take: a, why: w, by: Maud Ferris } }"),
        ("tallystick-dataroom", Document.Install,
            "stage: planned", "stage: planned\nchoices: { any: { take: a, why: w, by: Maud Ferris } }"),
        ("thermograph-dataroom", Document.Install, "  archivist:", "  poller: { existing: svc-archive }\n  archivist:"),
        ("thermograph-dataroom", Document.Install,
            "stage: planned", "stage: planned\nsign-in: { directory: staff, bind-secret: s }"),
        ("roundsman-dataroom", Document.Sheet, "teams: { kind: branch, count: 1 }", "teams: { kind: branch, count: 2 }"),
        ("roundsman-dataroom", Document.Install, "teams:", "teamz:"),
        ("roundsman-dataroom", Document.Install, "teams: ", "teams: no-such-"),
        ("millrace-gateway", Document.Install, "directory: staff", "directory: staf"),
        ("millrace-gateway", Document.Install, "directory: staff", "directory: contractors"),
        ("millrace-gateway", Document.Install, "directory: staff", "directory: staff\n  bind-as: cn=x,dc=fennmoor,dc=example"),
        ("millrace-gateway", Document.Install, "directory: staff", "directory: staff\n  enter-members: [fm-drivers]"),
        ("brinebook-contractors", Document.Install, Bind + "\n", "\n"),
        ("brinebook-contractors", Document.Install, Bind, "bind-as: nobody"),
        ("brinebook-contractors", Document.Install, Enter, "enter-through: nowhere"),
        ("brinebook-contractors", Document.Install, Enter + "\n", "\n"),
        ("brinebook-contractors", Document.Estate, "offers: [tls, start-tls]\n", "offers: [plain]\n"),
        ("brinebook-contractors", Document.Sheet, "families: [inetorgperson, ad-like]", "families: [ad-like]"),
        ("brinebook-contractors", Document.Sheet, "bind: { as: dn }", "bind: { as: upn }"),
    ];

    private enum Document
    {
        Sheet,
        Estate,
        Install,
    }

    [Fact]
    public void Every_fault_is_told_as_it_is_kept()
    {
        var told = new StringBuilder();
        foreach (var (install, document, part, instead) in Rows)
        {
            told.Append(null, $"{install}, {document}: {OneLine(part)} => {OneLine(instead)}\n");
            foreach (var fault in Faults(install, document, part, instead))
                told.Append(null, $"    {fault.Code} {fault.Field}\n        {fault}\n");
        }

        if (Environment.GetEnvironmentVariable("JUSTRIGHT_WRITE_FAULTS") is not null) File.WriteAllText(Kept, told.ToString());
        told.ToString().ShouldBe(File.ReadAllText(Kept));
    }

    private static IReadOnlyList<Fault> Faults(string install, Document document, string part, string instead)
    {
        var product = install[..install.LastIndexOf('-')];
        string Of(Document of, string path) => of == document ? DemoFiles.With(path, part, instead) : DemoFiles.Text(path);
        var (sheet, inSheet) = DemoFiles.Sheet(Of(Document.Sheet, $"sheets/{product}.yaml"));
        var (estate, inEstate) = DemoFiles.Estate(Of(Document.Estate, "estates/fennmoor.yaml"));
        var (here, inInstall) = DemoFiles.Install(Of(Document.Install, $"installs/{install}.yaml"));
        if (sheet is null || estate is null || here is null) return [.. inSheet, .. inEstate, .. inInstall];
        var (plan, faults) = Planner.Make(sheet, estate, here, NameIndex.Empty);
        (plan is null).ShouldBe(faults.Count > 0);
        return faults;
    }

    private static string OneLine(string text) => text.Replace("\n", @"\n", StringComparison.Ordinal);
}
