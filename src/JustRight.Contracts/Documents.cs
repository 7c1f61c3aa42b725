using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A sheet in a list.</summary>
/// <param name="Name"><c>product release</c> as one word, by which installs refer to it.</param>
/// <param name="Product">The product, as one word.</param>
/// <param name="Release">The product's release.</param>
/// <param name="Title">The product's name in full.</param>
/// <param name="Source">Where its needs are taken from, as the sheet says.</param>
/// <param name="Accounts">How many accounts it asks for.</param>
/// <param name="Needs">How many needs it has.</param>
/// <param name="AddedAt">When it was stored; null for one that was only checked.</param>
/// <param name="AddedBy">Who stored it; null for one that was only checked.</param>
public sealed record SheetSummary(
    string Name, string Product, string Release, string Title, string Source, int Accounts, int Needs,
    DateTimeOffset? AddedAt, string? AddedBy)
{
    /// <summary>What this release cannot read of it, or leaves aside; empty when all of it is read.</summary>
    public IReadOnlyList<string> Remarks { get; init; } = [];
}

/// <summary>A sheet with its text as the user wrote it.</summary>
/// <param name="Summary">What the list shows of it.</param>
/// <param name="Text">The text as it was sent, YAML.</param>
/// <param name="Accounts">Its accounts.</param>
/// <param name="Places">Its places.</param>
public sealed record SheetView(
    SheetSummary Summary, string Text, IReadOnlyList<SheetAccountView> Accounts, IReadOnlyList<SheetPlaceView> Places);

/// <summary>An account of a sheet.</summary>
/// <param name="Key">Its key in the sheet.</param>
/// <param name="Purpose">What it is for.</param>
/// <param name="WorksAs"><c>service</c>, <c>job</c>, <c>pool</c>, <c>setup</c>, <c>bind</c> or <c>person</c>.</param>
/// <param name="Line">The line of the sheet where it begins, from 1.</param>
public sealed record SheetAccountView(string Key, string Purpose, [property: WorksAsWord] string WorksAs, int Line);

/// <summary>A place of a sheet.</summary>
/// <param name="Key">Its key in the sheet.</param>
/// <param name="Kind">The kind of place.</param>
/// <param name="Line">The line of the sheet where it begins, from 1.</param>
public sealed record SheetPlaceView(
    string Key, [property: AllowedValues("host", "instance", "database", "branch")] string Kind, int Line);

/// <summary>An estate in a list.</summary>
/// <param name="Name">Its name, by which installs refer to it.</param>
/// <param name="Title">Its name in full.</param>
/// <param name="Domain">The DNS name of its domain.</param>
/// <param name="Reach">How the directory is reached, in words.</param>
/// <param name="Simulated">Whether it is the simulation.</param>
/// <param name="Branches">The names of its branches.</param>
/// <param name="Hosts">How many hosts it names.</param>
/// <param name="Instances">How many database instances it names.</param>
/// <param name="AddedAt">When it was stored; null for one that was only checked.</param>
/// <param name="AddedBy">Who stored it; null for one that was only checked.</param>
public sealed record EstateSummary(
    string Name, string Title, string Domain, [property: ReachWord] string Reach, bool Simulated, IReadOnlyList<string> Branches,
    int Hosts, int Instances, DateTimeOffset? AddedAt, string? AddedBy)
{
    /// <summary>The directories that people sign in to products with.</summary>
    public IReadOnlyList<PeopleDirectoryView> PeopleDirectories { get; init; } = [];

    /// <summary>The estate that it is a rehearsal of; null for any other.</summary>
    public string? Rehearses { get; init; }

    /// <summary>
    /// The organization's time zone, by its name in the time zone database; empty for an estate that cannot be read.
    /// </summary>
    public string TimeZone { get; init; } = "";

    /// <summary>What this release cannot read of it, or leaves aside; empty when all of it is read.</summary>
    public IReadOnlyList<string> Remarks { get; init; } = [];
}

/// <summary>A directory that people sign in with.</summary>
/// <param name="Key">Its key in the estate.</param>
/// <param name="Family"><c>ad-like</c> or <c>inetorgperson</c>.</param>
/// <param name="Simulated">Whether it is the simulation.</param>
/// <param name="PeopleIn">The branches of people, with semicolons between several.</param>
/// <param name="GroupsIn">The branches of groups, likewise.</param>
public sealed record PeopleDirectoryView(
    string Key, [property: FamilyWord] string Family, bool Simulated, string PeopleIn,
    string GroupsIn);

/// <summary>An estate with its text and what its last survey could not read.</summary>
/// <param name="Summary">What the list shows of it.</param>
/// <param name="Text">The text as it was sent, YAML.</param>
/// <param name="Survey">What its latest survey read; null when there was none.</param>
public sealed record EstateView(EstateSummary Summary, string Text, SurveyView? Survey);

