namespace JustRight.Service.Data.Storage;

/// <summary>How a notice reaches one of those who are told. Stored by its word.</summary>
public enum DeliveryChannel
{
    /// <summary>By mail.</summary>
    Mail,

    /// <summary>By a request that is signed.</summary>
    Webhook,
}

/// <summary>How far a notice to one of those who are told has come. Stored by its word.</summary>
public enum DeliveryState
{
    /// <summary>Is tried, or tried again.</summary>
    Waiting,

    /// <summary>Taken in by the other end.</summary>
    Sent,

    /// <summary>Tried as often as is tried.</summary>
    GivenUp,
}
