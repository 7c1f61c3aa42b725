using JustRight.Core.Hosts;

namespace JustRight.Core.Changes;

/// <summary>Denies a type of log-on.</summary>
/// <param name="Type">One of <see cref="LogonKind.All"/>.</param>
public sealed record DenyLogon(string Host, string Type, string Principal) : HostChange(Host)
{
    /// <inheritdoc/>
    public override string Words => $"{LogonRights.DenyWords(Type)} to {Principal} on {Host}";

    /// <inheritdoc/>
    public override Change? Inverse => new LiftLogonDenial(Host, Type, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.OnList(Host, LogonRights.DenyConstant(Type), Principal)];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Principal)];
}

/// <summary>Denies a type of log-on no longer.</summary>
/// <param name="Type">One of <see cref="LogonKind.All"/>.</param>
public sealed record LiftLogonDenial(string Host, string Type, string Principal) : HostChange(Host)
{
    /// <inheritdoc/>
    public override string Words => $"no longer {LogonRights.DenyWords(Type)} to {Principal} on {Host}";

    /// <inheritdoc/>
    public override Change? Inverse => new DenyLogon(Host, Type, Principal);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Principal))];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.PolicyList(Host, LogonRights.DenyConstant(Type))];
}