/// <summary>A file that an estate's directory is read from.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="File">The file's name, as it was sent.</param>
/// <param name="ReadAt">When it was read from the directory.</param>
/// <param name="Objects">How many objects it holds.</param>
/// <param name="HasSchema">
/// Whether it holds the directory's schema; without it the common attributes and classes are known.
/// </param>
/// <param name="SaysWhoRead">Whether it says who read it; without that it is not known what may be missing.</param>
public sealed record DirectoryFileView(
    string Estate, string File, DateTimeOffset ReadAt, int Objects, bool HasSchema, bool SaysWhoRead);

/// <summary>Facts of a host that its owner handed over.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="Host">The host, as the estate calls it.</param>
/// <param name="ReadAt">When they were read from the host.</param>
/// <param name="ReadBy">Who read them, as the host calls the reader.</param>
/// <param name="LocalGroups">How many local groups they tell of.</param>
/// <param name="Services">How many services they tell of.</param>
/// <param name="Unread">The parts that could not be read, each with the reason.</param>
public sealed record HostFactsView(
    string Estate, string Host, DateTimeOffset ReadAt, string ReadBy, int LocalGroups, int Services,
    IReadOnlyList<string> Unread);

/// <summary>What a survey read.</summary>
/// <param name="TakenAt">When it was taken.</param>
/// <param name="DirectoryReadAt">When the directory was read: earlier than the survey when it comes from a file.</param>
/// <param name="Simulated">Whether the simulation was read.</param>
/// <param name="ReadFrom">The controller that was read, or the file.</param>
/// <param name="Accounts">How many accounts were read.</param>
/// <param name="Groups">How many groups were read.</param>
/// <param name="Hosts">How many hosts were read.</param>
/// <param name="Instances">How many database instances were read.</param>
/// <param name="Unseen">What could not be read, each with the reason.</param>
/// <param name="Remarks">What happened while reading that is worth knowing.</param>
public sealed record SurveyView(
    DateTimeOffset TakenAt, DateTimeOffset DirectoryReadAt, bool Simulated, string ReadFrom, int Accounts, int Groups,
    int Hosts, int Instances, IReadOnlyList<UnreadPartView> Unseen, IReadOnlyList<string> Remarks);

/// <summary>A part that could not be read.</summary>
/// <param name="Place">What could not be read.</param>
/// <param name="Reason">Why not.</param>
/// <param name="At">When it was tried.</param>
public sealed record UnreadPartView(string Place, string Reason, DateTimeOffset At);

/// <summary>An install in a list, with its fit at a glance.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Sheet">The sheet that says what it needs.</param>
/// <param name="Title">Its name in full.</param>
/// <param name="Estate">The estate it is in.</param>
/// <param name="Stage"><c>planned</c>, <c>installed</c> or <c>retiring</c>.</param>
/// <param name="Simulated">Whether its estate is the simulation.</param>
/// <param name="Fit">Null while no survey was taken.</param>
/// <param name="SurveyedAt">When its estate was last read; null while it was not.</param>
/// <param name="Next">What comes next, and whose turn it is.</param>
/// <param name="AddedAt">When it was last stored.</param>
/// <param name="AddedBy">Who last stored it.</param>
public sealed record InstallSummary(
    string Name, string Sheet, string Title, string Estate, [property: StageWord] string Stage, bool Simulated,
    FitCountsView? Fit, DateTimeOffset? SurveyedAt, string Next, DateTimeOffset AddedAt, string AddedBy)
{
    /// <summary>What this release cannot read of it, or leaves aside; empty when all of it is read.</summary>
    public IReadOnlyList<string> Remarks { get; init; } = [];

    /// <summary>
    /// Whether something changed since this was judged, so that it is being judged anew: what is told of its fit may be old.
    /// </summary>
    public bool IsBeingJudged { get; init; }

    /// <summary>When this was judged; null while it was not yet.</summary>
    public DateTimeOffset? JudgedAt { get; init; }
}

/// <summary>A page of the list of installs.</summary>
/// <param name="Items">The installs, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record InstallPage(IReadOnlyList<InstallSummary> Items, int Skipped, int Total);

/// <summary>An install with its text.</summary>
/// <param name="Summary">What the list shows of it.</param>
/// <param name="Text">The text as it was sent, YAML.</param>
public sealed record InstallView(InstallSummary Summary, string Text);

/// <summary>How far an install has come.</summary>
/// <param name="Stage"><c>planned</c>, <c>installed</c> or <c>retiring</c>.</param>
public sealed record StageOrder([property: AllowedValues("planned", "installed", "retiring")] string Stage);

