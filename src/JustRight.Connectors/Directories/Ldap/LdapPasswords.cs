using System.DirectoryServices.Protocols;
using System.Globalization;
using System.Text;
using JustRight.Core.Changes;
using JustRight.Core.Passwords;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>Passwords of accounts in an AD-like directory: what is told of them, trying one, setting one.</summary>
internal static class LdapPasswords
{
    private const int Disabled = 0x2, Locked = 0x10; // [MS-ADTS 2.2.16]

    /// <summary>A password as the directory takes it: in quotes, in UTF-16 [MS-ADTS 3.1.1.3.1.5.1].</summary>
    public static DirectoryAttribute Attribute(NewPassword password) =>
        new("unicodePwd", Encoding.Unicode.GetBytes($"\"{password.Reveal()}\""));

    /// <summary>
    /// What is told of an account's password. The policy that counts is one of its own, where it has one, and the domain's
    /// otherwise [MS-ADTS 3.1.1.4.5.36].
    /// </summary>
    public static PasswordFacts Read(LdapSession session, string account)
    {
        var found = session.Find(
            account, "pwdLastSet", "badPwdCount", "badPasswordTime", "userAccountControl", "msDS-User-Account-Control-Computed",
            "msDS-ResultantPSO")
            ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no {account} in the directory.");
        var own = found.Text("msDS-ResultantPSO") is { } dn
            ? session.Read(dn, "msDS-LockoutThreshold", "msDS-LockoutObservationWindow", "msDS-MinimumPasswordLength")
            : null;
        var domain = session.Read(session.Root, "lockoutThreshold", "lockOutObservationWindow", "minPwdLength");
        // one of its own that may not be read leaves its numbers unknown
        var policy = found.Has("msDS-ResultantPSO") ? own : domain;
        var flags = found.Number("userAccountControl") | found.Number("msDS-User-Account-Control-Computed");
        return new PasswordFacts(
            account, session.Controller, found.FileTime("pwdLastSet"), Count(
                found, "badPwdCount"), found.FileTime("badPasswordTime"),
            Count(policy, "lockoutThreshold", "msDS-LockoutThreshold"), Span(
                policy, "lockOutObservationWindow",
                "msDS-LockoutObservationWindow"), Count(policy, "minPwdLength", "msDS-MinimumPasswordLength"),
            (flags & Locked) != 0, (flags & Disabled) != 0)
        {
            ControllerTime = session.Time,
        };
    }

    /// <summary>Signs in.</summary>
    public static async Task<PasswordTry> TryAsync(LdapTarget target, CancellationToken cancel)
    {
        try
        {
            using var session = await LdapSession.OpenAsync(target, cancel);
            return new PasswordTry(true, $"{session.Controller} takes it");
        }
        catch (ConnectorException e) when (e.Failure == ConnectorFailure.SignIn)
        {
            return new PasswordTry(false, e.Message);
        }
    }

    /// <summary>Whether a password was set since.</summary>
    public static Observation Observe(LdapSession session, SetPassword change)
    {
        if (session.Find(change.Name, "pwdLastSet") is not { } found)
            return new Observation(ObservedState.Impossible, $"{change.Name} does not exist");
        var set = found.FileTime("pwdLastSet");
        return new Observation(
            set != change.SetBefore ? ObservedState.Done : ObservedState.NotDone,
            set is { } at
                ? $"its password was last set {at.UtcDateTime.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture)} UTC"
                : "its password was never set");
    }

    /// <summary>Sets a password, as one who administers the account: the old one is not asked for.</summary>
    public static void Set(LdapSession session, SetPassword change, NewPassword password)
    {
        var account = session.Find(change.Name, "objectSid")
            ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no {change.Name} in the directory.");
        var value = new DirectoryAttributeModification { Name = "unicodePwd", Operation = DirectoryAttributeOperation.Replace };
        value.AddRange(Attribute(password).GetValues(typeof(byte[])));
        var modify = new ModifyRequest(account.Dn);
        modify.Modifications.Add(value);
        session.Change(modify, $"setting the password of {account.Dn}");
    }

    private static int? Count(DirectoryEntry? entry, params string[] names) =>
        names.Where(n => entry?.Has(n) == true).Select(n => (int?)entry!.Number(n)).FirstOrDefault();

    /// <summary>A span of time is kept as a negative count of 100 nanoseconds [MS-ADTS 3.1.1.2.3.2].</summary>
    private static TimeSpan? Span(DirectoryEntry? entry, params string[] names) =>
        names.Where(n => entry?.Has(n) == true).Select(n => (TimeSpan?)TimeSpan.FromTicks(-entry!.Number(n))).FirstOrDefault();
}
