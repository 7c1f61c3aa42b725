namespace JustRight.Connectors.Tests;

/// <summary>What the controller of the tests is there; here it is started by hand.</summary>
internal interface IAsyncLifetime : IAsyncDisposable
{
    /// <summary>Starts it.</summary>
    ValueTask InitializeAsync();
}
