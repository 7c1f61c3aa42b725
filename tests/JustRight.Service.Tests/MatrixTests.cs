using System.Net;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>The matrix says what the fit says, whatever is gathered, filtered or opened.</summary>
public sealed class MatrixTests(MatrixScene fixture) : IClassFixture<MatrixScene>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static bool IsFine(JudgementView right) => right.Verdict is "met" or "done";

    [Fact]
    public async Task Every_right_of_the_fit_stands_in_one_line_with_its_verdict()
    {
        foreach (var install in await JudgedAsync())
        {
            var fit = await FitAsync(install);
            var matrix = await MatrixAsync(install, "");
            matrix.Total.ShouldBe(fit.Accounts.Sum(a => a.Rights.Count));
            matrix.Shown.ShouldBe(matrix.Total);
            matrix.Rows.Select(r => (r.Key, r.Name, r.Counts)).ShouldBe(fit.Accounts.Select(a => (a.Key, a.Name, a.Counts)));
            foreach (var (row, account) in matrix.Rows.Zip(fit.Accounts))
            {
                row.Lines.SelectMany(l => l.Verdicts.SelectMany(v => Enumerable.Repeat($"{l.Right} {v.Verdict}", v.Count)))
                    .Order().ShouldBe(account.Rights.Select(r => $"{r.Right} {r.Verdict}").Order());
                foreach (var line in row.Lines)
                {
                    var opened = await LineAsync(install, row.Key, line, "");
                    opened.Select(r => r.Id).ShouldBe(
                        account.Rights.Where(r => r.Right == line.Right && opened.Any(o => o.Id == r.Id)).Select(r => r.Id));
                    opened.Count.ShouldBe(line.Count);
                    line.Rights.Select(r => r.Id).ShouldBeSubsetOf(opened.Select(r => r.Id));
                }
            }

            matrix.Columns.Sum(c => c.Counts.Missing).ShouldBe(fit.Accounts.Sum(a => a.Counts.Missing));
            matrix.Columns[0].Name.ShouldBe(fit.Places[0]);
        }
    }

    [Theory]
    [InlineData("off=true")]
    [InlineData("words=log on")]
    [InlineData("words=FM-SQL01")]
    [InlineData("words=svc-archive&off=true")]
    [InlineData("words=nothing has this")]
    public async Task What_is_asked_for_is_shown_and_counted_and_nothing_else(string asked)
    {
        var words = System.Web.HttpUtility.ParseQueryString(asked)["words"] ?? "";
        var only = asked.Contains("off", StringComparison.Ordinal);
        foreach (var install in await JudgedAsync())
        {
            var fit = await FitAsync(install);
            bool Has(string text) => text.Contains(words, StringComparison.OrdinalIgnoreCase);
            var expected = fit.Accounts.Select(a => (a.Key, Rights: a.Rights
                .Where(r => !only || !IsFine(r))
                .Where(r => Has($"{a.Key} {a.Name}") || Has($"{r.Right} {r.Place}")).ToList())).ToList();
            var matrix = await MatrixAsync(install, asked);
            matrix.Shown.ShouldBe(expected.Sum(e => e.Rights.Count));
            matrix.Rows.Select(r => (r.Key, r.Lines.Sum(l => l.Count)))
                .ShouldBe(expected.Where(e => e.Rights.Count > 0).Select(e => (e.Key, e.Rights.Count)));
            if (matrix.Rows is [var row, ..])
                (await LineAsync(install, row.Key, row.Lines[0], asked)).Count.ShouldBe(row.Lines[0].Count);
        }
    }

    [Fact]
    public async Task Rights_that_are_alike_are_one_line_and_those_that_stand_out_are_named()
    {
        var row = (await MatrixAsync(MatrixScene.Gathered, "")).Rows.Single();
        Figures(row, "log on as a service").ShouldBe(["met 2, missing 6", "missing missing missing missing"]);
        Figures(row, "Performance Monitor Users").ShouldBe(["missing 8", ""]);
        Figures(row, "Event Log Readers").ShouldBe(["missing 2", "missing missing"]);
    }

    [Fact]
    public async Task A_right_is_told_by_its_identifier_as_the_fit_tells_it()
    {
        foreach (var install in await JudgedAsync())
        {
            foreach (var right in (await FitAsync(install)).Accounts.SelectMany(a => a.Rights).Take(8))
            {
                var told = await fixture.Service.GetAsync(
                    $"installs/{install}/matrix/right?id={Uri.EscapeDataString(right.Id)}",
                    ContractsJson.Default.JudgementView);
                told.ShouldBeEquivalentTo(right);
            }
        }

        (await StatusAsync("quernstone-sql01/matrix/right?id=nothing")).ShouldBe(HttpStatusCode.NotFound);
        (await StatusAsync("quernstone-sql01/matrix/line?account=watch&column=none&right=none"))
            .ShouldBe(HttpStatusCode.NotFound);
        (await StatusAsync("no-such-install/matrix")).ShouldBe(HttpStatusCode.NotFound);
    }

    /// <summary>The verdicts of a line, and those of the rights that it names.</summary>
    private static string[] Figures(MatrixRowView row, string right)
    {
        var line = row.Lines.Single(l => l.Right.StartsWith(right, StringComparison.Ordinal));
        return
        [
            string.Join(", ", line.Verdicts.Select(v => $"{v.Verdict} {v.Count}")),
            string.Join(' ', line.Rights.Select(r => r.Verdict)),
        ];
    }

    private async Task<IReadOnlyList<string>> JudgedAsync()
    {
        var judged = (await fixture.Service.InstallsAsync()).Where(i => i.Fit is not null).Select(i => i.Name).ToList();
        judged.Count.ShouldBeGreaterThan(4);
        return judged;
    }

    private async Task<HttpStatusCode> StatusAsync(string path) =>
        (await fixture.Service.Http.GetAsync($"/api/installs/{path}", Cancel)).StatusCode;

    private Task<FitView> FitAsync(string install) =>
        fixture.Service.GetAsync($"installs/{install}/fit", ContractsJson.Default.FitView);

    private Task<MatrixView> MatrixAsync(string install, string asked) =>
        fixture.Service.GetAsync($"installs/{install}/matrix?{asked}", ContractsJson.Default.MatrixView);

    private Task<IReadOnlyList<JudgementView>> LineAsync(string install, string account, MatrixLineView line, string asked) =>
        fixture.Service.GetAsync(
            $"installs/{install}/matrix/line?account={account}&column={Uri.EscapeDataString(line.Column)}"
            + $"&right={Uri.EscapeDataString(line.Right)}&{asked}",
            ContractsJson.Default.IReadOnlyListJudgementView);
}
