namespace JustRight.Core.Changes;

/// <summary>Disables an account: it keeps its SID, its memberships and its password, and nobody can sign in with it.</summary>
public sealed record DisableAccount(string Domain, string Name) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string? OwnObject => Name;

    /// <inheritdoc/>
    public override string Words => $"disable the account {Domain}\\{Name}";

    /// <inheritdoc/>
    public override Change? Inverse => new EnableAccount(Domain, Name);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Name))];
}

/// <summary>Enables an account that was disabled.</summary>
public sealed record EnableAccount(string Domain, string Name) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string? OwnObject => Name;

    /// <inheritdoc/>
    public override string Words => $"enable the account {Domain}\\{Name} again";

    /// <inheritdoc/>
    public override Change? Inverse => new DisableAccount(Domain, Name);
}
