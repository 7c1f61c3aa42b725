namespace JustRight.Core.Estates;

/// <summary>Whether two estates are about the same systems: what is forbidden in one could be done through the other.</summary>
public static class SharedSystems
{
    /// <summary>
    /// What two estates share, in words; null when they share nothing, as a rehearsal does with any: it only names them.
    /// </summary>
    public static string? Of(Estate one, Estate other)
    {
        if (one.IsRehearsal || other.IsRehearsal) return null;
        if (Same(one.Domain.DnsName, other.Domain.DnsName)) return $"the domain {one.Domain.DnsName}";
        if (Same(one.Domain.ShortName, other.Domain.ShortName)) return $"the domain {one.Domain.ShortName}";
        return Common(Controllers(one), Controllers(other), "the domain controller")
            ?? Common(one.Hosts.Select(AddressOf), other.Hosts.Select(AddressOf), "the host")
            ?? Common(one.Instances.Select(AddressOf), other.Instances.Select(AddressOf), "the instance");
    }

    /// <summary>
    /// Everything that an estate is about, by its address, as the estate beside it would name it too: two estates share a system
    /// where these have one in common.
    /// </summary>
    public static IReadOnlySet<string> AddressesOf(Estate estate) => estate.IsRehearsal
        ? new HashSet<string>(StringComparer.OrdinalIgnoreCase) { $"rehearsal {estate.Name}" }
        : AddressesOfReal(estate);

    private static HashSet<string> AddressesOfReal(Estate estate) => new[]
    {
        $"domain {estate.Domain.DnsName}", $"domain {estate.Domain.ShortName}",
    }
        .Concat(Controllers(estate).Select(c => $"controller {c}"))
        .Concat(estate.Hosts.Select(h => $"host {AddressOf(h)}"))
        .Concat(estate.Instances.Select(i => $"instance {AddressOf(i)}"))
        .ToHashSet(StringComparer.OrdinalIgnoreCase);

    private static IEnumerable<string> Controllers(Estate estate) =>
        estate.Directory.MoreControllers.Append(estate.Directory.Controller).OfType<string>();

    private static string AddressOf(EstateHost host) => host.Ssh?.Address ?? host.Name;

    private static string AddressOf(EstateInstance instance) =>
        instance.Tls is { } tls ? $"{tls.Address}:{tls.Port}" : instance.Name;

    private static string? Common(IEnumerable<string> some, IEnumerable<string> others, string what) =>
        some.Intersect(others, StringComparer.OrdinalIgnoreCase).FirstOrDefault() is { } shared ? $"{what} {shared}" : null;

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
