using System.Linq.Expressions;

namespace JustRight.Service.Platform.Lists;

/// <summary>A column by which a list can be sorted, in the database or in memory.</summary>
/// <typeparam name="T">A row of the list.</typeparam>
internal sealed class Column<T>
{
    private Column(
        string word, Func<IQueryable<T>, bool, IOrderedQueryable<T>> sort, Func<IEnumerable<T>, bool,
            IOrderedEnumerable<T>> order,
        Func<IOrderedQueryable<T>, IOrderedQueryable<T>> thenSort, Func<IOrderedEnumerable<T>, IOrderedEnumerable<T>> thenOrder)
    {
        (Word, Sort, Order, ThenSort, ThenOrder) = (word, sort, order, thenSort, thenOrder);
    }

    /// <summary>The word that asks for it.</summary>
    public string Word { get; }

    /// <summary>Sorts in the database; from the end where that is true.</summary>
    public Func<IQueryable<T>, bool, IOrderedQueryable<T>> Sort { get; }

    /// <summary>Sorts in memory; from the end where that is true.</summary>
    public Func<IEnumerable<T>, bool, IOrderedEnumerable<T>> Order { get; }

    /// <summary>Sorts what is equal by another column, in the database.</summary>
    public Func<IOrderedQueryable<T>, IOrderedQueryable<T>> ThenSort { get; }

    /// <summary>Sorts what is equal by another column, in memory.</summary>
    public Func<IOrderedEnumerable<T>, IOrderedEnumerable<T>> ThenOrder { get; }

    /// <summary>A column.</summary>
    /// <param name="word">The word that asks for it.</param>
    /// <param name="key">What is sorted by. Texts are sorted whatever their letters' case.</param>
    public static Column<T> Of<TKey>(string word, Expression<Func<T, TKey>> key)
    {
        var read = key.Compile();
        var comparer = StringComparer.OrdinalIgnoreCase as IComparer<TKey> ?? Comparer<TKey>.Default;
        return new Column<T>(
            word, (rows, fromEnd) => fromEnd ? rows.OrderByDescending(key) : rows.OrderBy(key),
            (rows, fromEnd) => fromEnd ? rows.OrderByDescending(read, comparer) : rows.OrderBy(read, comparer),
            rows => rows.ThenBy(key), rows => rows.ThenBy(read, comparer));
    }
}
