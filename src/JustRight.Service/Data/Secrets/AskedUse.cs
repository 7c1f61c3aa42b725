using JustRight.Core.SecretUses;

namespace JustRight.Service.Data.Secrets;

/// <summary>A use that a secret is asked for.</summary>
/// <param name="Subject">The name of a secret, or an account as <c>DOMAIN\name</c> for the password that is kept of it.</param>
internal sealed record AskedUse(string Subject, SecretUse Use);
