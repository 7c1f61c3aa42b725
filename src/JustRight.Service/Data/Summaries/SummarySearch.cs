using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Lists;

namespace JustRight.Service.Data.Summaries;

/// <summary>Looks for installs by what their line in the lists says.</summary>
internal static class SummarySearch
{
    /// <summary>Those that contain every word; all of them where nothing is looked for.</summary>
    public static IQueryable<SummaryRow> About(this IQueryable<SummaryRow> installs, string? search) =>
        installs.Containing(search, s => s.Install, s => s.Title, s => s.Sheet, s => s.Estate, s => s.Next);
}
