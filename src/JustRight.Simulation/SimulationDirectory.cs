using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Passwords;
using JustRight.Core.Replicas;
using JustRight.Core.Rights.Access;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Simulation;

/// <summary>
/// The simulated directory. It refuses what a real one refuses: names in use, members that do not exist, nesting that the
/// scopes forbid, branches without a parent, deleting what is not empty.
/// </summary>
public sealed class SimulationDirectory(SimulationFile file, TimeProvider time) : IDirectoryConnector
{
    /// <inheritdoc/>
    public Task<DirectorySnapshot> ReadAsync(DirectoryScope scope, CancellationToken cancel) =>
        Task.FromResult(file.Read(state => Snapshot(state, scope.Access is not null, time.GetUtcNow()) with
        {
            ServiceNamesAsked = scope.ServiceNames,
        }));

    /// <summary>The directory as a survey holds it.</summary>
    internal static DirectorySnapshot Snapshot(SimulationState state, bool withAccess, DateTimeOffset now)
    {
        var domain = Sid.Parse(state.DomainSid);
        var tree = SimulationAccessLists.Tree(state);
        var principals = state.Principals.Select(p => new DirectoryPrincipal(domain.Append(p.Rid), p.Kind, p.Name, p.Dn)
        {
            Description = p.Description,
            Note = p.Note,
            CreatedAt = p.CreatedAt,
            PasswordCannotChange = p.Kind == PrincipalKind.User && tree.IndexOf(p.Dn) is >= 0 and var at
                ? OwnPasswordChange.IsForbidden(tree.DescriptorOf(at)!)
                : null,
            PrimaryGroupRid = p.PrimaryGroupRid,
            ServicePrincipalNames = p.ServiceNames ?? [],
            DelegatesTo = p.DelegatesTo ?? [],
            IsTrustedForDelegation = p.IsTrustedForDelegation,
            State = p.State,
            PasswordSetAt = p.PasswordSetAt,
            PasswordExpiresAt = p.PasswordDays > 0 && !p.State.HasFlag(AccountState.PasswordNeverExpires)
                ? p.PasswordSetAt?.AddDays(p.PasswordDays)
                : null,
            Scope = p.Scope,
            IsSecurity = p.IsSecurity,
            Members = p.MembersUnread is null ? state.Sids(p.Members) : [],
            MembersUnread = p.MembersUnread,
        });
        return new DirectorySnapshot(state.Domain, domain, "the simulation", now, [.. principals], [.. state.Branches], null)
        {
            Access = withAccess ? tree.ToSnapshot() : null,
            Policies = SimulationPolicies.Read(state),
        };
    }

    /// <inheritdoc/>
    public Task<DirectorySchema> SchemaAsync(CancellationToken cancel) => Task.FromResult(BuiltInSchema.Schema);

    /// <inheritdoc/>
    public Task<IReadOnlyList<ReplicaObject>> ReadReplicasAsync(string dn, CancellationToken cancel) =>
        Task.FromResult(file.Read<IReadOnlyList<ReplicaObject>>(state =>
    {
        var tree = SimulationAccessLists.Tree(state);
        return tree.IndexOf(dn) is >= 0 and var at
            ? [new ReplicaObject(
                "the simulation", null, true, new Dictionary<string,
                IReadOnlyList<string>> { ["nTSecurityDescriptor"] = [DescriptorText.Write(tree.DescriptorOf(at)!)] }, [])]
            : [new ReplicaObject("the simulation", null, false, new Dictionary<string, IReadOnlyList<string>>(), [])];
    }));

    /// <inheritdoc/>
    public Task<IReadOnlySet<string>> NamesInUseAsync(IReadOnlyCollection<string> names, CancellationToken cancel) =>
        Task.FromResult(file.Read<IReadOnlySet<string>>(state =>
        names.Where(n => state.Find(n) is not null).ToHashSet(StringComparer.OrdinalIgnoreCase)));

