using JustRight.Contracts;
using JustRight.Core.Drafts;
using JustRight.Core.Faults;
using JustRight.Formats.Sheets;
using JustRight.Service.Data.Documents;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Features.Drafts;

/// <summary>From a vendor's table to the draft of a sheet. Nothing is stored.</summary>
internal static class DraftEndpoints
{
    public static void MapDrafts(this IEndpointRouteBuilder api) =>
        api.MapPost("/sheets/draft", DraftAsync)
            .WithName("DraftSheet")
            .WithSummary("Makes the draft of a sheet from a vendor's table, CSV or a workbook; the body is the file")
            .Accepts<string>("text/csv", WorkbookType, "application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(TableBounds.Bytes))
            .RequireAuthorization(Roles.Reader).ProducesProblem(400);

    private const string WorkbookType = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    private static async Task<Results<Ok<SheetDraftView>, ProblemHttpResult>> DraftAsync(
        [AsParameters] DraftQuery query, HttpRequest request, CancellationToken cancel)
    {
        using var body = new MemoryStream();
        await request.Body.CopyToAsync(body, cancel);
        var file = Upload.Name(query.File, "table.csv");
        var (table, faults) = TableOf(body.ToArray(), file, query);
        if (table is null) return Problems.Of(faults);
        var draft = DraftMaker.Make(table, Of(query, file));
        if (draft.Accounts.Count == 0)
            return Problems.Of(NoAccount(table, file));
        var text = SheetDraftWriter.Write(draft);
        faults = SheetReader.Read(System.Text.Encoding.UTF8.GetBytes(text), $"draft of {file}").Faults;
        return TypedResults.Ok(new SheetDraftView(
            text,
            [.. table.Columns.OrderBy(c => c.Key)
                .Select(c => new DraftColumnView(ColumnWords.Word(c.Key), table.Head.Cell(c.Value)))],
            draft.Rows, draft.Read,
            [.. draft.Questions.Select(q => new DraftQuestionView(q.Row, q.Account, q.Text, q.Asks))],
            [.. faults.Select(f => f.ToString())]));
    }

    private static (NeedTable? Table, IReadOnlyList<Fault> Faults) TableOf(byte[] bytes, string file, DraftQuery query)
    {
        try
        {
            if (bytes is [0xD0, 0xCF, 0x11, 0xE0, ..])
                throw new TableFault(1, 1, "This is a workbook of the older form.", "the same saved as xlsx, or as CSV");
            var rows = WorkbookTable.Is(bytes) ? WorkbookTable.Read(bytes, query.Page) : CommaTable.Read(bytes);
            return ColumnWords.Find(file, rows, query.Columns);
        }
        catch (TableFault e)
        {
            var at = new Origin(file, e.Row, e.Column);
            return (null, [new Fault("not-a-table", at, "table", e.Message) { Expected = e.Expected }]);
        }
    }

    private static Fault[] NoAccount(NeedTable table, string file) =>
    [
        new("no-account", new Origin(file, table.Head.Number, 1), "account", "No row names an account.")
        {
            Expected = $"names in the column '{table.Head.Cell(table.Columns[ColumnUse.Account])}'",
        },
    ];

    private static DraftOf Of(DraftQuery query, string file)
    {
        var name = Path.GetFileNameWithoutExtension(file);
        return new DraftOf(
            query.Product is { Length: > 0 } product ? product : DraftNames.KeyOf(name, "product"),
            query.Release is { Length: > 0 } release ? release : "1", query.Title is { Length: > 0 } title ? title : name, file);
    }
}
