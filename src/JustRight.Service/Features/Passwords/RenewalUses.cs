using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.SecretUses;
using JustRight.Service.Data.Secrets;

namespace JustRight.Service.Features.Passwords;

/// <summary>
/// The uses of secrets that a renewal makes. All must be allowed when it begins; it ends with what was allowed then, since half a
/// renewal is worse than none.
/// </summary>
internal static class RenewalUses
{
    /// <summary>
    /// Everything that the steps of a run-book ask for. What is simulated stays in this process and asks for nothing.
    /// </summary>
    /// <param name="anchorOfFolder">The content of the authorities in a folder.</param>
    /// <param name="anchorOfFile">The content of a certificate's file.</param>
    public static IReadOnlyList<AskedUse> Of(
        Estate estate, RunBook book, Func<string?, string> anchorOfFolder, Func<string?, string> anchorOfFile)
    {
        var hosts = book.Steps.Select(s => s.Change).OfType<HostChange>().Select(c => c.Host)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        bool Concerns(SecretUse use) =>
            use.Purpose == SecretPurpose.Directory || (use.Purpose == SecretPurpose.Host && hosts.Contains(use.For));
        var connections = EstateSecretUses.Of(estate, anchorOfFolder, anchorOfFile)
            .Where(u => Concerns(u.Use))
            .Select(u => new AskedUse(u.Secret, u.Use));
        var account = $"{estate.Domain.ShortName}\\{book.Account}";
        var settings = book.Steps.Where(s => s.Change is ServiceChange and not RestartService)
            .Select(s => EstateSecretUses.OfServiceAccount(estate, ((HostChange)s.Change!).Host, account)).OfType<SecretUse>()
            .Select(use => new AskedUse(account, use));
        return [.. connections.Concat(settings).Distinct()];
    }
}