    /// <inheritdoc/>
    public Task<AccountUse> ReadUseAsync(string account, CancellationToken cancel) => Task.FromResult(file.Read(state =>
        new AccountUse(
            account,
            [new ControllerLogon(
                "the simulation", state.Find(account) is null ? $"{account} is not there" : null,
                state.Find(account)?.LastLogon)])));

    /// <inheritdoc/>
    public Task<PasswordFacts> ReadPasswordAsync(string account, CancellationToken cancel) => Task.FromResult(file.Read(state =>
    {
        var found = Need(state, account);
        return new PasswordFacts(
            found.Name, "the simulation", found.PasswordSetAt, found.WrongPasswords, found.WrongPasswordAt, state.LockedAfter,
            SimulationPasswords.WrongOnesCountFor, state.LeastPasswordLength,
            found.State.HasFlag(AccountState.Locked), found.State.HasFlag(AccountState.Disabled));
    }));

    /// <inheritdoc/>
    public Task<PasswordTry> TryPasswordAsync(string account, NewPassword password, CancellationToken cancel)
    {
        PasswordTry? tried = null;
        file.Change(state => tried = SimulationPasswords.Try(state, Need(state, account), password, time.GetUtcNow()));
        return Task.FromResult(tried!);
    }

    /// <inheritdoc/>
    public Task<Observation> ObserveAsync(DirectoryChange change, CancellationToken cancel) =>
        Task.FromResult(file.Read(state => change switch
    {
        AccessListChange c => ListState(state, c),
        ChangePolicyList c =>
            SimulationPolicies.ListOf(state, c.Policy, c.Constant) is var list
                && list.SequenceEqual(c.Entries.Select(e => Entry(state, e)))
                ? Done($"the list of {c.Constant} is {Words(list)}")
                : NotDone($"the list of {c.Constant} is {Words(list)}"),
        CreateBranch c => Branch(state, c.Dn) ? Done($"{c.Dn} exists") : NotDone($"{c.Dn} does not exist"),
        DeleteBranch c => Branch(state, c.Dn) ? NotDone($"{c.Dn} exists") : Done($"{c.Dn} does not exist"),
        CreateAccount c => Named(state, c.Name, PrincipalKind.User),
        CreateGroup c => Named(state, c.Name, PrincipalKind.Group),
        DeleteAccount c => Gone(state, c.Name, c.Note),
        DeleteGroup c => Gone(state, c.Name, c.Note),
        SetPassword c => state.Find(c.Name) is not { } account ? Impossible($"{c.Name} does not exist")
            : account.PasswordSetAt != c.SetBefore ? Done($"its password was set {account.PasswordSetAt:u}") : NotDone(
                c.SetBefore is null ? "its password was never set" : $"its password was last set {c.SetBefore:u}"),
        DescribeAccount c => state.Find(c.Name) is not { } account ? Impossible($"{c.Name} does not exist")
            : account.Description == c.Description
                && account.State.HasFlag(AccountState.PasswordNeverExpires) == c.PasswordNeverExpires
                    ? Done("as planned")
                    : NotDone("not as planned"),
        DisableAccount c => Usable(state, c.Name, wanted: false),
        EnableAccount c => Usable(state, c.Name, wanted: true),
        AddServiceName c => SimulationServiceNames.Observe(state, c.Account, c.ServiceName, wanted: true),
        RemoveServiceName c => SimulationServiceNames.Observe(state, c.Account, c.ServiceName, wanted: false),
        AllowDelegation c => SimulationDelegation.Observe(state, c.Account, c.Target, wanted: true),
        EndDelegation c => SimulationDelegation.Observe(state, c.Account, c.Target, wanted: false),
        TrustForDelegation c => SimulationDelegation.ObserveTrust(state, c.Account, wanted: true),
        EndDelegationTrust c => SimulationDelegation.ObserveTrust(state, c.Account, wanted: false),
        AddMember c => Membership(state, c.Group, c.Member, wanted: true),
        RemoveMember c => Membership(state, c.Group, c.Member, wanted: false),
        _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
    }));

