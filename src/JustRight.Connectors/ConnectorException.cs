namespace JustRight.Connectors;

/// <summary>Why a connector could not do what it was asked.</summary>
public enum ConnectorFailure
{
    /// <summary>Nothing answered, or the connection broke.</summary>
    Unreachable,

    /// <summary>The other side's certificate is not trusted.</summary>
    NotTrusted,

    /// <summary>Name or password were refused.</summary>
    SignIn,

    /// <summary>Nobody allowed the place, or the secret for this use: nothing was sent.</summary>
    Withheld,

    /// <summary>The signed-in account may not do this.</summary>
    NotAllowed,

    /// <summary>What the change needs is not there.</summary>
    NotFound,

    /// <summary>It stands in the way of something that is there, or breaks a rule of the place.</summary>
    Conflict,
}

/// <summary>One clear sentence that says what failed, where, and how to fix it. Never carries a secret.</summary>
public class ConnectorException(ConnectorFailure failure, string message, Exception? inner = null)
    : Exception(message, inner)
{
    /// <summary>The kind of failure.</summary>
    public ConnectorFailure Failure { get; } = failure;
}
