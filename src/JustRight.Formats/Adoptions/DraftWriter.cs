using System.Globalization;
using JustRight.Core.Adoptions;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Adoptions;

/// <summary>Writes the sheet and the install of an adoption as files that a person goes on with.</summary>
public static class DraftWriter
{
    /// <summary>The sheet.</summary>
    public static string Sheet(AdoptionDraft draft)
    {
        var adoption = draft.Adoption;
        using var text = new StringWriter(CultureInfo.InvariantCulture) { NewLine = "\n" };
        text.WriteLine($"# Drafted from what the accounts of {adoption.Name} were found to hold. It lists what is held, not what the product asks for:");
        text.WriteLine("# compare it with the product's own guide, and make it smaller.");
        foreach (var unseen in draft.Unseen)
            text.WriteLine($"# Not read, more may be held there: {unseen.ReplaceLineEndings(" ")}");
        text.WriteLine("sheet: 1");
        text.WriteLine($"product: {adoption.Product}");
        text.WriteLine($"release: {YamlText.Quoted(adoption.Release)}");
        text.WriteLine($"title: {YamlText.Quoted(adoption.Title)}");
        text.WriteLine($"source: {YamlText.Quoted(draft.Source)}");
        text.WriteLine();
        text.WriteLine(draft.Places.Count == 0 ? "places: {}" : "places:");
        foreach (var place in draft.Places)
            text.WriteLine($"  {place.Key}: {{ kind: {place.Kind.ToString().ToLowerInvariant()}, count: 1 or more{(place.Engine is { } engine ? $", engine: {engine}" : "")} }}");
        text.WriteLine();
        text.WriteLine("accounts:");
        foreach (var account in adoption.Accounts)
        {
            text.WriteLine($"  {account.Key}:");
            text.WriteLine($"    purpose: {YamlText.Quoted(account.Purpose)}");
            text.WriteLine($"    works-as: {account.WorksAs}");
            var clauses = draft.Clauses.Where(c => c.Account == account.Key).ToList();
            if (clauses.Count > 0) text.WriteLine("    needs:");
            foreach (var clause in clauses) text.WriteLine($"      - {{ {Clause(clause)} }}");
        }

        if (draft.Services.Count > 0)
        {
            text.WriteLine();
            text.WriteLine("services:");
            foreach (var service in draft.Services)
                text.WriteLine($"  - {{ name: {YamlText.Quoted(service.Name)}, on: {service.Place}, as: {service.Account}{Start(service.Start)} }}");
        }

        return text.ToString();
    }

    /// <summary>The install.</summary>
    public static string Install(AdoptionDraft draft)
    {
        var adoption = draft.Adoption;
        using var text = new StringWriter(CultureInfo.InvariantCulture) { NewLine = "\n" };
        text.WriteLine("install: 1");
        text.WriteLine($"name: {adoption.Name}");
        text.WriteLine($"product: {adoption.Product}");
        text.WriteLine($"release: {YamlText.Quoted(adoption.Release)}");
        text.WriteLine($"estate: {adoption.Estate}");
        text.WriteLine("stage: installed");
        text.WriteLine();
        text.WriteLine(draft.Places.Count == 0 ? "places: {}" : "places:");
        foreach (var place in draft.Places) text.WriteLine($"  {place.Key}: [{string.Join(", ", place.Spots.Select(YamlText.Quoted))}]");
        text.WriteLine();
        text.WriteLine("accounts:");
        foreach (var account in adoption.Accounts) text.WriteLine($"  {account.Key}: {{ existing: {YamlText.Quoted(account.Name)} }}");
        return text.ToString();
    }

    private static string Clause(DraftClause clause)
    {
        var row = NeedKinds.ByKind[clause.Need.Kind];
        var parts = new List<string> { $"{row.Key}: {YamlText.Quoted(clause.Need.Value)}" };
        if (clause.Need.Attributes.Count > 0) parts.Add($"attributes: [{string.Join(", ", clause.Need.Attributes)}]");
        if (clause.Need.Of is { } of) parts.Add($"of: {of}");
        if (clause.Place is { } place) parts.Add($"{row.Qualifier}: {place}");
        parts.Add($"why: {YamlText.Quoted(clause.Why)}");
        return string.Join(", ", parts);
    }

    private static string Start(ServiceStart start) => start switch
    {
        ServiceStart.Automatic => ", start: automatic",
        ServiceStart.AutomaticDelayed => ", start: automatic-delayed",
        ServiceStart.Manual => ", start: manual",
        ServiceStart.Disabled => ", start: disabled",
        _ => "",
    };
}