    /// <inheritdoc/>
    public Task MakeAsync(DirectoryChange change, NewPassword? password, CancellationToken cancel)
    {
        file.Change(state => Make(state, change, password, time.GetUtcNow()));
        return Task.CompletedTask;
    }

    private static void Make(SimulationState state, DirectoryChange change, NewPassword? password, DateTimeOffset now)
    {
        switch (change)
        {
            case AccessListChange c:
                ChangeList(state, c);
                break;
            case ChangePolicyList c:
                if (!SimulationPolicies.ListOf(state, c.Policy, c.Constant).SequenceEqual(c.OldEntries.Select(e =>
                    Entry(state, e))))
                    throw Conflict($"the list of {c.Constant} in policy {c.Name} changed in the meantime: verify again.");
                SimulationPolicies.Change(state, c.Policy, c.Constant, [.. c.Entries.Select(e => Entry(state, e))]);
                break;
            case CreateBranch c:
                NeedParent(state, c.Dn);
                if (Branch(state, c.Dn)) throw Conflict($"{c.Dn} exists already.");
                state.Branches.Add(c.Dn);
                break;
            case DeleteBranch c:
                var below = DistinguishedName.Parse(c.Dn);
                if (state.Principals.Any(p => DistinguishedName.Parse(p.Dn).IsAtOrBelow(below))
                    || state.Branches.Any(b => b != c.Dn && DistinguishedName.Parse(b).IsAtOrBelow(below)))
                    throw Conflict($"{c.Dn} is not empty.");
                state.Branches.RemoveAll(b => DistinguishedName.Parse(b).Equals(below));
                break;
            case CreateAccount c:
                if (password is null) throw new InvalidOperationException("A new account needs a password.");
                Create(state, c.Name, c.Dn, PrincipalKind.User, p =>
                {
                    (p.Description, p.Note, p.CreatedAt) = (c.Description, c.Note, now);
                    p.PrimaryGroupRid = DirectorySnapshot.DomainUsersRid;
                    (p.PasswordSetAt, p.PasswordProof) = (now, SimulationPasswords.ProofOf(c.Name, password));
                    p.State = c.PasswordNeverExpires ? AccountState.PasswordNeverExpires : AccountState.None;
                });
                break;
            case SetPassword c:
                if (password is null) throw new InvalidOperationException("Setting a password needs one.");
                var renewed = Need(state, c.Name);
                if (password.Reveal().Length < state.LeastPasswordLength)
                    throw Conflict($"a password has at least {state.LeastPasswordLength} characters in {state.Domain}.");
                (renewed.PasswordProof, renewed.PasswordSetAt, renewed.WrongPasswords) = (
                    SimulationPasswords.ProofOf(c.Name, password), now, 0);
                renewed.State &= ~(AccountState.PasswordExpired | AccountState.PasswordMustChange);
                break;
            case CreateGroup c:
                Create(
                    state, c.Name, c.Dn, PrincipalKind.Group,
                    p => (p.Description, p.Note, p.CreatedAt, p.Scope) = (c.Description, c.Note, now, c.Scope));
                break;
            case DeleteAccount c:
                var account = Ours(state, c.Name, c.Note);
                foreach (var group in state.Principals) state.TakeOff(group.Members, account.Name);
                state.LeaveSidBehind(account);
                state.Principals.Remove(account);
                break;
            case DeleteGroup c:
                var gone = Ours(state, c.Name, c.Note);
                if (gone.Members.Count > 0) throw Conflict($"{c.Name} still has members.");
                state.Principals.Remove(gone);
                break;
            case DescribeAccount c:
                var described = Need(state, c.Name);
                described.Description = c.Description;
                described.State = c.PasswordNeverExpires
                    ? described.State | AccountState.PasswordNeverExpires
                    : described.State & ~AccountState.PasswordNeverExpires;
                break;
            case DisableAccount c:
                Need(state, c.Name).State |= AccountState.Disabled;
                break;
            case EnableAccount c:
                Need(state, c.Name).State &= ~AccountState.Disabled;
                break;
            case AddServiceName c:
                SimulationServiceNames.Add(state, Need(state, c.Account), c.ServiceName);
                break;
            case RemoveServiceName c:
                SimulationServiceNames.Remove(Need(state, c.Account), c.ServiceName);
                break;
            case AllowDelegation c:
                SimulationDelegation.Allow(Need(state, c.Account), c.Target);
                break;
            case EndDelegation c:
                SimulationDelegation.End(Need(state, c.Account), c.Target);
                break;
            case TrustForDelegation c:
                Need(state, c.Account).IsTrustedForDelegation = true;
                break;
            case EndDelegationTrust c:
                Need(state, c.Account).IsTrustedForDelegation = false;
                break;
            case AddMember c:
                var (outer, inner) = (Need(state, c.Group), Need(state, c.Member));
                CheckNesting(outer, inner);
                if (!state.Holds(outer.Members, inner.Name)) outer.Members.Add(inner.Name);
                break;
            case RemoveMember c:
                state.TakeOff(Need(state, c.Group).Members, Need(state, c.Member).Name);
                break;
            default:
                throw new InvalidOperationException($"Unknown change {change.GetType().Name}.");
        }
    }

