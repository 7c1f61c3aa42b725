namespace JustRight.Core.Changes;

/// <summary>Lets an account act at one service as whoever signed in to it: constrained delegation.</summary>
/// <param name="Target">The service principal name of the service.</param>
public sealed record AllowDelegation(string Domain, string Account, string Target) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"let {Domain}\\{Account} act at {Target} as whoever signs in to it (constrained delegation)";

    /// <inheritdoc/>
    public override Change? Inverse => new EndDelegation(Domain, Account, Target);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Account)];
}

/// <summary>Ends that an account acts at one service as whoever signed in to it.</summary>
/// <param name="Target">The service principal name of the service.</param>
public sealed record EndDelegation(string Domain, string Account, string Target) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"no longer let {Domain}\\{Account} act at {Target} as whoever signs in to it";

    /// <inheritdoc/>
    public override Change? Inverse => new AllowDelegation(Domain, Account, Target);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Account))];
}

/// <summary>Trusts an account for delegation to any service again; only ever the way back.</summary>
public sealed record TrustForDelegation(string Domain, string Account) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"trust {Domain}\\{Account} for delegation to any service";

    /// <inheritdoc/>
    public override Change? Inverse => new EndDelegationTrust(Domain, Account);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Account)];
}

/// <summary>Trusts an account for delegation to any service no longer.</summary>
public sealed record EndDelegationTrust(string Domain, string Account) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"no longer trust {Domain}\\{Account} for delegation to any service";

    /// <inheritdoc/>
    public override Change? Inverse => new TrustForDelegation(Domain, Account);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Account))];
}
