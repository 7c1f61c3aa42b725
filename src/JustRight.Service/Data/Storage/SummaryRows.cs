using System.Text;
using JustRight.Formats.Installs;

namespace JustRight.Service.Data.Storage;

/// <summary>
/// What the fit of an install comes to, for lists: judged in the background when something that it rests on changes.
/// </summary>
public sealed class SummaryRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>
    /// The estate that the install names; empty when the install cannot be read and names none that can be told.
    /// </summary>
    public string Estate { get; set; } = "";

    /// <summary>The sheet that the install names; empty when that cannot be told.</summary>
    public string Sheet { get; set; } = "";

    public string Title { get; set; } = "";

    public string Stage { get; set; } = "";

    public bool Simulated { get; set; }

    /// <summary>How many of its rights are missing, and not accepted so; zero while it was never verified.</summary>
    public int Missing { get; set; }

    /// <inheritdoc cref="Missing"/>
    public int Pending { get; set; }

    /// <inheritdoc cref="Missing"/>
    public int Unseen { get; set; }

    /// <summary>How many rights are excess or forbidden.</summary>
    public int Excess { get; set; }

    /// <summary>All its counts; null while it was never verified, or cannot be planned.</summary>
    public string? CountsJson { get; set; }

    public string Next { get; set; } = "";

    public DateTimeOffset? SurveyedAt { get; set; }

    /// <summary>For one that is being retired: when all that waits of it may be removed; null when nothing waits.</summary>
    public DateTimeOffset? RemovableAt { get; set; }

    public string RemarksJson { get; set; } = "[]";

    /// <summary>The hash of all that it rests on; null while it was never judged.</summary>
    public string? Basis { get; set; }

    /// <summary>When it was judged; null while it was not yet.</summary>
    public DateTimeOffset? JudgedAt { get; set; }

    /// <summary>From when on time alone makes another of it; null for never.</summary>
    public DateTimeOffset? HoldsUntil { get; set; }

    /// <summary>Takes over what the install says of where it belongs, as far as that can be read.</summary>
    public void Follow(DocumentRow install)
    {
        var outline = InstallOutline.Read(Encoding.UTF8.GetBytes(install.Text), install.File);
        Estate = outline?.Estate ?? "";
        Sheet = outline is { Product: { } product, Release: { } release } ? $"{product}@{release}" : "";
        Stage = outline is null ? "" : outline.Stage ?? "planned";
    }
}

/// <summary>
/// How often anything changed that the installs of an estate are judged by. A change and its count are one transaction, so that
/// nobody reads an old summary as a new one.
/// </summary>
public sealed class EstateMarkRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    /// <summary>Counts every change.</summary>
    public long Changed { get; set; }

    /// <summary>Counts the changes of what the installs are planned by.</summary>
    public long Replanned { get; set; }

    /// <summary>Up to which change its installs are judged.</summary>
    public long Judged { get; set; }

    /// <summary>Counts how often lines of its installs were written anew.</summary>
    public long Written { get; set; }
}
