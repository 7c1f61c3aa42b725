using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Platform.Lists;

/// <summary>The columns of a list. What is equal by one of them is in the order of the first.</summary>
/// <typeparam name="T">A row of the list.</typeparam>
/// <param name="first">By which it is sorted where nobody says, and which tells all rows apart.</param>
/// <param name="others">The others.</param>
internal sealed class Columns<T>(Column<T> first, params Column<T>[] others)
{
    private readonly Column<T>[] _all = [first, .. others];

    /// <summary>Whether it is sorted from its end where nobody says: the newest first.</summary>
    public bool NewestFirst { get; init; }

    /// <summary>Why a page cannot be told; null when it can.</summary>
    public ProblemHttpResult? WhyNot(ListOrder order)
    {
        if (order.Take is < 1 or > ListOrder.MostTaken)
            return Problems.Bad("take", "This is not a number of rows to take.", $"1 to {ListOrder.MostTaken}", $"{order.Take}");
        if (order.Skip is < 0)
            return Problems.Bad("skip", "This is not a number of rows to leave out.", "0 or more", $"{order.Skip}");
        var words = _all.Select(c => c.Word).ToList();
        return order.Column is { } word && !words.Contains(word)
            ? Problems.Bad("sort", "The list has no such column.",
                string.Join(", ", words) + "; with - before it, from the end", word, words)
            : null;
    }

    /// <summary>The page that is asked for, in the database.</summary>
    public IQueryable<T> Page(IQueryable<T> rows, ListOrder order) =>
        first.ThenSort(Asked(order).Sort(rows, IsFromEnd(order))).Skip(order.Skipped).Take(order.Taken);

    /// <summary>The page that is asked for, in memory, and how many rows there are in all.</summary>
    public (IReadOnlyList<T> Rows, int Total) Page(IEnumerable<T> rows, ListOrder order)
    {
        var all = rows.ToList();
        return (
            [.. first.ThenOrder(Asked(order).Order(all, IsFromEnd(order))).Skip(order.Skipped).Take(order.Taken)], all.Count);
    }

    private bool IsFromEnd(ListOrder order) => order.Sort is null ? NewestFirst : order.FromEnd;

    private Column<T> Asked(ListOrder order) => _all.FirstOrDefault(c => c.Word == order.Column) ?? first;
}
