using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Contracts;

namespace JustRight.Cli.Commands;

/// <summary>Arguments that name something in Just Right.</summary>
internal static class Names
{
    public static Argument<string> Sheet() => CommandKit.Named("sheet", "A sheet, as product@release", SheetsAsync);

    /// <summary>An option that names a sheet.</summary>
    public static Option<string?> SheetOption(string option, string description) =>
        CommandKit.NamedOption(option, description, "SHEET", SheetsAsync);

    public static Argument<string> Estate() => CommandKit.Named("estate", "An estate", EstatesAsync);

    /// <summary>An option that names an estate.</summary>
    public static Option<string?> EstateOption(string option, string description) =>
        CommandKit.NamedOption(option, description, "ESTATE", EstatesAsync);

    public static Argument<string> Install() => CommandKit.Named("install", "An install", InstallsAsync);

    /// <summary>An option that names an install.</summary>
    public static Option<string?> InstallOption(string option, string description) =>
        CommandKit.NamedOption(option, description, "INSTALL", InstallsAsync);

    private static async Task<IEnumerable<string>> SheetsAsync(ApiClient api) =>
        (await api.GetAsync("sheets", ContractsJson.Default.IReadOnlyListSheetSummary, default)).Select(s => s.Name);

    private static async Task<IEnumerable<string>> EstatesAsync(ApiClient api) =>
        (await api.GetAsync("estates", ContractsJson.Default.IReadOnlyListEstateSummary, default)).Select(s => s.Name);

    private static async Task<IEnumerable<string>> InstallsAsync(ApiClient api) =>
        (await api.GetAsync("installs?take=500", ContractsJson.Default.InstallPage, default)).Items.Select(s => s.Name);

    public static Argument<string> File() => new("file") { Description = "A YAML file" };

    /// <summary>A name as part of a path of the API.</summary>
    public static string Part(string name) => Uri.EscapeDataString(name);
}
