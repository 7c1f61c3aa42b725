using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Worklists;
using JustRight.Service.Data.Secrets;

namespace JustRight.Service.Data.Fits;

/// <summary>
/// The passwords that steps would have to ask for while they are made: whoever confirms the steps is asked before that.
/// </summary>
internal static class AskedPasswords
{
    /// <summary>The account whose password a change takes, as <c>DOMAIN\name</c>; null for a change that takes none.</summary>
    public static string? Of(Change change) => change is SetServiceAccount { NeedsPassword: true } set ? set.Account : null;

    /// <summary>Those of the accounts of steps that are not known here, and that none of the steps creates.</summary>
    public static async Task<IReadOnlySet<string>> UnknownAsync(
        Estate estate, IReadOnlyList<Step> steps, SecretStore secrets, CancellationToken cancel)
    {
        var made = steps.Select(s => s.Change).OfType<CreateAccount>().Select(c => $"{c.Domain}\\{c.Name}")
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        return await secrets.WithoutPasswordAsync(
            estate, [.. steps.Select(s => Of(s.Change)).OfType<string>().Where(a => !made.Contains(a))], cancel);
    }
}
