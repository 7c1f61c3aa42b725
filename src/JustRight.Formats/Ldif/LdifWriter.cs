using System.Globalization;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;

namespace JustRight.Formats.Ldif;

/// <summary>What is known of the directory that the file is for.</summary>
/// <param name="DnOf">The distinguished name of a logon name, or null.</param>
/// <param name="SidOf">The SID of a principal of an access rule, or null while it does not exist.</param>
/// <param name="DescriptorOf">The descriptor of an object as last read, or null.</param>
/// <param name="FlagsOf">The <c>userAccountControl</c> of an account as last read, or null.</param>
public sealed record LdifDirectory(
    Func<string, string?> DnOf, Func<string, Sid?> SidOf, Func<string, SecurityDescriptor?> DescriptorOf, Func<string,
    int?> FlagsOf);

/// <summary>
/// The directory part of a worklist as LDIF [RFC 2849], for an ordinary LDAP client. It holds no password: accounts are made
/// disabled. What cannot be said in the file is a comment with the reason.
/// </summary>
public sealed class LdifWriter
{
    private const int Disabled = 0x202; // a normal account, disabled [MS-ADTS 2.2.16]
    private const int AccountDisabled = 0x2;
    private const int NeverExpires = 0x10000;
    private const int AnyService = 0x80000; // trusted for delegation
    // the control's value 4: the access list alone [MS-ADTS 3.1.1.3.4.1.11]
    private const string DaclOnly = "1.2.840.113556.1.4.801 true:: MAMCAQQ=";
    private readonly LdifLines _lines;
    private readonly LdifDirectory _directory;
    private readonly Dictionary<string, string> _made = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, SecurityDescriptor> _lists = new(StringComparer.OrdinalIgnoreCase);

    private LdifWriter(LdifDirectory directory, TextWriter text) => (_directory, _lines) = (directory, new LdifLines(text));