    private static Observation Usable(SimulationState state, string name, bool wanted)
    {
        if (state.Find(name) is not { } account) return Impossible($"{name} does not exist");
        var enabled = !account.State.HasFlag(AccountState.Disabled);
        var seen = $"{name} is {(enabled ? "enabled" : "disabled")}";
        return enabled == wanted ? Done(seen) : NotDone(seen);
    }

    private static string Entry(SimulationState state, string entry) =>
        entry.StartsWith('*') ? entry : $"*{Need(state, entry).Name switch { var name => state.SidOf(name) }}";

    private static string Words(IReadOnlyList<string> entries) => entries.Count == 0 ? "empty" : string.Join(", ", entries);

    private static Observation ListState(SimulationState state, AccessListChange change)
    {
        var dn = change.Dn;
        var tree = SimulationAccessLists.Tree(state);
        if (tree.IndexOf(dn) is var at && at < 0) return Impossible($"{dn} does not exist");
        if (Trustee(state, change) is not { } trustee)
            return change is RemoveAccessRule
                ? Done($"{change.Trustee} does not exist")
                : Impossible($"{change.Trustee} does not exist");
        var (made, seen) = AccessListChanges.State(change, tree.DescriptorOf(at)!, trustee);
        return made switch { true => Done(seen), false => NotDone(seen), null => Impossible(seen) };
    }

    private static void ChangeList(SimulationState state, AccessListChange change)
    {
        var dn = change.Dn;
        var tree = SimulationAccessLists.Tree(state);
        if (tree.IndexOf(dn) is var at && at < 0)
            throw new ConnectorException(ConnectorFailure.NotFound, $"there is no {dn} in {state.Domain}.");
        var trustee = Trustee(state, change)
            ?? throw new ConnectorException(
                ConnectorFailure.NotFound, $"there is no {change.Trustee} in {state.Domain}.");
        var before = tree.DescriptorOf(at)!;
        var (made, seen) = AccessListChanges.State(change, before, trustee);
        if (made is null) throw Conflict($"{seen}.");
        var after = AccessListChanges.Made(change, before, trustee);
        state.AccessLists[tree[at].Dn] = DescriptorText.Write(
            after.WithEntries([.. after.Entries.Where(e => !e.IsInherited)]) with { Sacl = null });
    }

    private static Sid? Trustee(SimulationState state, AccessListChange change)
    {
        if (change.Trustee is not { } principal) return default(Sid);
        if (Sid.TryParse(principal, out var sid)) return sid;
        return WellKnownSids.Find(principal) ?? (state.Find(principal) is { } found ? state.SidOf(found.Name) : null);
    }

