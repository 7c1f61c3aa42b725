using JustRight.Connectors;
using JustRight.Core.SecretUses;

namespace JustRight.Tests.Shared;

/// <summary>
/// Gives the same secret for every name and use, to tests of the connectors themselves: nobody is asked whether it is allowed.
/// </summary>
/// <param name="value">The secret; null for none.</param>
public sealed class OneSecret(string? value) : ISecretSource
{
    /// <inheritdoc/>
    public Task<NewPassword> GetAsync(string name, SecretUse use, CancellationToken cancel) => value is null
        ? throw new ConnectorException(ConnectorFailure.SignIn, $"there is no secret '{name}'")
        : Task.FromResult(new NewPassword(value));
}
