using System.DirectoryServices.Protocols;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Passwords;
using JustRight.Core.Replicas;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>
/// An AD-like directory over LDAPS. Each call opens a connection of its own, so that none outlives its work; all go to the same
/// controller.
/// </summary>
public sealed class LdapDirectory(LdapTarget target, DirectorySchemas schemas, TimeProvider time) : IDirectoryConnector
{
    private const int NormalAccount = 0x200; // [MS-ADTS 2.2.16]
    private const int AccountDisabled = 0x2; // [MS-ADTS 2.2.16]
    private const int DontExpirePassword = 0x10000;
    private const uint SecurityEnabled = 0x80000000; // [MS-ADTS 2.2.12]

    private static readonly TimeSpan MostSkew = TimeSpan.FromMinutes(5);
    private readonly List<LdapTarget> _candidates = [target, .. target.Others];
    private bool _hasWritten;

    /// <inheritdoc/>
    public async Task<DirectorySnapshot> ReadAsync(DirectoryScope scope, CancellationToken cancel)
    {
        // A reading comes from one controller: where one breaks off, another is read from the start.
        var remarks = new List<string>();
        while (true)
        {
            var from = "";
            try
            {
                using var session = await OpenAsync(cancel, remarks);
                from = session.Controller;
                var snapshot = await Task.Run(
                    () => new PrincipalSurvey(session, target.Domain, schemas, time).Read(scope, cancel), cancel);
                return snapshot with
                {
                    Remarks = [.. remarks.Select(r => $"{r} It was read from {snapshot.ReadFrom} instead."), .. Skew(session)],
                };
            }
            catch (ConnectorException e) when (from.Length > 0 && MayGoOn(e))
            {
                remarks.Add($"{from} failed during the survey: {e.Message}");
                _candidates.RemoveAt(0);
            }
        }
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyList<ReplicaObject>> ReadReplicasAsync(string dn, CancellationToken cancel)
    {
        var replicas = new List<ReplicaObject>();
        foreach (var one in new[] { target }.Concat(target.Others))
        {
            try
            {
                using var session = await LdapSession.OpenAsync(one, cancel);
                replicas.Add(await Task.Run(() => LdapReplicas.Read(session, dn), cancel));
            }
            catch (ConnectorException e)
            {
                replicas.Add(ReplicaObject.NotRead(one.Place, e.Message));
            }
        }

        return replicas;
    }

    /// <inheritdoc/>
    public async Task<AccountUse> ReadUseAsync(string account, CancellationToken cancel)
    {
        var logons = new List<ControllerLogon>();
        var all = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        foreach (var one in new[] { target }.Concat(target.Others))
        {
            try
            {
                using var session = await LdapSession.OpenAsync(one, cancel);
                logons.Add(await Task.Run(() => LdapLogons.Read(session, account), cancel));
                all.UnionWith(await Task.Run(() => LdapLogons.ControllersOf(session), cancel));
            }
            catch (ConnectorException e)
            {
                logons.Add(new ControllerLogon(one.Place, e.Message, null));
            }
        }

        const string notNamed = "the estate does not name it (directory: more-controllers), so it was not asked";
        var others = all.Except(logons.Select(l => l.Controller), StringComparer.OrdinalIgnoreCase)
            .Order(StringComparer.OrdinalIgnoreCase);
        return new AccountUse(account, [.. logons, .. others.Select(o => new ControllerLogon(o, notNamed, null))]);
    }

    /// <inheritdoc/>
    public async Task<DirectorySchema> SchemaAsync(CancellationToken cancel)
    {
        using var session = await OpenAsync(cancel);
        return await Task.Run(() => schemas.Read(session), cancel);
    }

    /// <inheritdoc/>
    public async Task<IReadOnlySet<string>> NamesInUseAsync(IReadOnlyCollection<string> names, CancellationToken cancel)
    {
        using var session = await OpenAsync(cancel);
        return await Task.Run(
            () => names.Where(n => session.Find(n, "sAMAccountName") is not null).ToHashSet(StringComparer.OrdinalIgnoreCase),
            cancel);
    }

    /// <inheritdoc/>
    public async Task<PasswordFacts> ReadPasswordAsync(string account, CancellationToken cancel)
    {
        using var session = await OpenAsync(cancel);
        return await Task.Run(() => LdapPasswords.Read(session, account), cancel);
    }

    /// <inheritdoc/>
    public Task<PasswordTry> TryPasswordAsync(string account, NewPassword password, CancellationToken cancel) =>
        LdapPasswords.TryAsync(
            _candidates[0] with { SignInAs = $"{target.Domain.ShortName}\\{account}", Password = password }, cancel);

    /// <inheritdoc/>
    public async Task<Observation> ObserveAsync(DirectoryChange change, CancellationToken cancel)
    {
        using var session = await OpenAsync(cancel);
        return await Task.Run(() => Observe(session, change), cancel);
    }

    /// <inheritdoc/>
    public async Task MakeAsync(DirectoryChange change, NewPassword? password, CancellationToken cancel)
    {
        using var session = await OpenAsync(cancel);
        _hasWritten = true;
        await Task.Run(() => Make(session, change, password), cancel);
    }

    /// <summary>
    /// Ages and expiries are judged by our clock: that the controller's is far off must be known. Five minutes is what signing
    /// in bears [RFC 4120 8.2].
    /// </summary>
    private IEnumerable<string> Skew(LdapSession session)
    {
        if (session.Time is not { } there || (there - time.GetUtcNow()) is var ahead && ahead.Duration() <= MostSkew) yield break;
        yield return $"The clock of {session.Controller} is {ahead.Duration().TotalMinutes:0} minutes {(ahead > TimeSpan.Zero ? "ahead of" : "behind")} this one: ages and expiry dates may be judged wrongly.";
    }

    /// <summary>
    /// Opens the controller in use; one that does not answer is left for the next. Once something was written that no longer
    /// happens: another controller may not have it yet.
    /// </summary>
    private async Task<LdapSession> OpenAsync(CancellationToken cancel, List<string>? remarks = null)
    {
        while (true)
        {
            try
            {
                return await LdapSession.OpenAsync(_candidates[0], cancel);
            }
            catch (ConnectorException e) when (MayGoOn(e))
            {
                remarks?.Add(e.Message);
                _candidates.RemoveAt(0);
            }
        }
    }

    private bool MayGoOn(ConnectorException e) =>
        e.Failure == ConnectorFailure.Unreachable && _candidates.Count > 1 && !_hasWritten;

    private static Observation Observe(LdapSession session, DirectoryChange change) => change switch
    {
        AccessListChange c => LdapAccessLists.Observe(session, c),
        CreateBranch c => Exists(session, c.Dn) ? Done($"{c.Dn} exists") : NotDone($"{c.Dn} does not exist"),
        DeleteBranch c => Exists(session, c.Dn) ? NotDone($"{c.Dn} exists") : Done($"{c.Dn} does not exist"),
        CreateAccount c => Named(session, c.Name, "user"),
        CreateGroup c => Named(session, c.Name, "group"),
        DeleteAccount c => Gone(session, c.Name, c.Note),
        DeleteGroup c => Gone(session, c.Name, c.Note),
        AddServiceName c => LdapServiceNames.Observe(session, c.Account, c.ServiceName, wanted: true),
        RemoveServiceName c => LdapServiceNames.Observe(session, c.Account, c.ServiceName, wanted: false),
        AllowDelegation c => LdapDelegation.Observe(session, c.Account, c.Target, wanted: true),
        EndDelegation c => LdapDelegation.Observe(session, c.Account, c.Target, wanted: false),
        TrustForDelegation c => LdapDelegation.ObserveTrust(session, c.Account, wanted: true),
        EndDelegationTrust c => LdapDelegation.ObserveTrust(session, c.Account, wanted: false),
        SetPassword c => LdapPasswords.Observe(session, c),
        DescribeAccount c => Described(session, c),
        DisableAccount c => Usable(session, c.Name, wanted: false),
        EnableAccount c => Usable(session, c.Name, wanted: true),
        AddMember c => Membership(session, c.Group, c.Member, wanted: true),
        RemoveMember c => Membership(session, c.Group, c.Member, wanted: false),
        _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
    };

    private static void Make(LdapSession session, DirectoryChange change, NewPassword? password)
    {
        switch (change)
        {
            case AccessListChange c:
                LdapAccessLists.Make(session, c);
                break;
            case CreateBranch c:
                session.Change(
                    new AddRequest(c.Dn, new DirectoryAttribute("objectClass", "organizationalUnit")), $"creating {c.Dn}");
                break;
            case CreateAccount c:
                Create(session, c, password ?? throw new InvalidOperationException("A new account needs a password."));
                break;
            case CreateGroup c:
                session.Change(
                    new AddRequest(c.Dn, [
                        new("objectClass", "group"),
                        new("sAMAccountName", c.Name),
                        new("groupType", GroupType(c.Scope)),
                        .. Optional("description", c.Description), .. Optional("info", c.Note),
                    ]),
                    $"creating {c.Dn}");
                break;
            case AddServiceName c:
                LdapServiceNames.Make(session, c.Account, c.ServiceName, DirectoryAttributeOperation.Add);
                break;
            case RemoveServiceName c:
                LdapServiceNames.Make(session, c.Account, c.ServiceName, DirectoryAttributeOperation.Delete);
                break;
            case AllowDelegation c:
                LdapDelegation.Make(session, c.Account, c.Target, DirectoryAttributeOperation.Add);
                break;
            case EndDelegation c:
                LdapDelegation.Make(session, c.Account, c.Target, DirectoryAttributeOperation.Delete);
                break;
            case TrustForDelegation c:
                LdapDelegation.Trust(session, c.Account, true);
                break;
            case EndDelegationTrust c:
                LdapDelegation.Trust(session, c.Account, false);
                break;
            case SetPassword c:
                LdapPasswords.Set(session, c, password ?? throw new InvalidOperationException("Setting a password needs one."));
                break;
            case DescribeAccount c:
                var account = Need(session, c.Name, "userAccountControl");
                var flags = account.Number("userAccountControl");
                flags = c.PasswordNeverExpires ? flags | DontExpirePassword : flags & ~DontExpirePassword;
                var modify = new ModifyRequest(account.Dn);
                modify.Modifications.Add(
                    Replace("userAccountControl", flags.ToString(System.Globalization.CultureInfo.InvariantCulture)));
                modify.Modifications.Add(Replace("description", c.Description));
                session.Change(modify, $"changing {account.Dn}");
                break;
            case DisableAccount c:
                Enable(session, c.Name, false);
                break;
            case EnableAccount c:
                Enable(session, c.Name, true);
                break;
            case AddMember c:
                Member(session, c.Group, c.Member, DirectoryAttributeOperation.Add);
                break;
            case RemoveMember c:
                Member(session, c.Group, c.Member, DirectoryAttributeOperation.Delete);
                break;
            case DeleteBranch c:
                DeleteBranch(session, c.Dn);
                break;
            case DeleteAccount c:
                session.Change(new DeleteRequest(Ours(session, c.Name, c.Note).Dn), $"deleting {c.Dn}");
                break;
            case DeleteGroup c:
                var group = Ours(session, c.Name, c.Note);
                if (group.Has("member")) throw new ConnectorException(ConnectorFailure.Conflict, $"{c.Name} still has members.");
                session.Change(new DeleteRequest(group.Dn), $"deleting {c.Dn}");
                break;
            default:
                throw new InvalidOperationException($"Unknown change {change.GetType().Name}.");
        }
    }

    /// <summary>
    /// A branch is often protected against a slip of the hand by an entry that denies deleting it to everyone. That is never
    /// lifted in passing.
    /// </summary>
    private static void DeleteBranch(LdapSession session, string dn)
    {
        try
        {
            session.Change(new DeleteRequest(dn), $"deleting {dn}");
        }
        catch (ConnectorException e) when (e.Failure == ConnectorFailure.NotAllowed
            && LdapAccessLists.IsKeptFromDeletion(session, dn))
        {
            throw new ConnectorException(
                ConnectorFailure.NotAllowed,
                $"{dn} is protected from accidental deletion: one of its ACEs denies that to Everyone. To delete it, remove the protection first: justright protect ESTATE OBJECT --lift.",
                e);
        }
    }

    /// <summary>
    /// One add with the password in it: the account is there whole, enabled and with its password, or not at all [MS-ADTS
    /// 3.1.1.3.1.5].
    /// </summary>
    private static void Create(LdapSession session, CreateAccount c, NewPassword password)
    {
        if (session.Find(c.Name, "objectSid") is { } found)
            throw new ConnectorException(ConnectorFailure.Conflict, $"the name {c.Name} is in use: {found.Dn}.");
        var flags = NormalAccount | (c.PasswordNeverExpires ? DontExpirePassword : 0);
        session.Change(
            new AddRequest(c.Dn, [
                new("objectClass", "user"),
                new("sAMAccountName", c.Name),
                new("userPrincipalName", c.Upn),
                LdapPasswords.Attribute(password),
                new("userAccountControl", flags.ToString(System.Globalization.CultureInfo.InvariantCulture)),
                .. Optional("description", c.Description), .. Optional("info", c.Note),
            ]),
            $"creating {c.Dn}");
    }

    /// <summary>An attribute without a value is not allowed in an add: an empty one is none.</summary>
    private static IEnumerable<DirectoryAttribute> Optional(string attribute, string text) =>
        text.Length == 0 ? [] : [new DirectoryAttribute(attribute, text)];

    /// <summary>The object to delete, if it is the one that was made with the note.</summary>
    private static DirectoryEntry Ours(LdapSession session, string name, string note)
    {
        var found = Need(session, name, "info", "member");
        return CreationNote.IsTheSame(note, found.Text("info") ?? "")
            ? found
            : throw new ConnectorException(ConnectorFailure.Conflict, CreationNote.WhyNot(found.Dn, note));
    }

    private static void Member(LdapSession session, string group, string member, DirectoryAttributeOperation operation)
    {
        var outer = Need(session, group, "objectSid").Dn;
        var inner = Need(session, member, "objectSid").Dn;
        session.Change(new ModifyRequest(outer, operation, "member", inner), $"changing the members of {outer}");
    }

    private static DirectoryAttributeModification Replace(string attribute, string value)
    {
        var modification = new DirectoryAttributeModification
        {
            Name = attribute,
            Operation = DirectoryAttributeOperation.Replace,
        };
        if (value.Length > 0) modification.Add(value);
        return modification;
    }

    private static string GroupType(GroupScope scope)
    {
        var type = SecurityEnabled | scope switch
        {
            GroupScope.Global => 0x2u,
            GroupScope.DomainLocal => 0x4u,
            _ => 0x8u,
        };
        return ((int)type).ToString(System.Globalization.CultureInfo.InvariantCulture); // the attribute is signed
    }

    private static DirectoryEntry Need(LdapSession session, string name, params string[] attributes) =>
        session.Find(name, attributes)
            ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no {name} in the directory.");

    private static bool Exists(LdapSession session, string dn) => session.Read(dn, "objectClass") is not null;

    private static Observation Named(LdapSession session, string name, string wanted)
    {
        if (session.Find(name, "objectClass") is not { } found) return NotDone($"{name} does not exist");
        return found.Texts("objectClass").Contains(wanted) && !found.Texts("objectClass").Contains("computer")
            ? Done($"{name} exists: {found.Dn}")
            : new Observation(ObservedState.Impossible, $"the name {name} belongs to {found.Dn}");
    }

    private static Observation Gone(LdapSession session, string name, string note)
    {
        if (session.Find(name, "info") is not { } found) return Done($"{name} does not exist");
        return CreationNote.IsTheSame(note, found.Text("info") ?? "")
            ? NotDone($"{name} exists")
            : new Observation(ObservedState.Impossible, CreationNote.WhyNot(found.Dn, note));
    }

    private static Observation Described(LdapSession session, DescribeAccount c)
    {
        if (session.Find(c.Name, "description", "userAccountControl") is not { } found)
            return new Observation(ObservedState.Impossible, $"{c.Name} does not exist");
        var never = (found.Number("userAccountControl") & DontExpirePassword) != 0;
        return (found.Text("description") ?? "") == c.Description && never == c.PasswordNeverExpires
            ? Done("as planned")
            : NotDone("not as planned");
    }

    private static void Enable(LdapSession session, string name, bool enabled)
    {
        var account = Need(session, name, "userAccountControl");
        var flags = account.Number("userAccountControl");
        var modify = new ModifyRequest(account.Dn);
        modify.Modifications.Add(
            Replace(
                "userAccountControl",
                (enabled ? flags & ~AccountDisabled : flags | AccountDisabled)
                    .ToString(System.Globalization.CultureInfo.InvariantCulture)));
        session.Change(modify, $"{(enabled ? "enabling" : "disabling")} {account.Dn}");
    }

    private static Observation Usable(LdapSession session, string name, bool wanted)
    {
        if (session.Find(name, "userAccountControl") is not { } found)
            return new Observation(ObservedState.Impossible, $"{name} does not exist");
        if (found.Text("userAccountControl") is null)
            return new Observation(ObservedState.Impossible, $"whether {name} is enabled may not be read");
        var enabled = (found.Number("userAccountControl") & AccountDisabled) == 0;
        return new Observation(
            enabled == wanted ? ObservedState.Done : ObservedState.NotDone, $"{name} is {(enabled ? "enabled" : "disabled")}");
    }

    private static Observation Membership(LdapSession session, string group, string member, bool wanted)
    {
        var outer = session.Find(group, "objectSid");
        var inner = session.Find(member, "objectSid");
        if (outer is null || inner is null)
            return new Observation(
                wanted ? ObservedState.Impossible : ObservedState.Done, $"{(outer is null ? group : member)} does not exist");
        var holds = session.Search(outer.Dn, SearchScope.Base, new EntryFilter("member", [inner.Dn]), "objectSid").Any();
        return new Observation(
            holds == wanted ? ObservedState.Done : ObservedState.NotDone,
            holds ? $"{member} is in {group}" : $"{member} is not in {group}");
    }

    private static Observation Done(string seen) => new(ObservedState.Done, seen);

    private static Observation NotDone(string seen) => new(ObservedState.NotDone, seen);
}
