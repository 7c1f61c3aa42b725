using System.DirectoryServices.Protocols;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.Directories;

/// <summary>
/// Reads accounts, groups and memberships: what lies below the branches, what was asked for by name, and every group above
/// them.
/// </summary>
internal sealed class PrincipalSurvey(IDirectoryReader directory, Domain domain, DirectorySchemas schemas, TimeProvider time)
{
    /// <summary>What is read of each.</summary>
    public static readonly string[] Attributes =
    [
        "objectSid", "objectClass", "sAMAccountName", "description", "info", "whenCreated", "primaryGroupID",
        "userAccountControl",
        "msDS-User-Account-Control-Computed", "accountExpires", "pwdLastSet", "msDS-UserPasswordExpiryTimeComputed",
        "lastLogonTimestamp", "servicePrincipalName", "groupType", "member", "memberOf", Fetchers,
        LdapDelegation.Attribute,
    ];

    /// <summary>What is read of each root key.</summary>
    public static readonly string[] RootKeyAttributes = ["objectClass", "msKds-UseStartTime"];

    private const string Fetchers = "msDS-GroupMSAMembership";
    private static readonly string[] NamedAttributes = [.. Attributes, AccessSurvey.Descriptor];
    private const int ObjectsAtOnce = 50;

    private readonly Dictionary<string, DirectoryEntry> _entries = new(StringComparer.OrdinalIgnoreCase); // by DN
    private readonly Dictionary<string, Sid> _sids = new(StringComparer.OrdinalIgnoreCase);
    // those asked for by name, with their access lists
    private readonly Dictionary<string, DirectoryEntry> _named = new(StringComparer.OrdinalIgnoreCase);
    private readonly HashSet<Sid> _seen = [];
    // groups whose unexpected are named too
    private readonly HashSet<string> _wholeGroups = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Takes the reading.</summary>
    public DirectorySnapshot Read(DirectoryScope scope, CancellationToken cancel)
    {
        var domainSid = directory.Read(directory.Root, "objectSid")?.Bytes("objectSid") is { } bytes
            && Sid.TryFromBytes(bytes, out var sid)
            ? sid
            : default;
        if (domainSid.IsEmpty)
            throw new ConnectorException(ConnectorFailure.NotAllowed, $"the SID of {directory.Root} may not be read.");
        var branches = scope.Branches.SelectMany(WithParents).Distinct(StringComparer.OrdinalIgnoreCase)
            .Where(b => directory.Read(b, "objectClass") is not null).ToList();

        var queue = new Queue<string>();
        foreach (var branch in scope.Branches.Where(b => branches.Contains(b, StringComparer.OrdinalIgnoreCase)))
            foreach (var entry in directory.Search(branch, SearchScope.Subtree, EntryFilter.OfClass("user", "group"), Attributes))
                Take(entry, whole: true);
        foreach (var name in scope.Names)
        {
            if (directory.Find(name, NamedAttributes) is not { } named) continue;
            _named[named.Dn] = named;
            Take(named, whole: false);
        }

        // Who has a name that is to be unique may stand anywhere, computers too.
        foreach (var some in scope.ServiceNames.Chunk(ObjectsAtOnce))
            foreach (var entry in directory.Search(
                directory.Root, SearchScope.Subtree, new EntryFilter("servicePrincipalName", some), Attributes))
                Take(entry, whole: false);

        TakeNamed($"<SID={domainSid.Append(DirectorySnapshot.DomainUsersRid)}>");
        foreach (var everybody in new[] { Sid.Everyone, Sid.AuthenticatedUsers })
            TakeNamed($"CN={everybody},CN=ForeignSecurityPrincipals,{directory.Root}");

        var access = scope.Access is { } asked ? new AccessSurvey(directory, schemas.Read(directory)).Read(asked, cancel) : null;
        foreach (var trustee in access?.Descriptors.SelectMany(d =>
            d.Entries.Select(e => e.Trustee).Append(d.Owner)).Distinct().Where(MayHaveAName)
            ?? [])
            if (!_seen.Contains(trustee)) TakeNamed($"<SID={trustee}>");

        // Level by level: the groups above all that was found last, many in one request.
        while (queue.Count > 0)
        {
            cancel.ThrowIfCancellationRequested();
            var level = queue.Select(dn => _entries[dn]).ToList();
            queue.Clear();
            var above = level.SelectMany(e => e.Texts("memberOf")).Where(g => !_entries.ContainsKey(g))
                .Distinct(StringComparer.OrdinalIgnoreCase);
            foreach (var some in above.Chunk(ObjectsAtOnce))
                foreach (var entry in directory.Search(directory.Root, SearchScope.Subtree, EntryFilter.At(some), Attributes))
                    Take(entry, whole: false);
            foreach (var primary in level.Select(e => e.Number("primaryGroupID")).Where(p =>
                p != 0 && !_seen.Contains(domainSid.Append((uint)p))).Distinct().ToList())
                TakeNamed($"<SID={domainSid.Append((uint)primary)}>");
        }

        return new DirectorySnapshot(
            domain.ShortName, domainSid, directory.Controller, time.GetUtcNow(), [.. Principals().OrderBy(p => p.Sid)], branches,
            null)
        {
            Access = access,
            Policies = scope.Policies ? new PolicySurvey(directory, schemas.Read(directory)).Read(cancel) : null,
            RootKeysUsableFrom = _entries.Values.Any(IsGroupManaged) ? RootKeys() : null,
            ServiceNamesAsked = scope.ServiceNames,
            OtherDomains = scope.ServiceNames.Count == 0 ? [] : OtherDomains(),
            Requests = directory.Requests,
        };

        void TakeNamed(string dn) => Take(directory.Read(dn, Attributes), whole: false);

        void Take(DirectoryEntry? entry, bool whole)
        {
            if (entry?.Bytes("objectSid") is not { } raw || !Sid.TryFromBytes(raw, out var own)) return;
            if (whole) _wholeGroups.Add(entry.Dn);
            if (!_entries.TryAdd(entry.Dn, entry)) return;
            _sids[entry.Dn] = own;
            _seen.Add(own);
            queue.Enqueue(entry.Dn);
        }
    }

