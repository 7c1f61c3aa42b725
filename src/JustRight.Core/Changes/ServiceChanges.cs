using JustRight.Core.Hosts;
using JustRight.Core.Surveys;

namespace JustRight.Core.Changes;

/// <summary>A change of a service of a host.</summary>
/// <param name="Service">Its short name.</param>
public abstract record ServiceChange(string Host, string Service) : HostChange(Host);

/// <summary>
/// Sets what a service runs as from its next start on. The account's password, where it has one, is given beside the change and
/// never in it.
/// </summary>
/// <param name="Account">As the host writes it: <c>DOMAIN\name</c>, or a built-in identity.</param>
/// <param name="OldAccount">What it was before, for undoing.</param>
public sealed record SetServiceAccount(string Host, string Service, string Account, string OldAccount)
    : ServiceChange(Host, Service)
{
    /// <inheritdoc/>
    public override string Words => $"let {Service} on {Host} run as {Account}";

    /// <inheritdoc/>
    public override Change? Inverse => this with { Account = OldAccount, OldAccount = Account };

    /// <summary>
    /// Whether the account has a password that must be given: neither built-in identities nor managed accounts have one.
    /// </summary>
    public bool NeedsPassword => ServiceIdentity.Parse(Account, Host).Kind is IdentityKind.DomainUser or IdentityKind.LocalUser;

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Service(Host, Service)];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn =>
        [Thing.Principal(Account), Thing.OnList(Host, LogonRights.Constant("service"), Account)];
}

/// <summary>
/// Gives a service the password of the account that it runs as already. It cannot be read back; what runs goes on, and the next
/// start takes it. The password is given beside the change and never in it.
/// </summary>
/// <param name="Account">As the host writes it.</param>
public sealed record GiveServicePassword(string Host, string Service, string Account) : ServiceChange(Host, Service)
{
    /// <inheritdoc/>
    public override string Words => $"give {Service} on {Host} the password of {Account}";

    /// <inheritdoc/>
    public override Change? Inverse => null;
}

/// <summary>Sets when a service starts.</summary>
public sealed record SetServiceStart(string Host, string Service, ServiceStart Start, ServiceStart OldStart)
    : ServiceChange(Host, Service)
{
    /// <inheritdoc/>
    public override string Words => $"let {Service} on {Host} start {ServiceWords.Of(Start)}";

    /// <inheritdoc/>
    public override Change? Inverse => this with { Start = OldStart, OldStart = Start };
}

/// <summary>Sets what a service waits for: the whole list.</summary>
/// <param name="WaitsFor">Services by name, groups of services as <c>+name</c>.</param>
public sealed record SetServiceOrder(
    string Host, string Service, IReadOnlyList<string> WaitsFor, IReadOnlyList<string> OldWaitsFor)
    : ServiceChange(Host, Service)
{
    /// <inheritdoc/>
    public override string Words =>
        WaitsFor.Count == 0
            ? $"let {Service} on {Host} wait for nothing"
            : $"let {Service} on {Host} wait for {string.Join(" and ", WaitsFor)}";

    /// <inheritdoc/>
    public override Change? Inverse => this with { WaitsFor = OldWaitsFor, OldWaitsFor = WaitsFor };
}

/// <summary>Restarts a service, so that it runs as what it is set to.</summary>
/// <param name="Account">What it runs as afterwards.</param>
public sealed record RestartService(string Host, string Service, string Account) : ServiceChange(Host, Service)
{
    /// <summary>Whether it shall start anew though it runs as the account already: its password was changed.</summary>
    public bool Anew { get; init; }

    /// <summary>
    /// For a start anew: since when it ran before, by the host's clock; null when that was not told, and then a start anew does
    /// not show.
    /// </summary>
    public DateTimeOffset? RanSince { get; init; }

    /// <summary>Services that wait for it and run: they are stopped with it, and run again afterwards.</summary>
    public IReadOnlyList<string> Dependents { get; init; } = [];

    /// <inheritdoc/>
    public override string Words =>
        !Anew
            ? $"restart {Service} on {Host}, so that it runs as {Account}"
            : $"restart {Service} on {Host}{(Dependents.Count > 0 ? $", and with it {string.Join(" and ", Dependents)}" : "")}";

    /// <inheritdoc/>
    public override Change? Inverse => null;

    /// <inheritdoc/>
    public override bool OnlySettles => true;

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Service(Host, Service)];
}
