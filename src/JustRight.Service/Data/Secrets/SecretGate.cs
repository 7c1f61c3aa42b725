using JustRight.Connectors;
using JustRight.Connectors.Outbound;
using JustRight.Core.Directory;
using JustRight.Core.Passwords;
using JustRight.Core.SecretUses;
using JustRight.Service.Data.Storage;
using JustRight.Simulation;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Secrets;

/// <summary>
/// The one way by which a secret, or a kept password, leaves the service: for a use that an owner allowed, whole. Whoever else
/// asks gets an error that says how it is allowed, and nothing was sent.
/// </summary>
internal sealed class SecretGate(
    SecretStore secrets, RefusedUses refused, OutboundRules outbound, IDbContextFactory<AppDb> databases) : ISecretSource
{
    /// <inheritdoc/>
    public Task<NewPassword> GetAsync(string name, SecretUse use, CancellationToken cancel) => GetAsync(name, use, [], cancel);

    /// <summary>A source that gives, beside what is allowed now, what was allowed when a renewal began.</summary>
    /// <param name="begunWith">As <see cref="Key"/> names them.</param>
    public ISecretSource Also(IReadOnlyCollection<string> begunWith) => new WithMore(this, begunWith);

    /// <summary>A secret by name, or null when none is kept under it.</summary>
    /// <param name="use">What it is for; null when it does not leave this process.</param>
    /// <exception cref="ConnectorException">There is one, and nobody allowed it for this use.</exception>
    public async Task<NewPassword?> NamedAsync(string name, SecretUse? use, CancellationToken cancel)
    {
        if (await secrets.ReadAsync(name, cancel) is not { } secret) return null;
        if (use is not null) await CheckAsync(name, use, [], cancel);
        return secret;
    }

    /// <summary>
    /// The password of an account: the one that was made here, while it is still kept; else the secret under the account's logon
    /// name. Null when neither is there. An account of a rehearsal has the password that accounts of a simulation come with.
    /// </summary>
    /// <param name="use">What it is for; null when it does not leave this process.</param>
    /// <exception cref="ConnectorException">There is one, and nobody allowed it for this use.</exception>
    public async Task<NewPassword?> PasswordOfAsync(PasswordSubject account, SecretUse? use, CancellationToken cancel)
    {
        if (await secrets.KeptPasswordAsync(account, cancel) is { } kept)
        {
            if (use is not null) await CheckAsync(account.Text, use, [], cancel);
            return kept;
        }

        if (account.IsRehearsed) return new NewPassword(SimulationPasswords.SimulatedOf(LogonName.WithoutDomain(account.Text)));
        var name = SecretStore.NameFor(account.Text);
        if (await secrets.ReadAsync(name, cancel) is not { } secret) return null;
        if (use is not null) await CheckAsync(name, use, [], cancel);
        return secret;
    }

    /// <summary>Throws when nobody allowed the password of an account for a use.</summary>
    /// <exception cref="ConnectorException">The message says how it is allowed.</exception>
    public Task MustBeAllowedAsync(
        string subject, SecretUse use, IReadOnlyCollection<string> begunWith, CancellationToken cancel) =>
        CheckAsync(subject, use, begunWith, cancel);

    /// <summary>Whether somebody allowed a secret for a use.</summary>
    /// <param name="subject">The name of a secret, or an account as <c>DOMAIN\name</c> for the password that is kept of
    /// it.</param>
    public async Task<bool> IsAllowedAsync(string subject, SecretUse use, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.SecretAllowances.AsNoTracking(
            ).Where(a => a.Subject == subject && a.UseId == use.Id).ToListAsync(cancel);
        return rows.Any(a => a.Use == use);
    }

    /// <summary>Names a secret with a use of it.</summary>
    public static string Key(string subject, SecretUse use) => $"{subject} {use.Id}";

    private async Task<NewPassword> GetAsync(
        string name, SecretUse use, IReadOnlyCollection<string> begunWith, CancellationToken cancel)
    {
        var secret = await secrets.ReadAsync(name, cancel)
            ?? throw new ConnectorException(
                ConnectorFailure.SignIn,
                $"there is no secret '{name}', which the estate names for {use.For}: set it with justright secret set {name}.");
        await CheckAsync(name, use, begunWith, cancel);
        return secret;
    }

    private async Task CheckAsync(string subject, SecretUse use, IReadOnlyCollection<string> begunWith, CancellationToken cancel)
    {
        await outbound.AddressesAsync(use.Host, cancel);
        if (begunWith.Contains(Key(subject, use)) || await IsAllowedAsync(subject, use, cancel)) return;
        refused.Add(subject, use);
        throw new ConnectorException(ConnectorFailure.Withheld, SecretWords.Withheld(subject, use));
    }

    private sealed class WithMore(SecretGate gate, IReadOnlyCollection<string> begunWith) : ISecretSource
    {
        public Task<NewPassword> GetAsync(string name, SecretUse use, CancellationToken cancel) =>
            gate.GetAsync(name, use, begunWith, cancel);
    }
}
