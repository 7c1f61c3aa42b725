using JustRight.Contracts;

namespace JustRight.Cli.Api;

/// <summary>What the client's exit codes mean.</summary>
internal static class ExitCode
{
    /// <summary>Just right, or done.</summary>
    public const int Fine = 0;

    /// <summary>Something is missing, excess or forbidden, or a step failed.</summary>
    public const int Misfit = 1;

    /// <summary>
    /// It cannot be done as asked: usage, input, a name that there is not, a right that is missing, or as things stand.
    /// </summary>
    public const int BadInput = 2;

    /// <summary>The service, or a part of the estate, could not be reached or read.</summary>
    public const int Unread = 3;

    /// <summary>Nothing was done, or not all of it yet: somebody said no, or it waits for a person or a time.</summary>
    public const int Waits = 4;

    /// <summary>The client stopped watching; what it began goes on in the service.</summary>
    public const int GoesOn = 5;
}

/// <summary>One clear error with its exit code, and the faults of a file where there are any.</summary>
internal sealed class ClientException(int code, string message, string? advice = null, IReadOnlyList<FaultView>? faults = null)
    : Exception(message)
{
    public int Code { get; } = code;

    public string? Advice { get; } = advice;

    public IReadOnlyList<FaultView> Faults { get; } = faults ?? [];
}
