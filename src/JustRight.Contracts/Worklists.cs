using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>The steps that are left.</summary>
/// <param name="Install">The install.</param>
/// <param name="Simulated">Whether its estate is the simulation.</param>
/// <param name="SurveyedAt">When the estate was read.</param>
/// <param name="Give">What is left to give, in order.</param>
/// <param name="Remove">What may be taken away, in order.</param>
/// <param name="LeftToSetup">What the product's own setup gives.</param>
/// <param name="NotOffered">What a person must decide.</param>
public sealed record WorklistView(
    string Install, bool Simulated, DateTimeOffset SurveyedAt, IReadOnlyList<StepView> Give, IReadOnlyList<StepView> Remove,
    IReadOnlyList<string> LeftToSetup, IReadOnlyList<NotOfferedView> NotOffered);

/// <summary>One step.</summary>
/// <param name="Id">Names the step; it changes when the step does.</param>
/// <param name="Number">Its place in the order, from 1.</param>
/// <param name="Words">What is done, in one line.</param>
/// <param name="Team">The team that can do it.</param>
/// <param name="Place">Where it is done.</param>
/// <param name="Why">What needs it, or why it can go.</param>
/// <param name="Blocked">Why it cannot be made now.</param>
/// <param name="For">The rights it gives or takes away.</param>
/// <param name="At">The line of the sheet that asks for it.</param>
public sealed record StepView(
    string Id, int Number, string Words, [property: TeamWord] string Team, string Place, string Why, string? Blocked,
    IReadOnlyList<string> For, string At)
{
    /// <summary>The numbers of the earlier steps of the same list that it hangs on: what it needs, they make.</summary>
    public IReadOnlyList<int> HangsOn { get; init; } = [];

    /// <summary>
    /// The password that this step takes and that is not known here: it is asked for before anything begins. Null for none.
    /// </summary>
    public AskedPasswordView? Asks { get; init; }
}

/// <summary>A password that a step takes and that is not known here.</summary>
/// <param name="Account">The account, as <c>DOMAIN\name</c>.</param>
/// <param name="Secret">The name of the secret that is to hold it.</param>
public sealed record AskedPasswordView(string Account, string Secret);

/// <summary>Something that a person must decide.</summary>
/// <param name="For">What it is about.</param>
/// <param name="Reason">Why a person must decide.</param>
public sealed record NotOfferedView(string For, string Reason);

/// <summary>The directory part of a worklist for an ordinary LDAP client.</summary>
/// <param name="Subject">The install, or the trace and remedy, it is of.</param>
/// <param name="Remove">Whether this takes away, instead of giving.</param>
/// <param name="Text">LDIF [RFC 2849].</param>
public sealed record LdifView(string Subject, bool Remove, string Text);

/// <summary>An order to carry out steps that a person has seen and confirmed.</summary>
/// <param name="Remove">Whether these are removals.</param>
/// <param name="Steps">The ids of the confirmed steps, in order.</param>
public sealed record GrantOrder(bool Remove, IReadOnlyList<string> Steps);

/// <summary>A page of the list of runs.</summary>
/// <param name="Items">The runs, without their steps, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record RunPage(IReadOnlyList<JobView> Items, int Skipped, int Total);

/// <summary>Long work.</summary>
/// <param name="Id">Names the job.</param>
/// <param name="Kind">
/// <c>survey</c>, <c>verify</c>, <c>grant</c>, <c>trace</c>, <c>fix</c>, <c>protect</c>, <c>undo</c>, <c>sign-in</c> or
/// <c>renew</c>; for what is done at once and waits for a second person <c>document</c>, <c>stage</c>, <c>exception</c>,
/// <c>allowance</c>, <c>hand-over</c> or <c>backup</c>.
/// </param>
/// <param name="Subject">What it is about: an estate, an install, a trace.</param>
/// <param name="State">
/// <c>queued</c>, <c>running</c>, <c>waiting</c> for a person or for a host's time of restarts, <c>done</c>, <c>failed</c>,
/// <c>stopped</c> by a person or <c>interrupted</c>; for a proposal <c>proposed</c>, <c>approved</c>, <c>void</c> or
/// <c>withdrawn</c>.
/// </param>
/// <param name="StartedBy">Who started it.</param>
/// <param name="CreatedAt">When it was started.</param>
/// <param name="EndedAt">When it ended; null while it has not.</param>
/// <param name="Done">How many of its parts are done.</param>
/// <param name="Total">How many parts it has; 0 while that is not known.</param>
/// <param name="Message">What came of it, or what is being done; null when there is nothing to say.</param>
/// <param name="Steps">The changes it makes, in order; empty for a job that changes nothing.</param>
/// <param name="CanBeUndone">Whether it made changes and each has one that undoes it.</param>
/// <param name="HasTrace">Whether there is a trace to show of it.</param>
/// <param name="Undoes">The job whose changes it undoes, or null.</param>
/// <param name="ApprovedBy">Where the organization wants two-person approval: who approved it, or null.</param>
/// <param name="ApprovedAt">When it was approved; null when it was not, or need not be.</param>
public sealed record JobView(
    string Id,
    [property: AllowedValues(
        "survey", "verify", "grant", "trace", "fix", "protect", "undo", "sign-in", "renew", "document", "stage", "exception",
        "allowance", "hand-over", "backup")] string Kind,
    string Subject,
    [property: JobStateWord] string State,
    string StartedBy, DateTimeOffset CreatedAt, DateTimeOffset? EndedAt, int Done, int Total, string? Message,
    IReadOnlyList<JobStepView> Steps, bool CanBeUndone, bool HasTrace, string? Undoes, string? ApprovedBy,
    DateTimeOffset? ApprovedAt)
{
    /// <summary>
    /// What it is about besides its steps: what a replaced document says differently, what undoing leaves as it is.
    /// </summary>
    public IReadOnlyList<string> Words { get; init; } = [];

    /// <summary>
    /// Whether it can be gone on with: steps of it failed and can be tried again, with what hangs on them, or it was stopped.
    /// </summary>
    public bool CanContinue { get; init; }

    /// <summary>Whether it can be stopped: it runs, waits for its turn, or waits for somebody.</summary>
    public bool CanBeStopped { get; init; }

    /// <summary>Whether its estate is the simulation; null where a run is not asked for by itself.</summary>
    public bool? Simulated { get; init; }

    /// <summary>The number of the step that it waits for, or that failed; null while it runs, and when it is over.</summary>
    public int? Next { get; init; }
}

