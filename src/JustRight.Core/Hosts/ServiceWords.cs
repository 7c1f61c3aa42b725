using JustRight.Core.Surveys;

namespace JustRight.Core.Hosts;

/// <summary>Start types as sheets, host facts and scripts write them.</summary>
public static class ServiceWords
{
    private static readonly (ServiceStart Start, string Word)[] Table =
    [
        (ServiceStart.Automatic, "automatic"), (ServiceStart.AutomaticDelayed, "automatic-delayed"), (
            ServiceStart.Manual, "manual"),
        (ServiceStart.Disabled, "disabled"), (ServiceStart.Boot, "boot"), (ServiceStart.System, "system"),
    ];

    /// <summary>The word of a start type.</summary>
    public static string Of(ServiceStart start) => Array.Find(Table, r => r.Start == start).Word;

    /// <summary>The start type of a word, or null.</summary>
    public static ServiceStart? StartOf(string word) =>
        Array.Find(Table, r => string.Equals(r.Word, word, StringComparison.OrdinalIgnoreCase)) is { Word: not null } row
            ? row.Start
            : null;

    /// <summary>When a service starts, in words; null for one that is disabled.</summary>
    public static string Of(StartOrder? order) => order switch
    {
        StartOrder.WithTheSystem => "with the system",
        StartOrder.Automatic => "automatic",
        StartOrder.AutomaticDelayed => "automatic, delayed",
        StartOrder.Manual => "manual",
        null => "disabled",
    };
}
