using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Runs;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Runs;

/// <summary>What was seen of a step.</summary>
/// <param name="Seen">In words, for the journal.</param>
internal sealed record Looked(ObservedState State, string Seen)
{
    /// <summary>The change with what was seen in it, to be journaled with the intent; null when it stays as it is.</summary>
    public Change? Change { get; init; }
}

/// <summary>Opens what runs of some kinds work on.</summary>
internal interface IRunWorks
{
    /// <summary>The kinds; each kind of run has one of these.</summary>
    IReadOnlyList<JobKind> Kinds { get; }

    /// <summary>The work of a run.</summary>
    Task<IRunWork> OpenAsync(JobRow job, CancellationToken cancel);
}

/// <summary>
/// What the steps of one kind of run do. When which of these is called, and what is journaled of it, is the same for all.
/// </summary>
internal interface IRunWork
{
    /// <summary>The estate that is changed.</summary>
    Estate Estate { get; }

    /// <summary>Called before the first step of a run.</summary>
    /// <exception cref="ConnectorException">What was confirmed is not what is there any more: nothing is made.</exception>
    Task BeginAsync(CancellationToken cancel);

    /// <summary>Looks before a step is made; and gets ready what it takes.</summary>
    /// <param name="begun">Whether it was begun before, so that it may be made already.</param>
    Task<Looked> LookAsync(StepRow step, bool begun, CancellationToken cancel);

    /// <summary>Makes a step.</summary>
    Task MakeAsync(StepRow step, CancellationToken cancel);

    /// <summary>Looks after a step was made.</summary>
    Task<Looked> LookAgainAsync(StepRow step, CancellationToken cancel);

    /// <summary>Looks at a step that a person says is done.</summary>
    Task<Looked> LookAtSaidAsync(StepRow step, CancellationToken cancel);

    /// <summary>Called when a run can go no further for now; returns how it stands, in one line.</summary>
    Task<string> RestAsync(Run run, RunNext next, CancellationToken cancel);
}