/// <summary>A document as JSON, for those who do not send files as they are.</summary>
/// <param name="File">The file's name, for positions in faults; it is only shown. The kind of document otherwise.</param>
/// <param name="Text">The document whole, as it stands in the file.</param>
public sealed record DocumentOrder(string? File, string Text);

/// <summary>The draft of a sheet from a vendor's table.</summary>
/// <param name="Text">The sheet as YAML, with the questions in it as comments.</param>
/// <param name="Columns">Which column was taken to say what.</param>
/// <param name="Rows">How many rows the table has.</param>
/// <param name="Understood">How many of them were understood whole.</param>
/// <param name="Questions">What a person must look at, in the order of the rows.</param>
/// <param name="Faults">Why the draft could not be stored as it is; empty when it could.</param>
public sealed record SheetDraftView(
    string Text, IReadOnlyList<DraftColumnView> Columns, int Rows, int Understood, IReadOnlyList<DraftQuestionView> Questions,
    IReadOnlyList<string> Faults);

/// <summary>What a column of a table was taken to say.</summary>
/// <param name="Says"><c>account</c>, <c>right</c>, <c>where</c>, <c>until</c>, <c>given-by</c> or <c>why</c>.</param>
/// <param name="Head">Its head in the table.</param>
public sealed record DraftColumnView(
    [property: AllowedValues("account", "right", "where", "until", "given-by", "why")] string Says, string Head);

/// <summary>A row of a table, or a part of one, that was not understood.</summary>
/// <param name="Row">Its number in the file.</param>
/// <param name="Account">The key of the account it is about; null where that is the question.</param>
/// <param name="Text">What stands there.</param>
/// <param name="Asks">What is not known of it.</param>
public sealed record DraftQuestionView(int Row, string? Account, string Text, string Asks);

/// <summary>A version of a document.</summary>
/// <param name="Number">Counted from 1.</param>
/// <param name="File">The name of the file that was added.</param>
/// <param name="At">Since when it was kept.</param>
/// <param name="By">Who added it.</param>
/// <param name="RemovedAt">When the document was removed while it had this text; null otherwise.</param>
/// <param name="RemovedBy">Who removed it.</param>
public sealed record DocumentVersionView(
    int Number, string File, DateTimeOffset At, string By, DateTimeOffset? RemovedAt, string? RemovedBy);

/// <summary>A version of a document with its text.</summary>
/// <param name="Version">Which.</param>
/// <param name="Text">As its author wrote it.</param>
public sealed record DocumentTextView(DocumentVersionView Version, string Text);

/// <summary>What two versions of a document say differently.</summary>
/// <param name="From">The earlier one.</param>
/// <param name="To">The later one.</param>
/// <param name="Changes">Each change in words; empty when they say the same.</param>
public sealed record DocumentChangesView(DocumentVersionView From, DocumentVersionView To, IReadOnlyList<string> Changes);

/// <summary>What adding a document would change.</summary>
/// <param name="Name">The document's name.</param>
/// <param name="IsThere">Whether there is one of that name, which it would replace.</param>
/// <param name="Changes">What it says differently, in words; empty when it says the same.</param>
/// <param name="Installs">The installs that rest on it.</param>
public sealed record ReplacingView(string Name, bool IsThere, IReadOnlyList<string> Changes, IReadOnlyList<string> Installs)
{
    /// <summary>For an install: the plan that it would come to; null for other documents.</summary>
    public PlanView? Plan { get; init; }
}

/// <summary>What an install of a sheet in an estate has to say.</summary>
/// <param name="Sheet">The sheet.</param>
/// <param name="Product">The product, as the install says it.</param>
/// <param name="Release">The release, as the install says it.</param>
/// <param name="Estate">The estate.</param>
/// <param name="Name">What the install could be called.</param>
/// <param name="Asked">What it must say beyond that, in the order of the sheet.</param>
public sealed record InstallAskedView(
    string Sheet, string Product, string Release, string Estate, string Name, IReadOnlyList<AskedView> Asked);

/// <summary>Something that a sheet leaves open.</summary>
/// <param name="Field">Where it stands in the install: <c>places.console-server</c>, <c>answers.topology</c>.</param>
/// <param name="Asks">What is asked, in words.</param>
/// <param name="Known">What would do: what the estate has, yes or no; empty where it is for a person to say.</param>
/// <param name="AtLeast">How many there must be.</param>
/// <param name="AtMost">How many there may be.</param>
/// <param name="Default">What is said unless somebody says otherwise; null where there is no such thing.</param>
public sealed record AskedView(
    string Field, string Asks, IReadOnlyList<string> Known, int AtLeast, int AtMost, string? Default);
