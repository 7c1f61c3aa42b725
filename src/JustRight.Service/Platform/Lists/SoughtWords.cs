using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Platform.Lists;

/// <summary>
/// Looks for words in the texts of a row, in capital or small letters, as people type: each word in one of them.
/// </summary>
internal static class SoughtWords
{
    /// <summary>What stands before a sign of a pattern that stands for itself.</summary>
    public const char Escape = '|';

    /// <summary>The words of what is looked for; none where nothing is.</summary>
    public static string[] Of(string? search) =>
        search?.Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries) ?? [];

    /// <summary>Whether the texts of a row in memory contain all words; true where nothing is looked for.</summary>
    public static bool AreIn(string[] words, params ReadOnlySpan<string?> texts)
    {
        foreach (var word in words)
        {
            var found = false;
            foreach (var text in texts) found |= text?.Contains(word, StringComparison.OrdinalIgnoreCase) == true;
            if (!found) return false;
        }

        return true;
    }

    /// <summary>The rows of a table whose texts contain all words.</summary>
    /// <param name="texts">Columns of the table.</param>
    public static IQueryable<T> Containing<T>(this IQueryable<T> rows, string? search, params Expression<Func<T, string>>[] texts)
    {
        foreach (var word in Of(search))
        {
            var row = Expression.Parameter(typeof(T));
            var any = texts.Select(text => (Expression)Expression.Call(
                    typeof(DbFunctionsExtensions), nameof(DbFunctionsExtensions.Like), [],
                    Expression.Constant(EF.Functions), new Replaced(text.Parameters[0], row).Visit(text.Body),
                    Expression.Constant(Pattern(word)), Expression.Constant($"{Escape}")))
                .Aggregate(Expression.OrElse);
            rows = rows.Where(Expression.Lambda<Func<T, bool>>(any, row));
        }

        return rows;
    }

    /// <summary>The pattern for a word in which nothing stands for anything else.</summary>
    public static string Pattern(string word) => "%" + word.Replace($"{Escape}", $"{Escape}{Escape}", StringComparison.Ordinal)
        .Replace("%", $"{Escape}%", StringComparison.Ordinal).Replace("_", $"{Escape}_", StringComparison.Ordinal) + "%";

    private sealed class Replaced(ParameterExpression former, ParameterExpression now) : ExpressionVisitor
    {
        protected override Expression VisitParameter(ParameterExpression node) =>
            node == former ? now : base.VisitParameter(node);
    }
}