    private static void Create(
        SimulationState state, string name, string dn, PrincipalKind kind, Action<SimulationPrincipal> fill)
    {
        NeedParent(state, dn);
        if (state.Find(name) is not null) throw Conflict($"the name {name} is in use in {state.Domain}.");
        if (state.Principals.Any(p => DistinguishedName.Parse(p.Dn).Equals(DistinguishedName.Parse(dn))))
            throw Conflict($"{dn} exists already.");
        var principal = new SimulationPrincipal { Name = name, Dn = dn, Kind = kind, Rid = state.NextRid++ };
        fill(principal);
        state.Principals.Add(principal);
    }

    /// <summary>Which scopes may hold which [MS-ADTS 3.1.1.3.1.1.5, group scopes].</summary>
    private static void CheckNesting(SimulationPrincipal outer, SimulationPrincipal inner)
    {
        if (outer.Kind != PrincipalKind.Group) throw Conflict($"{outer.Name} is no group.");
        if (outer == inner) throw Conflict($"{outer.Name} cannot hold itself.");
        if (inner.Kind != PrincipalKind.Group) return;
        var allowed = outer.Scope switch
        {
            GroupScope.Global => inner.Scope == GroupScope.Global,
            GroupScope.Universal => inner.Scope is GroupScope.Global or GroupScope.Universal,
            _ => true,
        };
        if (!allowed)
            throw Conflict($"a {Words(outer.Scope)} group such as {outer.Name} cannot hold the {Words(inner.Scope)} group {inner.Name}.");
    }

    private static string Words(GroupScope scope) =>
        scope == GroupScope.DomainLocal ? "domain-local" : scope.ToString().ToLowerInvariant();

    private static void NeedParent(SimulationState state, string dn)
    {
        var parent = DistinguishedName.Parse(dn).Parent!;
        if (!parent.Equals(DistinguishedName.Parse(state.Root)) && !Branch(state, parent.Text))
            throw new ConnectorException(ConnectorFailure.NotFound, $"there is no container {parent} in {state.Domain}.");
    }

    private static SimulationPrincipal Need(SimulationState state, string name) =>
        state.Find(name) ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no {name} in {state.Domain}.");

    /// <summary>The object to delete, if it is the one that was made with the note.</summary>
    private static SimulationPrincipal Ours(SimulationState state, string name, string note)
    {
        var found = Need(state, name);
        return CreationNote.IsTheSame(note, found.Note) ? found : throw Conflict(CreationNote.WhyNot(found.Dn, note));
    }

    private static bool Branch(SimulationState state, string dn) =>
        state.Branches.Any(b => DistinguishedName.Parse(b).Equals(DistinguishedName.Parse(dn)));

    private static Observation Named(SimulationState state, string name, PrincipalKind kind) => state.Find(name) switch
    {
        null => NotDone($"{name} does not exist"),
        var p when p.Kind == kind => Done($"{name} exists: {p.Dn}"),
        var p => Impossible($"the name {name} belongs to {p.Dn}"),
    };

    private static Observation Gone(SimulationState state, string name, string note)
    {
        if (state.Find(name) is not { } found) return Done($"{name} does not exist");
        return CreationNote.IsTheSame(note, found.Note)
            ? NotDone($"{name} exists")
            : Impossible(CreationNote.WhyNot(found.Dn, note));
    }

    private static Observation Membership(SimulationState state, string group, string member, bool wanted)
    {
        if (state.Find(group) is not { } outer)
            return wanted ? Impossible($"{group} does not exist") : Done($"{group} does not exist");
        if (state.Find(member) is null) return wanted ? Impossible($"{member} does not exist") : Done($"{member} does not exist");
        var holds = state.Holds(outer.Members, member);
        return new Observation(
            holds == wanted ? ObservedState.Done : ObservedState.NotDone,
            holds ? $"{member} is in {group}" : $"{member} is not in {group}");
    }

    private static Observation Done(string seen) => new(ObservedState.Done, seen);

    private static Observation NotDone(string seen) => new(ObservedState.NotDone, seen);

    private static Observation Impossible(string seen) => new(ObservedState.Impossible, seen);

    private static ConnectorException Conflict(string message) => new(ConnectorFailure.Conflict, message);
}
