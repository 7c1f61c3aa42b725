namespace JustRight.Connectors.SqlServer;

/// <summary>The engine's error numbers that call for different fixes [Database Engine events and errors].</summary>
internal static class SqlServerErrors
{
    /// <summary>Login failed.</summary>
    public const int LoginFailed = 18456;

    /// <summary>Chosen to give way in a deadlock: everything in the transaction was undone.</summary>
    public const int Deadlock = 1205;

    /// <summary>From this class on the connection is closed.</summary>
    private const byte Fatal = 20;

    /// <summary>What an error means, and words that say so after the instance's name.</summary>
    public static (ConnectorFailure Failure, string Words) Of(int number, byte severity) => number switch
    {
        LoginFailed or 18470 or 18486 or 18487 or 18488 => (ConnectorFailure.SignIn, " refuses the login"),
        229 or 230 or 262 or 297 or 300 or 15247 or 15562 or 4613 or 15151 or 916 =>
            (ConnectorFailure.NotAllowed, " refuses, or it is not there"),
        976 or 978 or 979 or 983 => (ConnectorFailure.NotAllowed, " has a replica of it that is not open to readers"),
        3906 => (ConnectorFailure.Conflict, " has it read-only, as a secondary replica is: the step is for its primary"),
        15401 or 15404 or 15007 or 15410 => (ConnectorFailure.NotFound, " does not find the account in its domain"),
        911 or 4060 or 942 or 4121 or 208 => (ConnectorFailure.NotFound, " does not find that"),
        Deadlock => (ConnectorFailure.Conflict, " was a deadlock victim three times; rolled back"),
        -2 => (ConnectorFailure.Unreachable, " did not answer in time"),
        _ when severity >= Fatal => (ConnectorFailure.Unreachable, " broke the connection"),
        _ => (ConnectorFailure.Conflict, " refuses"),
    };
}