/// <summary>What undoing a run would do.</summary>
/// <param name="Job">The run.</param>
/// <param name="Steps">In order, in words.</param>
/// <param name="Blocked">Why nothing of it can be done now; empty when it can.</param>
/// <param name="Left">What the job made and undoing leaves, with the reason.</param>
public sealed record UndoView(string Job, IReadOnlyList<string> Steps, IReadOnlyList<string> Blocked, IReadOnlyList<string> Left);

/// <summary>A step of a run as it was carried out.</summary>
/// <param name="Number">Its place in the order, from 1.</param>
/// <param name="Words">What is done, in one line.</param>
/// <param name="Team">The team that can do it; empty for what no team of the estate does.</param>
/// <param name="Place">Where it is done; empty for nowhere in the estate.</param>
/// <param name="State">
/// <c>waiting</c>, <c>intended</c>, <c>made</c>, <c>already-so</c>, <c>refused</c>, <c>failed</c>, <c>skipped</c>,
/// <c>abandoned</c>, <c>dropped</c> or <c>undone</c>. It was begun where it is <c>intended</c>; what was <c>refused</c> touched
/// nothing, of what <c>failed</c> it is not known; a person left out what is <c>skipped</c> or, begun before, <c>abandoned</c>;
/// the run goes back instead of what is <c>dropped</c>.
/// </param>
/// <param name="Before">What was there before; null while it was not read.</param>
/// <param name="After">What was there afterwards, why it failed, or what a person said; null while there is nothing.</param>
/// <param name="At">When that was; null while nothing was done.</param>
public sealed record JobStepView(
    int Number, string Words, [property: AllowedValues("directory", "host", "database", "product", "")] string Team, string Place,
    [property: StepStateWord] string State, string? Before, string? After, DateTimeOffset? At)
{
    /// <summary>The id that the same change has in a worklist; null for what is no change of the estate by a connector.</summary>
    public string? StepId { get; init; }

    /// <summary>Who made it, or decided about it, last; null for nobody.</summary>
    public string? By { get; init; }

    /// <summary>Whether a person makes it.</summary>
    public bool ByPerson { get; init; }

    /// <summary>The numbers of the steps before it that it hangs on.</summary>
    public IReadOnlyList<int> HangsOn { get; init; } = [];

    /// <summary>The number of the failed step that it hangs on, and is held back by; null when none holds it.</summary>
    public int? HeldBy { get; init; }

    /// <summary>The numbers of the steps that hang on it, and are left out with it when it is skipped.</summary>
    public IReadOnlyList<int> LeftOutWithIt { get; init; } = [];
}

/// <summary>What a person says of a step.</summary>
/// <param name="Word"><c>done</c>, <c>retry</c>, <c>skip</c>, <c>hand-over</c> to a person, or <c>restart-now</c>.</param>
/// <param name="Note">The reason; needed to skip a step.</param>
public sealed record StepWord(
    [property: AllowedValues("done", "retry", "skip", "hand-over", "restart-now")] string Word, string? Note);

/// <summary>One event of a job's progress.</summary>
/// <param name="State">The state of the job.</param>
/// <param name="Done">How many of its parts are done.</param>
/// <param name="Total">How many parts it has; 0 while that is not known.</param>
/// <param name="Text">What is being done.</param>
/// <param name="Step">The step that came to something; null otherwise.</param>
public sealed record JobEvent([property: JobStateWord] string State, int Done, int Total, string Text, JobStepView? Step)
{
    /// <summary>For a sign-in test: a check that came to its end.</summary>
    public SignInCheckView? Check { get; init; }
}
