using DocumentFormat.OpenXml.Spreadsheet;

namespace JustRight.Service.Features.Reports;

/// <summary>The styles of cells, one for each verdict. The words stand in the cell too: color only repeats them.</summary>
internal static class WorkbookStyles
{
    /// <summary>Text.</summary>
    public const uint Plain = 0;

    /// <summary>The head of a column.</summary>
    public const uint Head = 1;

    /// <summary>Ink and paper of each verdict, in the order of their styles after <see cref="Head"/>.</summary>
    private static readonly (string Verdict, string Ink, string Paper, bool Bold)[] Verdicts =
    [
        ("met", "FF1C7A3E", "FFE9F5ED", false), ("missing", "FF1F5FA8", "FFE3EEFA", true), (
            "pending", "FF5C5C5C", "FFF4F4F4", false), ("unseen", "FF5C5C5C", "FFEAEAEA", false),
        ("excess", "FF8F5200", "FFFDF1DE", false), ("forbidden", "FF8F5200", "FFF9D9A8", true), (
            "done", "FF5C5C5C", "FFF4F4F4", false),
    ];

    /// <summary>The style of a verdict; plain for none.</summary>
    public static uint Of(string? verdict) =>
        Array.FindIndex(Verdicts, v => v.Verdict == verdict) is >= 0 and var at ? (uint)at + 2 : Plain;

    /// <summary>The sheet of styles.</summary>
    public static Stylesheet Make()
    {
        var fonts = new Fonts(new Font(), new Font(new Bold()));
        // the first two are fixed by the format
        var fills = new Fills(
            new Fill(new PatternFill { PatternType = PatternValues.None }),
            new Fill(new PatternFill { PatternType = PatternValues.Gray125 }), Solid("FFE4E4E4"));
        var formats = new CellFormats(Format(0, 0), Format(1, 2));
        foreach (var (_, ink, paper, bold) in Verdicts)
        {
            var font = new Font(new Color { Rgb = ink });
            if (bold) font.PrependChild(new Bold());
            fonts.Append(font);
            fills.Append(Solid(paper));
            formats.Append(Format((uint)fonts.Count() - 1, (uint)fills.Count() - 1));
        }

        return new Stylesheet(fonts, fills, new Borders(new Border()), new CellStyleFormats(new CellFormat()), formats);
    }

    private static Fill Solid(string color) =>
        new(new PatternFill(new ForegroundColor { Rgb = color }) { PatternType = PatternValues.Solid });

    private static CellFormat Format(uint font, uint fill) =>
        new(new Alignment { Vertical = VerticalAlignmentValues.Top, WrapText = true })
        {
            FontId = font,
            FillId = fill,
            ApplyFont = true,
            ApplyFill = true,
            ApplyAlignment = true,
        };
}