    /// <summary>
    /// The other domains of the forest, by the cross-references that have a short name [MS-ADTS 6.1.1.2.1.1.5].
    /// </summary>
    private List<string> OtherDomains() =>
        [.. directory.Search(
            $"CN=Partitions,{directory.ConfigurationRoot}", SearchScope.OneLevel, new EntryFilter("nETBIOSName", []),
            ["nETBIOSName", "nCName"])
            .Where(c => c.Has("nETBIOSName") && !string.Equals(c.Text("nCName"), directory.Root,
                StringComparison.OrdinalIgnoreCase))
            .Select(c => c.Text("nETBIOSName")!).Order(StringComparer.OrdinalIgnoreCase)];

    /// <summary>The root keys of group managed passwords, as far as they may be seen [MS-ADSC, msKds-ProvRootKey].</summary>
    private List<DateTimeOffset> RootKeys() =>
        [.. directory.Search(
            $"CN=Master Root Keys,CN=Group Key Distribution Service,CN=Services,{directory.ConfigurationRoot}",
            SearchScope.OneLevel, EntryFilter.OfClass("msKds-ProvRootKey"), RootKeyAttributes)
            .Select(k => k.FileTime("msKds-UseStartTime")).OfType<DateTimeOffset>().Order()];

    private static bool IsGroupManaged(DirectoryEntry entry) =>
        entry.Texts("objectClass").Contains("msDS-GroupManagedServiceAccount", StringComparer.OrdinalIgnoreCase);

    /// <summary>
    /// Whether an account that was asked for by name may not change its own password; null when that cannot be told.
    /// </summary>
    private bool? CannotChange(DirectoryEntry entry)
    {
        if (IsGroup(entry) || !_named.TryGetValue(entry.Dn, out var named)) return null;
        return ListIn(named, AccessSurvey.Descriptor) is { } list ? OwnPasswordChange.IsForbidden(list) : null;
    }

    private static string? FetchersOf(DirectoryEntry entry)
    {
        if (!IsGroupManaged(entry)) return null;
        return ListIn(entry, Fetchers) is { } list ? DescriptorText.Write(list) : "";
    }

    private static SecurityDescriptor? ListIn(DirectoryEntry entry, string attribute)
    {
        try
        {
            return entry.Bytes(attribute) is { } bytes ? DescriptorBytes.Read(bytes) : null;
        }
        catch (DescriptorFormatException)
        {
            return null;
        }
    }

