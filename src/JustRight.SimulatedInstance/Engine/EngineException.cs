namespace JustRight.SimulatedInstance.Engine;

/// <summary>An error as the engine documents it: number, severity and words.</summary>
public sealed class EngineException(int number, string message, byte severity = 16) : Exception(message)
{
    /// <summary>The engine's number.</summary>
    public int Number { get; } = number;

    /// <summary>The engine's severity: 16 for what the user can fix.</summary>
    public byte Severity { get; } = severity;

    /// <summary>What the stand-in does not do, though the engine may. It never does something else instead.</summary>
    public static EngineException NotSimulated(string what) =>
        new(50000, $"This is a simulated instance, and it does not know {what}.");

    /// <summary>Something is not there, or may not be seen.</summary>
    public static EngineException Missing(string verb, string what, string name) =>
        new(15151, $"Cannot {verb} the {what} '{name}', because it does not exist or you do not have permission.");

    /// <summary>The session's login may not do this.</summary>
    public static EngineException NoPermission() => new(15247, "User does not have permission to perform this action.");
}
