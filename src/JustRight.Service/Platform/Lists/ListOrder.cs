using System.Text.Json;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Platform.Lists;

/// <summary>Which page of a list is asked for: what is looked for, in which order, and how much of it.</summary>
internal sealed class ListOrder
{
    /// <summary>How many are told where nobody says.</summary>
    public const int DefaultTake = 50;

    /// <summary>How many are told at most.</summary>
    public const int MostTaken = 500;

    /// <summary>Only what contains this, in capital or small letters; null or empty for all.</summary>
    [FromQuery(Name = "search")]
    public string? Search { get; init; }

    /// <summary>The column to sort by; with a minus before it, from its end.</summary>
    [FromQuery(Name = "sort")]
    public string? Sort { get; init; }

    /// <summary>How many are left out from the beginning; none where nobody says.</summary>
    [FromQuery(Name = "skip")]
    public int? Skip { get; init; }

    /// <summary>How many are told at most.</summary>
    [FromQuery(Name = "take")]
    public int? Take { get; init; }

    /// <summary>How many to leave out.</summary>
    public int Skipped => Skip ?? 0;

    /// <summary>How many to tell.</summary>
    public int Taken => Take ?? DefaultTake;

    /// <summary>The word for the column.</summary>
    public string? Column => Sort?.TrimStart('-');

    /// <summary>The same text for the same question, and no other.</summary>
    public override string ToString() => JsonSerializer.Serialize<object?[]>([Search, Sort, Skipped, Taken]);

    /// <summary>Whether it is sorted from the end.</summary>
    public bool FromEnd => Sort?.StartsWith('-') == true;
}
