using System.Globalization;
using JustRight.Core.SignIn.Entries;

namespace JustRight.Formats.Ldif;

/// <summary>
/// What a sign-in rests on in a directory of its own, as LDIF [RFC 2849] for an ordinary LDAP client. It holds no password: the
/// one of the account is set afterwards, over TLS [RFC 3062].
/// </summary>
public static class SignInLdif
{
    /// <summary>The file; null when there is nothing to make.</summary>
    /// <param name="install">The install it is for.</param>
    /// <param name="directory">The estate's key of the directory.</param>
    public static string? Write(string install, string directory, IReadOnlyList<SignInEntry> entries)
    {
        if (entries.Count == 0) return null;
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        var lines = new LdifLines(text);
        lines.Comment($"What the sign-in of {install} rests on in '{directory}' and is not there, as far as was seen.");
        lines.Comment("Apply with a client that stops at the first error. Then run the sign-in test.");
        lines.Plain("version: 1");
        foreach (var entry in entries)
        {
            lines.Plain("");
            Write(lines, entry);
        }

        return text.ToString();
    }

    private static void Write(LdifLines lines, SignInEntry entry)
    {
        switch (entry)
        {
            case SignInEntry.Account account:
                lines.Comment("without a password: set one over TLS, with ldappasswd for instance; skip it where it exists");
                Begin(lines, account.Dn, "add");
                lines.Value("objectClass", "inetOrgPerson");
                if (account.Dn.StartsWith("uid=", StringComparison.OrdinalIgnoreCase)) lines.Value("uid", account.LogonName);
                lines.Value("cn", account.LogonName);
                lines.Value("sn", account.LogonName);
                lines.Value("description", "binds for a product to look people up; needs no right but to read");
                break;
            case SignInEntry.Group group:
                Begin(lines, group.Dn, "add");
                lines.Value("objectClass", group.Class);
                lines.Value("cn", group.Name);
                foreach (var member in group.Members) lines.Value(group.Attribute, member);
                break;
            case SignInEntry.MoreMembers members:
                Begin(lines, members.Dn, "modify");
                lines.Value("add", members.Attribute);
                foreach (var member in members.Added) lines.Value(members.Attribute, member);
                lines.Plain("-");
                break;
            case SignInEntry.Impossible no:
                lines.Comment($"not made: {no.Dn}, because {no.Why}");
                break;
            default:
                throw new InvalidOperationException($"Unknown entry {entry.GetType().Name}.");
        }
    }

    private static void Begin(LdifLines lines, string dn, string change)
    {
        lines.Value("dn", dn);
        lines.Value("changetype", change);
    }
}
