namespace JustRight.Core.Hosts;

/// <summary>When a service starts, once what waits for it is counted in.</summary>
public enum StartOrder
{
    /// <summary>With the system, before any service that starts automatically: a driver.</summary>
    WithTheSystem,

    /// <summary>Automatically, with the host.</summary>
    Automatic,

    /// <summary>Automatically, some two minutes after the automatic ones.</summary>
    AutomaticDelayed,

    /// <summary>When something asks for it.</summary>
    Manual,
}
