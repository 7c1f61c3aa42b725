using JustRight.Core.SecretUses;

namespace JustRight.Connectors;

/// <summary>Where connectors get secrets from. A secret is given for exactly the use that is stated, or not at all.</summary>
public interface ISecretSource
{
    /// <summary>The secret of a name, for a use.</summary>
    /// <exception cref="ConnectorException">
    /// There is none of that name, or nobody allowed it for this use; the message says how to.
    /// </exception>
    Task<NewPassword> GetAsync(string name, SecretUse use, CancellationToken cancel);
}
