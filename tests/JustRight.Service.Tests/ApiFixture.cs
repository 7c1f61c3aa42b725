
namespace JustRight.Service.Tests;

/// <summary>One running service for the tests that do not stop it.</summary>
public sealed class ApiFixture : IAsyncLifetime
{
    /// <summary>The service.</summary>
    public TestedService Service { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Service = await PreparedData.Demo.StartAsync();
    }

    public ValueTask DisposeAsync() => Service.DisposeAsync();
}