    /// <summary>Writes the changes in their order.</summary>
    /// <param name="title">What the file is for; a comment at its head.</param>
    public static string Write(string title, IEnumerable<DirectoryChange> changes, LdifDirectory directory)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        var writer = new LdifWriter(directory, text);
        writer._lines.Comment(title);
        writer._lines.Comment("Apply with a client that stops at the first error. Run it once; verify afterwards.");
        writer._lines.Plain("version: 1");
        foreach (var change in changes) writer.Change(change);
        return text.ToString();
    }

    private void Change(DirectoryChange change)
    {
        _lines.Plain("");
        _lines.Comment(change.Words);
        switch (change)
        {
            case CreateBranch c:
                Add(c.Dn, ("objectClass", "organizationalUnit"));
                break;
            case CreateGroup c:
                _made[c.Name] = c.Dn;
                Add(
                    c.Dn, ("objectClass", "group"), ("sAMAccountName", c.Name), ("groupType", GroupType(c.Scope)),
                    ("description", c.Description), ("info", c.Note));
                break;
            case CreateAccount c:
                _made[c.Name] = c.Dn;
                _lines.Comment("disabled and without a password: set one over TLS, then enable the account");
                Add(
                    c.Dn, ("objectClass", "user"), ("sAMAccountName", c.Name), ("userPrincipalName", c.Upn),
                    (
                        "userAccountControl",
                        (Disabled | (c.PasswordNeverExpires ? NeverExpires : 0))
                            .ToString(CultureInfo.InvariantCulture)), ("description", c.Description), ("info", c.Note));
                break;
            case DescribeAccount c when DnOf(c.Name) is { } dn && _directory.FlagsOf(c.Name) is { } flags:
                NotGuarded(flags);
                Modify(
                    dn, ("replace", "description", c.Description),
                    (
                        "replace", "userAccountControl",
                        (c.PasswordNeverExpires ? flags | NeverExpires : flags & ~NeverExpires)
                            .ToString(CultureInfo.InvariantCulture)));
                break;
            case DisableAccount c when DnOf(c.Name) is { } dn && _directory.FlagsOf(c.Name) is { } flags:
                NotGuarded(flags);
                Modify(dn, ("replace", "userAccountControl", (flags | AccountDisabled).ToString(CultureInfo.InvariantCulture)));
                break;
            case EnableAccount c when DnOf(c.Name) is { } dn && _directory.FlagsOf(c.Name) is { } flags:
                NotGuarded(flags);
                Modify(dn, ("replace", "userAccountControl", (flags & ~AccountDisabled).ToString(CultureInfo.InvariantCulture)));
                break;
            case AddMember c when DnOf(c.Group) is { } group && DnOf(c.Member) is { } member:
                Modify(group, ("add", "member", member));
                break;
            case RemoveMember c when DnOf(c.Group) is { } group && DnOf(c.Member) is { } member:
                Modify(group, ("delete", "member", member));
                break;
            case AddServiceName c when DnOf(c.Account) is { } dn:
                Modify(dn, ("add", "servicePrincipalName", c.ServiceName));
                break;
            case RemoveServiceName c when DnOf(c.Account) is { } dn:
                Modify(dn, ("delete", "servicePrincipalName", c.ServiceName));
                break;
            case AllowDelegation c when DnOf(c.Account) is { } dn:
                Modify(dn, ("add", "msDS-AllowedToDelegateTo", c.Target));
                break;
            case EndDelegation c when DnOf(c.Account) is { } dn:
                Modify(dn, ("delete", "msDS-AllowedToDelegateTo", c.Target));
                break;
            case TrustForDelegation c when DnOf(c.Account) is { } dn && _directory.FlagsOf(c.Account) is { } flags:
                NotGuarded(flags);
                Modify(dn, ("replace", "userAccountControl", (flags | AnyService).ToString(CultureInfo.InvariantCulture)));
                break;
            case EndDelegationTrust c when DnOf(c.Account) is { } dn && _directory.FlagsOf(c.Account) is { } flags:
                NotGuarded(flags);
                Modify(dn, ("replace", "userAccountControl", (flags & ~AnyService).ToString(CultureInfo.InvariantCulture)));
                break;
            case DeleteBranch c:
                Delete(c.Dn);
                break;
            case DeleteAccount c:
                Delete(DnOf(c.Name) ?? c.Dn);
                break;
            case DeleteGroup c:
                Delete(DnOf(c.Name) ?? c.Dn);
                break;
            case AccessListChange c:
                List(c);
                break;
            case ChangePolicyList:
                _lines.Comment("NOT IN THIS FILE: a policy's lists are in its template, not in the directory. The handover has the new list.");
                break;
            default:
                _lines.Comment("NOT IN THIS FILE: its objects were not read. Take a survey, and write the file again.");
                break;
        }
    }

    /// <summary>Flags are written whole too; no client can be asked to look first.</summary>
    private void NotGuarded(int flags) => _lines.Comment(
        $"not guarded: writes all account flags. Do not apply it if userAccountControl is not {flags} any more");

    /// <summary>An access list is written whole: the file is only good as long as nobody else changed that list.</summary>
    private void List(AccessListChange change)
    {
        var dn = change.Dn;
        var sid = change.Trustee is { } principal ? _directory.SidOf(principal) : default(Sid);
        if (sid is null || (_lists.GetValueOrDefault(dn) ?? _directory.DescriptorOf(dn)) is not { } list)
        {
            _lines.Comment(sid is null
                ? $"NOT IN THIS FILE: {change.Trustee} has no SID until it is created. Apply the file, take a survey, and write the file again."
                : "NOT IN THIS FILE: the access list was not read.");
            return;
        }

        _lists[dn] = list = AccessListChanges.Made(change, list, sid.Value);
        _lines.Comment("not guarded: writes the whole ACL. Do not apply it if the ACL was changed since the survey");
        _lines.Value("dn", dn);
        _lines.Plain("control: " + DaclOnly);
        _lines.Plain("changetype: modify");
        _lines.Plain("replace: nTSecurityDescriptor");
        _lines.Base64("nTSecurityDescriptor", DescriptorBytes.Write(list.DaclOnly));
        _lines.Plain("-");
    }

    private string? DnOf(string name) => _made.GetValueOrDefault(name) ?? _directory.DnOf(name);

    private void Add(string dn, params (string Attribute, string Value)[] values)
    {
        _lines.Value("dn", dn);
        _lines.Plain("changetype: add");
        foreach (var (attribute, value) in values.Where(v => v.Value.Length > 0)) _lines.Value(attribute, value);
    }

    private void Modify(string dn, params (string Operation, string Attribute, string Value)[] changes)
    {
        _lines.Value("dn", dn);
        _lines.Plain("changetype: modify");
        foreach (var (operation, attribute, value) in changes)
        {
            _lines.Plain($"{operation}: {attribute}");
            if (value.Length > 0) _lines.Value(attribute, value);
            _lines.Plain("-");
        }
    }

    private void Delete(string dn)
    {
        _lines.Value("dn", dn);
        _lines.Plain("changetype: delete");
    }

    private static string GroupType(GroupScope scope) => unchecked((int)(0x80000000 | scope switch
    {
        GroupScope.Global => 0x2u,
        GroupScope.DomainLocal => 0x4u,
        _ => 0x8u,
    })).ToString(CultureInfo.InvariantCulture);
}
