using JustRight.Contracts;
using JustRight.Core.Fit;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Views;

namespace JustRight.Service.Features.Fits;

/// <summary>
/// Makes the matrix of an install. Its size goes with what there is to look at, not with the number of hosts: rights of one name
/// in a cell are one line, and only the few of them that stand out are told in full.
/// </summary>
internal sealed class MatrixMaker(InstallFit fit, MatrixQuery asked)
{
    /// <summary>How many rights of one name still stand each on a line of its own.</summary>
    private const int FewEnough = 4;

    /// <summary>How many columns there may be for places that the sheet does not name.</summary>
    private const int MostOthers = 4;

    /// <summary>The column of what no place of the sheet asks for, where such places are many.</summary>
    private const string Elsewhere = "elsewhere";

    private readonly FitColumns columns = new(fit.Plan);

    /// <summary>The places that are gathered in one column.</summary>
    private readonly HashSet<string> far = [];

    /// <summary>The matrix.</summary>
    public MatrixView Make()
    {
        var names = Names();
        var found = names.ToDictionary(n => n, _ => new List<Judgement>());
        var rows = new List<MatrixRowView>();
        foreach (var account in fit.Accounts)
        {
            var rights = asked.Of(account).ToList();
            foreach (var right in rights) found[ColumnOf(right)].Add(right);
            if (rights.Count > 0 || asked.IsAll) rows.Add(Row(account, rights));
        }

        return new MatrixView(
            fit.Plan.Install, fit.Plan.Sheet, fit.Plan.Title, fit.Plan.Estate, fit.Simulated, fit.SurveyedAt,
            fit.Accounts.Sum(a => a.Judgements.Count), found.Values.Sum(f => f.Count),
            [.. names.Select(n => Column(n, found[n]))], rows, FitViews.Findings(fit), FitViews.UnreadParts(fit.UnreadParts),
            [.. fit.Plan.Decisions.Select(PlanViews.Of)],
            fit.Plan.Notes);
    }

    /// <summary>The rights of a line, all of them; null when there is no such line.</summary>
    /// <param name="account">The account's key.</param>
    /// <param name="column">The column of the cell.</param>
    /// <param name="right">The right, in words.</param>
    public IReadOnlyList<JudgementView>? Line(string account, string column, string right)
    {
        Names();
        if (fit.Accounts.FirstOrDefault(a => a.Account.Key == account) is not { } found) return null;
        var rights = asked.Of(found).Where(j => j.Right.Words == right && ColumnOf(j) == column).ToList();
        return rights.Count == 0 ? null : [.. rights.Select(j => View(j, found))];
    }

    /// <summary>One right by its identifier; null when the fit has none of it.</summary>
    public JudgementView? Right(string id)
    {
        foreach (var account in fit.Accounts)
        {
            if (account.Judgements.FirstOrDefault(j => j.Id == id) is { } found) return View(found, account);
        }

        return null;
    }

    /// <summary>The columns, in order; where many are places that the sheet does not name, those become one.</summary>
    private List<string> Names()
    {
        var all = columns.All(fit);
        var needed = fit.Accounts.SelectMany(a => a.Judgements).Where(j => j.Grant is not null).Select(columns.Of).ToHashSet();
        var others = all.Skip(1).Where(p => !needed.Contains(p)).ToList();
        if (others.Count <= MostOthers) return [.. all];
        far.UnionWith(others);
        return [.. all.Where(p => !far.Contains(p)), Elsewhere];
    }

    private string ColumnOf(Judgement judgement) =>
        columns.Of(judgement) is var column && far.Contains(column) ? Elsewhere : column;

    private MatrixRowView Row(AccountFit account, List<Judgement> rights) => new(
        account.Account.Key, account.Account.Name, account.Account.Purpose,
        FitViews.Of(account.Counts, 0, fit.WordsOf(account)),
        [.. rights.GroupBy(j => (Column: ColumnOf(j), j.Right.Words)).Select(g =>
            Line(account, g.Key.Column, g.Key.Words, [.. g]))]);

    private MatrixLineView Line(AccountFit account, string column, string right, IReadOnlyList<Judgement> all) => new(
        column, right, all.Count,
        [.. all.GroupBy(j => j.Verdict).Select(v => new VerdictCountView(v.Key.Word(), v.Count()))],
        [.. Shown(all).Select(j => View(j, account))]);

    /// <summary>Where everything is off in one way, the figure says it; where a few are, each is named.</summary>
    private static IEnumerable<Judgement> Shown(IReadOnlyList<Judgement> all)
    {
        if (all.Count <= FewEnough) return all;
        return all.Select(j => j.Verdict).Distinct().Count() == 1
            ? []
            : all.Where(j => !MatrixQuery.IsFine(j.Verdict)).Take(FewEnough);
    }

    private JudgementView View(Judgement judgement, AccountFit account) =>
        FitViews.Of(judgement, account.Account.Name, columns.Of(judgement));

    private static MatrixColumnView Column(string name, List<Judgement> rights)
    {
        var counts = FitCounts.Of(rights);
        return new MatrixColumnView(name, FitViews.Of(counts, 0, counts.Words()));
    }
}
