namespace JustRight.Core.Changes;

/// <summary>Registers a service principal name for an account.</summary>
/// <param name="ServiceName">Such as <c>HTTP/fm-web01.fennmoor.example</c>.</param>
public sealed record AddServiceName(string Domain, string Account, string ServiceName) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"register the service principal name {ServiceName} for {Domain}\\{Account}";

    /// <inheritdoc/>
    public override Change? Inverse => new RemoveServiceName(Domain, Account, ServiceName);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn =>
        [Thing.Principal(Account), Thing.Without(Thing.ServiceName(ServiceName))];
}

/// <summary>Takes a service principal name from an account.</summary>
/// <param name="ServiceName">Such as <c>HTTP/fm-web01.fennmoor.example</c>.</param>
public sealed record RemoveServiceName(string Domain, string Account, string ServiceName) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => $"remove the service principal name {ServiceName} from {Domain}\\{Account}";

    /// <inheritdoc/>
    public override Change? Inverse => new AddServiceName(Domain, Account, ServiceName);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes =>
        [Thing.Without(Thing.Principal(Account)), Thing.Without(Thing.ServiceName(ServiceName))];
}
