using JustRight.Core.Estates;

namespace JustRight.Core.Rights;

/// <summary>A concrete spot that is one place of a sheet: a host, an instance, a database of an instance, or a branch.</summary>
/// <param name="Host">The host; empty for a branch.</param>
public sealed record Spot(string Host, string? Instance, string? Database)
{
    /// <summary>What it is called among the spots of its place.</summary>
    public string Name => Branch ?? (Instance is null ? Host : Database is null ? Instance : $"{Instance}/{Database}");

    /// <summary>The family of the database server; null for a spot that is none.</summary>
    public string? Engine { get; init; }

    /// <summary>For a branch of the directory: its distinguished name.</summary>
    public string? Branch { get; init; }
}
