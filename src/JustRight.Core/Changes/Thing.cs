using JustRight.Core.Directory;

namespace JustRight.Core.Changes;

/// <summary>
/// Names for what one change makes and another rests on. They are compared and never shown; case does not count, nor whether a
/// principal is named with its domain.
/// </summary>
internal static class Thing
{
    /// <summary>A branch of the directory.</summary>
    public static string Branch(string? dn) => Name("branch", dn ?? "");

    /// <summary>The branch that an object belongs in.</summary>
    public static string BranchOf(string dn) =>
        Branch(DistinguishedName.TryParse(dn, out var parsed) ? parsed.Parent?.Text : null);

    /// <summary>An account or a group.</summary>
    public static string Principal(string name) => Name("principal", LogonName.WithoutDomain(name));

    /// <summary>A service principal name.</summary>
    public static string ServiceName(string name) => Name("spn", name);

    /// <summary>A login of an instance.</summary>
    public static string Login(string instance, string principal) => Name("login", instance, LogonName.WithoutDomain(principal));

    /// <summary>A user of a database.</summary>
    public static string User(string instance, string database, string principal) =>
        Name("user", instance, database, LogonName.WithoutDomain(principal));

    /// <summary>A right on a list of user rights of a host.</summary>
    public static string OnList(string host, string constant, string principal) =>
        Name("right", host, constant, LogonName.WithoutDomain(principal));

    /// <summary>A list of a policy, as it comes to a host.</summary>
    public static string PolicyList(string host, string constant) => Name("list", host, constant);

    /// <summary>A service that has its account.</summary>
    public static string Service(string host, string service) => Name("service", host, service);

    /// <summary>That something is no longer there, or no longer holds anything.</summary>
    public static string Without(string thing) => $"without {thing}";

    private static string Name(params string[] parts) => string.Join('|', parts).ToLowerInvariant();
}
