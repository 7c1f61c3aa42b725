using JustRight.Core.Sheets;

namespace JustRight.Service.Fits;

/// <summary>What comes next for an install, and whose turn it is, in a few words.</summary>
internal static class NextStep
{
    /// <summary>The words for a list.</summary>
    public static string Words(JudgedInstall? judged)
    {
        if (judged is null) return "verify";
        var ready = judged.Worklist.Give.Where(s => s.Blocked is null).ToList();
        if (ready.Count > 0) return $"give {ready.Count} ({string.Join(", ", ready.Select(s => s.Change.Giver).Distinct().Order().Select(Team))})";
        if (judged.Worklist.Give.Count > 0) return $"{judged.Worklist.Give.Count} blocked: {judged.Worklist.Give[0].Blocked}";
        if (judged.Worklist.Remove.Count > 0) return $"take away {judged.Worklist.Remove.Count} ({string.Join(", ", judged.Worklist.Remove.Select(s => s.Change.Giver).Distinct().Order().Select(Team))})";
        if (judged.Fit.Leaning.TooLittle) return "find out why: nothing to give would mend it";
        if (judged.Fit.Leaning.TooMuch) return "decide on what is too much";
        if (judged.Fit.Leaning.Later > 0) return "run the product's setup";
        return judged.Fit.Leaning.Unseen > 0 ? "read what is unseen" : "nothing";
    }

    /// <summary>A giver's name.</summary>
    public static string Team(Giver giver) => giver.ToString().ToLowerInvariant();
}
