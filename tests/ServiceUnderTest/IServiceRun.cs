namespace JustRight.Tests.ServiceUnderTest;

/// <summary>A service that runs, until it is stopped or ends by itself.</summary>
internal interface IServiceRun : IAsyncDisposable
{
    /// <summary>Whether it ended.</summary>
    bool HasEnded { get; }

    /// <summary>Stops it as an operator would, and returns its exit code.</summary>
    Task<int> StopAsync();

    /// <summary>Kills it as a power cut would.</summary>
    Task KillAsync();
}
