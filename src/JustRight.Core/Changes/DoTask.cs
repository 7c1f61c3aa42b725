using JustRight.Core.Sheets;

namespace JustRight.Core.Changes;

/// <summary>What a person does. No connector makes it, and nothing undoes it.</summary>
/// <param name="By">The team that does it.</param>
/// <param name="At">The host, instance, database, branch or product it is done at.</param>
/// <param name="Task">The key of the task in its sheet.</param>
/// <param name="Work">What is to be done.</param>
/// <param name="DoneWhen">How one sees that it is done.</param>
public sealed record DoTask(Team By, string At, string Task, string Work, string DoneWhen) : Change
{
    /// <inheritdoc/>
    public override Team Team => By;

    /// <inheritdoc/>
    public override string Place => At;

    /// <inheritdoc/>
    public override string Words => $"task '{Task}' at {At}: {Work}";

    /// <inheritdoc/>
    public override Change? Inverse => null;

    /// <inheritdoc/>
    public override string Key => $"do the task {Task} at {At}".ToLowerInvariant();
}