    /// <summary>Whether a SID is of a domain or of the built-in one: the others have no object.</summary>
    private static bool MayHaveAName(Sid sid) => sid.IsBuiltIn || sid.IsOfAccounts;

    private IEnumerable<DirectoryPrincipal> Principals()
    {
        var members = _entries.Values.ToDictionary(e => e.Dn, MembersOf, StringComparer.OrdinalIgnoreCase);
        var unexpected = Unexpected(
            _wholeGroups.Where(members.ContainsKey).SelectMany(g => members[g].Dns).Where(m => !_sids.ContainsKey(m))
                .Distinct(StringComparer.OrdinalIgnoreCase));
        var claims = _entries.Values.SelectMany(e => e.Texts("memberOf").Select(g => (Group: g, Member: e.Dn)))
            .ToLookup(c => c.Group, c => c.Member, StringComparer.OrdinalIgnoreCase);
        foreach (var entry in _entries.Values)
        {
            var (dns, unread) = members[entry.Dn];
            var sids = new List<Sid>(dns.Count);
            foreach (var member in dns)
            {
                if (_sids.TryGetValue(member, out var sid)) sids.Add(sid);
                else if (_wholeGroups.Contains(entry.Dn) && unexpected.TryGetValue(member, out var found)) sids.Add(found.Sid);
                else if (ForeignSidOf(member) is { IsEmpty: false } foreign) sids.Add(foreign);
                else if (claims.Contains(member)) unread ??= $"its member {member} and the members of that may not be read";
            }

            // A member that says it is in a group is in it, whether the group shows it or not; one that does not show it may
            // hold others too.
            foreach (var hidden in claims.Contains(entry.Dn) ? claims[entry.Dn].Except(
                dns, StringComparer.OrdinalIgnoreCase) : [])
            {
                if (!IsGroup(entry)) continue;
                sids.Add(_sids[hidden]);
                unread ??= $"{hidden} says it is a member, and the group does not show it";
            }

            yield return ToPrincipal(entry, sids, unread) with
            {
                HiddenGroups = [.. entry.Texts("memberOf").Where(g => !_entries.ContainsKey(g))],
            };
        }

        foreach (var principal in unexpected.Values) yield return principal;
    }

    /// <summary>
    /// The SID of a principal from elsewhere by the name of the object that stands for it, which may not be readable [MS-ADTS
    /// 3.1.1.5.2.3: its RDN is its SID]; empty for other members.
    /// </summary>
    private Sid ForeignSidOf(string dn) =>
        DistinguishedName.TryParse(dn, out var name) && Sid.TryParse(name.Parts[0].Value, out var sid)
        && DistinguishedName.IsAtOrBelow(dn, $"CN=ForeignSecurityPrincipals,{directory.Root}")
            ? sid
            : default;

    /// <summary>Members from outside the branches, by distinguished name: many in one request.</summary>
    private Dictionary<string, DirectoryPrincipal> Unexpected(IEnumerable<string> dns)
    {
        var unexpected = new Dictionary<string, DirectoryPrincipal>(StringComparer.OrdinalIgnoreCase);
        foreach (var some in dns.Chunk(ObjectsAtOnce))
            foreach (var entry in directory.Search(directory.Root, SearchScope.Subtree, EntryFilter.At(some), Attributes))
            {
                if (!Sid.TryFromBytes(entry.Bytes("objectSid"), out _)) continue;
                var (members, unread) = MembersOf(entry);
                unexpected[entry.Dn] = ToPrincipal(entry, [.. members.Where(_sids.ContainsKey).Select(m => _sids[m])], unread);
            }

        return unexpected;
    }

    private (List<string> Dns, string? Unread) MembersOf(DirectoryEntry entry)
    {
        string? unread = null;
        List<string> dns = [.. Members(entry, reason => unread = reason)];
        return (dns, unread);
    }

    /// <summary>The members, large groups range by range [MS-ADTS 3.1.1.3.1.3.3].</summary>
    /// <param name="broken">Told why not all could be read.</param>
    private IEnumerable<string> Members(DirectoryEntry entry, Action<string> broken)
    {
        foreach (var member in entry.Texts("member")) yield return member;
        while (RangeOf(entry) is { } range)
        {
            foreach (var member in entry.Texts(range)) yield return member;
            if (range.EndsWith('*')) yield break;
            var next = int.Parse(range[(range.LastIndexOf('-') + 1)..], System.Globalization.CultureInfo.InvariantCulture) + 1;
            if (directory.Read(entry.Dn, $"member;range={next}-*") is not { } more || RangeOf(more) is not { } following
                || following == range)
            {
                broken($"only the first {next} of its members could be read");
                yield break;
            }

            entry = more;
        }
    }

