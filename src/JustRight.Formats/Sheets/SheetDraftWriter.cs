using System.Globalization;
using JustRight.Core.Drafts;
using JustRight.Core.Sheets;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Sheets;

/// <summary>Writes the draft of a sheet as a file that a person goes on with: each question stands where it belongs.</summary>
public static class SheetDraftWriter
{
    /// <summary>The sheet.</summary>
    public static string Write(SheetDraft draft)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture) { NewLine = "\n" };
        text.WriteLine(YamlText.Comment(
            $"Drafted from {draft.Of.Source}: {draft.Read} of {draft.Rows} rows were understood whole."));
        if (draft.Questions.Count > 0)
            text.WriteLine("# What was not, stands as a question with its row. Answer it here, and take the question out.");
        text.WriteLine("sheet: 1");
        text.WriteLine($"product: {draft.Of.Product}");
        text.WriteLine($"release: {YamlText.Quoted(draft.Of.Release)}");
        text.WriteLine($"title: {YamlText.Quoted(draft.Of.Title)}");
        text.WriteLine($"source: {YamlText.Quoted(draft.Of.Source)}");
        text.WriteLine();
        text.WriteLine(draft.Places.Count == 0 ? "places: {}" : "places:");
        foreach (var place in draft.Places) text.WriteLine($"  {place.Key}: {{ {Place(place.Kind)} }}");
        text.WriteLine();
        foreach (var question in draft.Questions.Where(q => q.Account is null)) text.WriteLine(Question(question));
        text.WriteLine("accounts:");
        foreach (var account in draft.Accounts) Write(text, account, draft);
        return text.ToString();
    }

    private static void Write(StringWriter text, DraftAccountOf account, SheetDraft draft)
    {
        text.WriteLine($"  {account.Key}:");
        text.WriteLine($"    purpose: {YamlText.Quoted(account.Called)}");
        if (WorksAsOf(account.Needs) is { } worksAs) text.WriteLine($"    works-as: {worksAs}");
        if (account.Needs.Count > 0) text.WriteLine("    needs:");
        foreach (var need in account.Needs) text.WriteLine($"      - {{ {Need(need)} }}");
        foreach (var question in draft.Questions.Where(q => q.Account == account.Key))
            text.WriteLine($"      {Question(question)}");
    }

    private static string Question(DraftQuestion question) =>
        YamlText.Comment($"Row {question.Row}: {question.Asks} \"{question.Text}\"");

    private static string Place(PlaceKind kind) => kind switch
    {
        PlaceKind.Host => "kind: host, count: 1 or more",
        PlaceKind.Instance => "kind: instance, engine: sqlserver",
        PlaceKind.Database => "kind: database, engine: sqlserver",
        PlaceKind.Branch => "kind: branch",
        _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, null),
    };

    /// <summary>How an account is used, where a log-on right of it says so.</summary>
    private static string? WorksAsOf(IReadOnlyList<DraftNeed> needs) =>
        needs.Any(n => n.Right is { Kind: NeedKind.Logon, Value: "service" }) ? "service"
        : needs.Any(n => n.Right is { Kind: NeedKind.Logon, Value: "batch" }) ? "job"
        : null;

    private static string Need(DraftNeed need)
    {
        var row = NeedKinds.ByKind[need.Right.Kind];
        var parts = new List<string> { $"{row.Key}: {YamlText.Quoted(need.Right.Value)}" };
        if (need.Right.Attributes.Count > 0) parts.Add($"attributes: [{string.Join(", ", need.Right.Attributes)}]");
        if (need.Right.Of is { } of) parts.Add($"of: {of}");
        if (need.Place is { } place)
            parts.Add($"{row.Qualifier}: {place}{(need.Right.OtherDatabase is { } other ? $"/{other}" : "")}");
        if (need.UntilInstalled) parts.Add("until: installed");
        if (need.GivenBySetup) parts.Add("given-by: setup");
        if (need.Why.Length > 0) parts.Add($"why: {YamlText.Quoted(need.Why)}");
        return string.Join(", ", parts);
    }
}
