using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.Outbound;

/// <summary>A directory of people that is connected to only where the rules let us: what people type is sent there too.</summary>
/// <param name="inner">The directory.</param>
/// <param name="host">Its host.</param>
/// <param name="ports">Its port for each way.</param>
public sealed class OutboundPeopleDirectory(
    IPeopleDirectory inner, string host, IReadOnlyDictionary<WireSecurity, int> ports, OutboundRules rules) : IPeopleDirectory
{
    /// <inheritdoc/>
    public async Task<ConnectionLook> LookAsync(WireSecurity security, CancellationToken cancel)
    {
        try
        {
            await rules.AddressesAsync(host, cancel);
        }
        catch (ConnectorException e)
        {
            return new ConnectionLook(
                host, ports[security], security, [], new WayTrouble(SignInCause.NotAllowedThere, e.Message.TrimEnd('.')));
        }

        return await inner.LookAsync(security, cancel);
    }

    /// <inheritdoc/>
    public async Task<IPeopleSession> BindAsync(
        WireSecurity security, string name, NewPassword password, CancellationToken cancel)
    {
        await rules.AddressesAsync(host, cancel);
        return await inner.BindAsync(security, name, password, cancel);
    }

    /// <inheritdoc/>
    public async Task<PasswordAnswer> TryPasswordAsync(
        WireSecurity security, string name, NewPassword password, CancellationToken cancel)
    {
        await rules.AddressesAsync(host, cancel);
        return await inner.TryPasswordAsync(security, name, password, cancel);
    }

    /// <inheritdoc/>
    public async Task<int?> ShownToAnybodyAsync(WireSecurity security, string baseDn, CancellationToken cancel)
    {
        await rules.AddressesAsync(host, cancel);
        return await inner.ShownToAnybodyAsync(security, baseDn, cancel);
    }

    /// <inheritdoc/>
    public async Task<EmptyPasswordAnswer> TryEmptyPasswordAsync(WireSecurity security, string name, CancellationToken cancel)
    {
        await rules.AddressesAsync(host, cancel);
        return await inner.TryEmptyPasswordAsync(security, name, cancel);
    }
}
