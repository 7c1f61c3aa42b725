using System.DirectoryServices.Protocols;
using System.Globalization;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>
/// What an account may do as whoever signed in to it: at services named one by one, and whether at any [MS-ADTS 2.2.16].
/// </summary>
internal static class LdapDelegation
{
    /// <summary>The services, by service principal name.</summary>
    public const string Attribute = "msDS-AllowedToDelegateTo";

    /// <summary>The flag of <c>userAccountControl</c> that stands for any service.</summary>
    public const int AnyService = 0x80000;

    private const string Flags = "userAccountControl";

    /// <summary>Whether an account acts at a service.</summary>
    public static Observation Observe(LdapSession session, string account, string target, bool wanted)
    {
        if (session.Find(account, Attribute) is not { } found) return Gone(account, wanted);
        var has = found.Texts(Attribute).Contains(target, StringComparer.OrdinalIgnoreCase);
        return new Observation(
            has == wanted ? ObservedState.Done : ObservedState.NotDone,
            has ? $"{account} acts at {target}" : $"{account} does not act at {target}");
    }

    /// <summary>Whether an account is trusted for delegation to any service.</summary>
    public static Observation ObserveTrust(LdapSession session, string account, bool wanted)
    {
        if (session.Find(account, Flags) is not { } found) return Gone(account, wanted);
        if (found.Text(Flags) is null)
            return new Observation(ObservedState.Impossible, $"whether {account} is trusted for delegation may not be read");
        var trusted = (found.Number(Flags) & AnyService) != 0;
        return new Observation(
            trusted == wanted ? ObservedState.Done : ObservedState.NotDone,
            $"{account} is {(trusted ? "" : "not ")}trusted for delegation to any service");
    }

    /// <summary>Adds or deletes the one service.</summary>
    public static void Make(LdapSession session, string account, string target, DirectoryAttributeOperation operation) =>
        LdapValues.Change(session, Need(session, account, Attribute), Attribute, target, operation);

    /// <summary>Sets or clears the flag, and no other.</summary>
    public static void Trust(LdapSession session, string account, bool trusted)
    {
        var found = Need(session, account, Flags);
        var flags = found.Number(Flags);
        var change = new DirectoryAttributeModification { Name = Flags, Operation = DirectoryAttributeOperation.Replace };
        change.Add((trusted ? flags | AnyService : flags & ~AnyService).ToString(CultureInfo.InvariantCulture));
        var modify = new ModifyRequest(found.Dn);
        modify.Modifications.Add(change);
        session.Change(modify, $"changing {found.Dn}");
    }

    private static DirectoryEntry Need(LdapSession session, string account, string attribute) => session.Find(account, attribute)
        ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no {account}.");

    private static Observation Gone(string account, bool wanted) =>
        new(wanted ? ObservedState.Impossible : ObservedState.Done, $"{account} does not exist");
}