    private static string? RangeOf(DirectoryEntry entry) =>
        entry.AttributeNames.FirstOrDefault(n => n.StartsWith("member;range=", StringComparison.OrdinalIgnoreCase));

    private DirectoryPrincipal ToPrincipal(DirectoryEntry entry, IReadOnlyList<Sid> members, string? unread)
    {
        var classes = entry.Texts("objectClass").ToHashSet(StringComparer.OrdinalIgnoreCase);
        var groupType = unchecked((uint)(int)entry.Number("groupType"));
        Sid.TryFromBytes(entry.Bytes("objectSid"), out var sid);
        return new DirectoryPrincipal(
            sid,
            classes.Contains("foreignSecurityPrincipal") ? PrincipalKind.Foreign
                : classes.Contains("group") ? PrincipalKind.Group
                : classes.Contains("computer") ? PrincipalKind.Computer
                : PrincipalKind.User,
            entry.Text("sAMAccountName") ?? sid.ToString(),
            entry.Dn)
        {
            Description = entry.Text("description") ?? "",
            Note = entry.Text("info") ?? "",
            CreatedAt = entry.Moment("whenCreated"),
            PasswordCannotChange = CannotChange(entry),
            PasswordFetchers = FetchersOf(entry),
            PrimaryGroupRid = (uint)entry.Number("primaryGroupID"),
            State = StateOf(entry),
            Flags = (int)entry.Number("userAccountControl"),
            PasswordSetAt = entry.FileTime("pwdLastSet"),
            PasswordExpiresAt = entry.FileTime("msDS-UserPasswordExpiryTimeComputed"),
            EndsAt = entry.FileTime("accountExpires"),
            LastSeenAt = entry.FileTime("lastLogonTimestamp"),
            ServicePrincipalNames = [.. entry.Texts("servicePrincipalName").Order(StringComparer.OrdinalIgnoreCase)],
            DelegatesTo = [.. entry.Texts(LdapDelegation.Attribute).Order(StringComparer.OrdinalIgnoreCase)],
            IsTrustedForDelegation = (entry.Number("userAccountControl") & LdapDelegation.AnyService) != 0,
            Scope = (groupType & 0x4) != 0 ? GroupScope.DomainLocal
                : (groupType & 0x8) != 0 ? GroupScope.Universal
                : GroupScope.Global,
            IsSecurity = !IsGroup(entry) || (groupType & 0x80000000) != 0,
            Members = members,
            MembersUnread = unread,
        };
    }

    private AccountState StateOf(DirectoryEntry entry)
    {
        if (IsGroup(entry) || !entry.Has("userAccountControl")) return AccountState.None;
        var flags = entry.Number("userAccountControl") | entry.Number("msDS-User-Account-Control-Computed");
        var state = AccountState.None;
        if ((flags & 0x2) != 0) state |= AccountState.Disabled;
        if ((flags & 0x10) != 0) state |= AccountState.Locked;
        if ((flags & 0x10000) != 0) state |= AccountState.PasswordNeverExpires;
        // The directory says itself whether a password has expired: one that never expires has not, though it was never set
        // [MS-ADTS 3.1.1.4.5.17].
        var unset = !entry.Has("msDS-User-Account-Control-Computed") && entry.Has("pwdLastSet")
            && entry.Number("pwdLastSet") == 0;
        if ((flags & 0x800000) != 0 || unset) state |= AccountState.PasswordExpired;
        if (state.HasFlag(AccountState.PasswordExpired) && entry.Has("pwdLastSet") && entry.Number("pwdLastSet") == 0)
            state |= AccountState.PasswordMustChange;
        if (entry.FileTime("accountExpires") <= time.GetUtcNow()) state |= AccountState.Expired;
        return state;
    }

    private static bool IsGroup(DirectoryEntry entry) =>
        entry.Texts("objectClass").Contains("group", StringComparer.OrdinalIgnoreCase);

    private static IEnumerable<string> WithParents(string dn)
    {
        for (var name = DistinguishedName.Parse(dn); name is not null && name.Parts[0].Type != "DC"; name = name.Parent)
            yield return name.Text;
    }
}
