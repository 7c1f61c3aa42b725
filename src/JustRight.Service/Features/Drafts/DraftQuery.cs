using System.ComponentModel.DataAnnotations;
using JustRight.Core.Drafts;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Features.Drafts;

/// <summary>What is said beside a table: of which product it is, and which column says what where that is not plain.</summary>
internal sealed class DraftQuery
{
    private const int Longest = 200;

    /// <summary>The name of the file.</summary>
    [FromQuery(Name = "file")]
    public string? File { get; init; }

    /// <summary>The page of a workbook.</summary>
    [FromQuery(Name = "page"), MaxLength(Longest)]
    public string? Page { get; init; }

    /// <summary>The product as one word.</summary>
    [FromQuery(Name = "product")]
    public string? Product { get; init; }

    /// <summary>Its release.</summary>
    [FromQuery(Name = "release")]
    public string? Release { get; init; }

    /// <summary>Its name in full.</summary>
    [FromQuery(Name = "title"), MaxLength(Longest)]
    public string? Title { get; init; }

    /// <summary>The column that says the account.</summary>
    [FromQuery(Name = "account-column"), MaxLength(Longest)]
    public string? Account { get; init; }

    /// <summary>The column that says the right.</summary>
    [FromQuery(Name = "right-column"), MaxLength(Longest)]
    public string? Right { get; init; }

    /// <summary>The column that says the place.</summary>
    [FromQuery(Name = "where-column"), MaxLength(Longest)]
    public string? Where { get; init; }

    /// <summary>The column that says how long.</summary>
    [FromQuery(Name = "until-column"), MaxLength(Longest)]
    public string? Until { get; init; }

    /// <summary>The column that says who gives it.</summary>
    [FromQuery(Name = "given-by-column"), MaxLength(Longest)]
    public string? GivenBy { get; init; }

    /// <summary>The column that says why.</summary>
    [FromQuery(Name = "why-column"), MaxLength(Longest)]
    public string? Why { get; init; }

    /// <summary>The columns that are named.</summary>
    public IReadOnlyDictionary<ColumnUse, string> Columns => new (ColumnUse Use, string? Head)[]
    {
        (ColumnUse.Account, Account), (ColumnUse.Right, Right), (ColumnUse.Where, Where), (ColumnUse.Until, Until),
        (ColumnUse.GivenBy, GivenBy), (ColumnUse.Why, Why),
    }.Where(c => !string.IsNullOrWhiteSpace(c.Head)).ToDictionary(c => c.Use, c => c.Head!);
}
