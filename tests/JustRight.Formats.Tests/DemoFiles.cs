using System.Text;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;

namespace JustRight.Formats.Tests;

/// <summary>The demo's files, as they are or with a slip put in.</summary>
internal static class DemoFiles
{
    public static string Text(string path) => File.ReadAllText(Path.Combine(Checkout.Top, "demo-data", path));

    /// <summary>A file with one part replaced; the part must be there.</summary>
    public static string With(string path, string part, string instead)
    {
        var text = Text(path);
        text.ShouldContain(part);
        return text.Replace(part, instead, StringComparison.Ordinal);
    }

    public static (Sheet? Sheet, IReadOnlyList<Fault> Faults) Sheet(string text) =>
        SheetReader.Read(Encoding.UTF8.GetBytes(text), "sheet.yaml");

    public static (Estate? Estate, IReadOnlyList<Fault> Faults) Estate(string text) =>
        EstateReader.Read(Encoding.UTF8.GetBytes(text), "estate.yaml");

    public static (Install? Install, IReadOnlyList<Fault> Faults) Install(string text) =>
        InstallReader.Read(Encoding.UTF8.GetBytes(text), "install.yaml");

    public static (Plan? Plan, IReadOnlyList<Fault> Faults) Plan(
        string product, string? sheet = null, string? estate = null, string? install = null, NameIndex? nameIndex = null)
    {
        var (s, sheetFaults) = Sheet(sheet ?? Text($"sheets/{product}.yaml"));
        var (e, estateFaults) = Estate(estate ?? Text("estates/fennmoor.yaml"));
        var (i, installFaults) = Install(install ?? Text($"installs/{product}-dataroom.yaml"));
        sheetFaults.Concat(estateFaults).Concat(installFaults).ShouldBeEmpty();
        return Planner.Make(s!, e!, i!, nameIndex ?? NameIndex.Empty);
    }
}
