namespace JustRight.Core.Faults;

/// <summary>
/// One thing that is wrong with what a user wrote: a stable code, a fact, a position, and how to fix it.
/// Faults never carry secrets: they quote keys and names only.
/// </summary>
/// <param name="Code">Stable, for programs: <c>unknown-key</c>, <c>unknown-place</c>, …</param>
/// <param name="At">Where it stands.</param>
/// <param name="Field">The path of keys that leads to it, such as <c>accounts.poller.needs[0].on</c>.</param>
/// <param name="Message">The fact, in one sentence.</param>
public sealed record Fault(string Code, Origin At, string Field, string Message)
{
    /// <summary>What was found, quoted, if that helps.</summary>
    public string? Found { get; init; }

    /// <summary>What would have been right.</summary>
    public string? Expected { get; init; }

    /// <summary>The nearest known spelling, if one is near.</summary>
    public string? Nearest { get; init; }

    /// <summary>One line that says where, what and how to fix it.</summary>
    public override string ToString()
    {
        var text = $"{At}: {Message}";
        if (Found is not null) text += $" Found: {Found}.";
        if (Expected is not null) text += $" Expected: {Expected}.";
        if (Nearest is not null) text += $" Did you mean '{Nearest}'?";
        return text;
    }
}

/// <summary>Thrown where a caller asked for a result and the input was faulty; carries every fault found.</summary>
public sealed class FaultException(IReadOnlyList<Fault> faults)
    : Exception(faults.Count == 1 ? faults[0].ToString() : $"{faults.Count} faults; the first: {faults[0]}")
{
    /// <summary>All faults, in the order in which they stand in the file.</summary>
    public IReadOnlyList<Fault> Faults { get; } = faults;
}
