namespace JustRight.Connectors;

/// <summary>Secrets that an estate names and the service keeps.</summary>
public static class EstateSecret
{
    /// <summary>The secret kept under a name.</summary>
    /// <param name="secretOf">Where secrets are kept; answers null when there is none under the name.</param>
    /// <param name="name">The name that the estate gives.</param>
    /// <param name="namedFor">What the estate names it for: a host, an instance, the directory.</param>
    /// <exception cref="ConnectorException">There is none under that name; the message says how to set it.</exception>
    public static async Task<NewPassword> OfAsync(Func<string, CancellationToken, Task<NewPassword?>> secretOf, string name, string namedFor, CancellationToken cancel) =>
        await secretOf(name, cancel) ?? throw new ConnectorException(ConnectorFailure.SignIn, $"there is no secret '{name}', which the estate names for {namedFor}: set it with justright secret set {name}.");
}
