using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A sheet in a list.</summary>
public sealed record SheetSummary(
    string Name, string Product, string Release, string Title, string Source, int Accounts, int Needs,
    DateTimeOffset? AddedAt, string? AddedBy)
{
    /// <summary>What this release cannot read of it, or leaves aside; empty when all of it is read.</summary>
    public IReadOnlyList<string> Remarks { get; init; } = [];
}

/// <summary>A sheet with its text as the user wrote it.</summary>
public sealed record SheetView(
    SheetSummary Summary, string Text, IReadOnlyList<SheetAccountView> Accounts, IReadOnlyList<SheetPlaceView> Places);

/// <summary>An account of a sheet.</summary>
public sealed record SheetAccountView(string Key, string Purpose, string WorksAs, int Line);

/// <summary>A place of a sheet.</summary>
public sealed record SheetPlaceView(string Key, string Kind, int Line);

/// <summary>An estate in a list.</summary>
/// <param name="Simulated">Whether it is the simulation.</param>
/// <param name="Branches">The names of its branches.</param>
public sealed record EstateSummary(
    string Name, string Title, string Domain, string Reach, bool Simulated, IReadOnlyList<string> Branches, int Hosts,
    int Instances, DateTimeOffset? AddedAt, string? AddedBy)
{
    /// <summary>The directories that people sign in to products with.</summary>
    public IReadOnlyList<PeopleDirectoryView> PeopleDirectories { get; init; } = [];

    /// <summary>What this release cannot read of it, or leaves aside; empty when all of it is read.</summary>
    public IReadOnlyList<string> Remarks { get; init; } = [];
}

/// <summary>A directory that people sign in with.</summary>
/// <param name="Family"><c>ad-like</c> or <c>inetorgperson</c>.</param>
/// <param name="PeopleIn">The branch of people.</param>
/// <param name="GroupsIn">The branch of groups.</param>
public sealed record PeopleDirectoryView(
    string Key, [property: AllowedValues("ad-like", "inetorgperson")] string Family, bool Simulated, string PeopleIn,
    string GroupsIn);

/// <summary>An estate with its text and what its last survey could not read.</summary>
public sealed record EstateView(EstateSummary Summary, string Text, SurveyView? Survey);

/// <summary>A file that an estate's directory is read from.</summary>
/// <param name="ReadAt">When it was read from the directory.</param>
/// <param name="HasSchema">
/// Whether it holds the directory's schema; without it the common attributes and classes are known.
/// </param>
/// <param name="SaysWhoRead">Whether it says who read it; without that it is not known what may be missing.</param>
public sealed record DirectoryFileView(
    string Estate, string File, DateTimeOffset ReadAt, int Objects, bool HasSchema, bool SaysWhoRead);

/// <summary>Facts of a host that its owner handed over.</summary>
/// <param name="ReadAt">When they were read from the host.</param>
/// <param name="ReadBy">Who read them, as the host calls the reader.</param>
/// <param name="Unread">The parts that could not be read, each with the reason.</param>
public sealed record HostFactsView(
    string Estate, string Host, DateTimeOffset ReadAt, string ReadBy, int LocalGroups, int Services,
    IReadOnlyList<string> Unread);

/// <summary>What a survey read.</summary>
/// <param name="DirectoryReadAt">When the directory was read: earlier than the survey when it comes from a file.</param>
/// <param name="Remarks">What happened while reading that is worth knowing.</param>
public sealed record SurveyView(
    DateTimeOffset TakenAt, DateTimeOffset DirectoryReadAt, bool Simulated, string ReadFrom, int Accounts, int Groups,
    int Hosts, int Instances, IReadOnlyList<UnreadPartView> Unseen, IReadOnlyList<string> Remarks);

/// <summary>A part that could not be read.</summary>
public sealed record UnreadPartView(string Place, string Reason, DateTimeOffset At);

/// <summary>An install in a list, with its fit at a glance.</summary>
/// <param name="Fit">Null while no survey was taken.</param>
/// <param name="Next">What comes next, and whose turn it is.</param>
public sealed record InstallSummary(
    string Name, string Sheet, string Title, string Estate, string Stage, bool Simulated, FitCountsView? Fit,
    DateTimeOffset? SurveyedAt, string Next, DateTimeOffset AddedAt, string AddedBy)
{
    /// <summary>What this release cannot read of it, or leaves aside; empty when all of it is read.</summary>
    public IReadOnlyList<string> Remarks { get; init; } = [];
}

/// <summary>An install with its text.</summary>
public sealed record InstallView(InstallSummary Summary, string Text);

/// <summary>How far an install has come.</summary>
/// <param name="Stage"><c>planned</c>, <c>installed</c> or <c>retiring</c>.</param>
public sealed record StageOrder([property: AllowedValues("planned", "installed", "retiring")] string Stage);
