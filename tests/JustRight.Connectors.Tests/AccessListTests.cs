using System.DirectoryServices.Protocols;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Engines;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Traces;

namespace JustRight.Connectors.Tests;

/// <summary>Access lists of a real controller: read, traced, fixed and put back.</summary>
public sealed class AccessListTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example";
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_blocked_branch_is_found_explained_fixed_both_ways_and_put_back_byte_for_byte()
    {
        var (people, saltmere) = await PeopleAsync("Fix");
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        var right = new BranchAsked(DirectoryAct.WriteAttributes, ["roomNumber", "wWWHomePage"], "user", people);
        var before = await TraceAsync(right, "svc-fix");
        (before.Answer.Can, before.Answer.Cannot).ShouldBe((0, 5));
        var spot = before.Remedies.ShouldHaveSingleItem().ShouldHaveSingleItem();
        foreach (var change in spot.Changes) await MakeAsync(change);

        var blocked = await TraceAsync(right, "svc-fix");
        (blocked.Answer.Can, blocked.Answer.Cannot).ShouldBe((3, 2));
        var failure = blocked.Answer.Failures.ShouldHaveSingleItem();
        failure.Cause.ShouldBe(FailureCause.InheritanceStops);
        failure.At.Select(i => blocked.Tree[i].Dn).ShouldBe([saltmere]);
        raw.Descriptor(saltmere).IsProtected.ShouldBeTrue();

        foreach (var remedy in blocked.Remedies[0])
        {
            var lists = Lists(raw, people);
            foreach (var change in remedy.Changes) await MakeAsync(change);
            var after = await TraceAsync(right, "svc-fix");
            (after.Answer.Can, after.Answer.Cannot).ShouldBe((5, 0), remedy.Id);
            var touched = Lists(raw, people).Where(l => l.Value != lists[l.Key]).Select(l => l.Key);
            touched.ShouldBe(remedy.Preview.Touched, ignoreOrder: true, remedy.Id);
            foreach (var change in remedy.Changes.Reverse()) await MakeAsync((DirectoryChange)change.Inverse!);
            var back = Lists(raw, people);
            foreach (var (dn, list) in lists) back[dn].ShouldBe(list, $"{remedy.Id} of {dn}");
        }

        // The account itself agrees with what was judged: it can write where it was said to, and nowhere else.
        using var own = new RawClient(controller.Target, "svc-fix@fennmoor.example", Password.Reveal());
        own.TryReplace($"CN=fix-1,{people}", "roomNumber", "12").ShouldBe(ResultCode.Success);
        own.TryReplace($"CN=fix-4,{saltmere}", "roomNumber", "12").ShouldBe(ResultCode.InsufficientAccessRights);
        own.TryReplace($"CN=fix-1,{people}", "description", "12").ShouldBe(ResultCode.InsufficientAccessRights);
    }

    [Fact]
    public async Task A_list_that_changed_since_it_was_looked_at_is_not_touched()
    {
        var (_, saltmere) = await PeopleAsync("Race");
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        var change = new SwitchInheritance("FENNMOOR", saltmere, true, DescriptorText.Write(raw.Descriptor(saltmere).DaclOnly));
        await MakeAsync(new AddAccessRule(
            "FENNMOOR", saltmere, new AccessRule("Everyone", false, AccessRights.ListContents, null, null, AceFlags.None),
            "list its children"));
        (await _directory.ObserveAsync(change, Cancel))
            .ShouldBe(new Observation(
                ObservedState.Impossible, $"the ACL of {saltmere} has changed since it was read: read it again"));
        (await Should.ThrowAsync<ConnectorException>(() => _directory.MakeAsync(change, null, Cancel))).Failure.ShouldBe(
            ConnectorFailure.Conflict);
        raw.Descriptor(saltmere).IsProtected.ShouldBeTrue();
    }

    [Fact]
    public async Task A_branch_protected_against_accidental_deletion_is_kept_until_that_is_lifted_knowingly()
    {
        var above = new CreateBranch("FENNMOOR", $"OU=Keeps,{Root}");
        var branch = new CreateBranch("FENNMOOR", $"OU=Kept,{above.Dn}");
        await MakeAsync(above);
        await MakeAsync(branch);
        // also above it, else the right to delete children is as good
        var set = DeletionProtection.OfNew("FENNMOOR", DistinguishedName.Parse(branch.Dn));
        set.Count.ShouldBe(2);
        foreach (var denial in set) await MakeAsync(denial);
        var protection = set[0];
        var failure = await Should.ThrowAsync<ConnectorException>(() =>
            _directory.MakeAsync((DirectoryChange)branch.Inverse!, null, Cancel));
        failure.Failure.ShouldBe(ConnectorFailure.NotAllowed);
        failure.Message.ShouldContain("is protected from accidental deletion");
        (await _directory.ObserveAsync(branch, Cancel)).State.ShouldBe(ObservedState.Done);
        await MakeAsync((DirectoryChange)protection.Inverse!);
        await MakeAsync((DirectoryChange)branch.Inverse!); // its own right to be deleted is enough again
    }

    [Fact]
    public async Task An_entry_for_nobody_or_on_nothing_is_refused_before_anything_is_sent()
    {
        var rule = new AccessRule(@"FENNMOOR\nobody-here", false, AccessRights.WriteProperty, null, null, AceFlags.None);
        var onRoot = new AddAccessRule("FENNMOOR", Root, rule, "write every attribute");
        (await _directory.ObserveAsync(onRoot, Cancel)).State.ShouldBe(ObservedState.Impossible);
        (await Should.ThrowAsync<ConnectorException>(() =>
            _directory.MakeAsync(onRoot, null, Cancel))).Message.ShouldContain("nobody-here");
        var nowhere = onRoot with { Dn = "OU=Nowhere," + Root, Rule = rule with { Principal = "Everyone" } };
        (await _directory.ObserveAsync(nowhere, Cancel)).Seen.ShouldContain("does not exist");
        (await Should.ThrowAsync<ConnectorException>(() => _directory.MakeAsync(nowhere, null, Cancel))).Failure.ShouldBe(
            ConnectorFailure.NotFound);
    }

    [Fact]
    public async Task What_the_reader_may_not_list_is_unseen_and_never_taken_for_empty()
    {
        var (people, saltmere) = await PeopleAsync("Hidden");
        var reader = new LdapDirectory(
            controller.Target with { SignInAs = "svc-hidden@fennmoor.example", Password = Password }, new DirectorySchemas(),
            TimeProvider.System);
        await MakeAsync(new AddAccessRule(
            "FENNMOOR", saltmere,
            new AccessRule(@"FENNMOOR\svc-hidden", true, AccessRights.ListContents, null, null, AceFlags.None),
            "list its children"));
        var access = (await reader.ReadAsync(
            new DirectoryScope([], ["svc-hidden"]) { Access = new AccessScope([people], [], false) }, Cancel)).Access!;
        access.Unread.ShouldHaveSingleItem().ShouldBe(new UnreadPart(saltmere, "the reader may not list its contents"));
        access.Objects.ShouldNotContain(o => o.Dn.EndsWith("," + saltmere, StringComparison.Ordinal));
        var judged = new BranchJudge(
            new AccessSweep(new AccessTree(access), new AccessToken(Sid.Everyone, [])), default, _ => false)
            .Judge(new BranchAsked(DirectoryAct.WriteAttributes, ["mail"], "user", people));
        judged.Answer.ShouldBeNull();
        judged.Unseen!.ShouldContain(saltmere);
    }

    [Fact]
    public async Task A_container_whose_list_may_not_be_read_is_an_unread_part_where_a_delegation_could_hide()
    {
        var (people, saltmere) = await PeopleAsync("Part");
        var reader = new LdapDirectory(
            controller.Target with { SignInAs = "svc-part@fennmoor.example", Password = Password }, new DirectorySchemas(),
            TimeProvider.System);
        await MakeAsync(new AddAccessRule(
            "FENNMOOR", saltmere, new AccessRule(@"FENNMOOR\svc-part", true, AccessRights.ReadControl, null, null, AceFlags.None),
            "read its access list"));
        var access = (await reader.ReadAsync(
            new DirectoryScope([], []) { Access = new AccessScope([], [], AllContainers: true) }, Cancel)).Access!;
        access.Objects.Single(o => o.Dn == saltmere).Descriptor.ShouldBe(-1);
        access.Unread.ShouldContain(new UnreadPart(saltmere, "its ACL may not be read: delegations there are not known"));
        access.Unread.ShouldNotContain(u => u.Part == people);
    }

    [Fact]
    public async Task A_survey_finds_delegations_in_every_container_and_names_who_holds_them()
    {
        var (people, saltmere) = await PeopleAsync("Found");
        await MakeAsync(new AddAccessRule(
            "FENNMOOR", saltmere, new AccessRule(@"FENNMOOR\svc-found", false, AccessRights.WriteDacl, null, null, AceFlags.None),
            "change its access list"));
        var snapshot = await _directory.ReadAsync(new DirectoryScope([], []) { Access = new AccessScope([], [], true) }, Cancel);
        snapshot.Principals.ShouldContain(p => p.Name == "svc-found");
        snapshot.Access!.Objects.ShouldContain(o => o.Dn == people);
        snapshot.Access.Objects.ShouldNotContain(o => o.Class == "user");
        snapshot.Access.WholeBranches.ShouldBeEmpty();
        var survey = new Survey("fennmoor", TimeProvider.System.GetUtcNow(), false, snapshot, [], []);
        var view = AllEngines.View(survey);
        view.HoldingsOf(view.Graph.IndexOf("svc-found")).All().Select(h => h.Right.ToString())
            .ShouldContain($"change its access list on {saltmere}");
    }

    private static NewPassword Password { get; } = NewPassword.Generate();

    /// <summary>Three people in the open, two in a branch that does not inherit, and an account.</summary>
    private async Task<(string People, string Saltmere)> PeopleAsync(string name)
    {
        var people = $"OU={name},{Root}";
        var saltmere = $"OU=Saltmere,{people}";
        await MakeAsync(new CreateBranch("FENNMOOR", people));
        await MakeAsync(new CreateBranch("FENNMOOR", saltmere));
        var account = "svc-" + name.ToLowerInvariant();
        await _directory.MakeAsync(
            new CreateAccount("FENNMOOR", account, $"CN={account},CN=Users,{Root}", $"{account}@fennmoor.example", "", true),
            Password, Cancel);
        for (var i = 1; i <= 5; i++)
            await _directory.MakeAsync(
                new CreateAccount(
                    "FENNMOOR", $"{name}-{i}".ToLowerInvariant(),
                    $"CN={name.ToLowerInvariant()}-{i},{(i > 3 ? saltmere : people)}", $"{name}-{i}@fennmoor.example", "", true),
                NewPassword.Generate(), Cancel);
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        var list = raw.Descriptor(saltmere);
        raw.TryReplace(
            saltmere, "nTSecurityDescriptor",
            DescriptorBytes.Write(list.WithProtection(true).WithEntries([.. list.Entries.Where(e => !e.IsInherited)]).DaclOnly))
            .ShouldBe(ResultCode.Success);
        return (people, saltmere);
    }

    private async Task<AccessTrace> TraceAsync(BranchAsked right, string account)
    {
        var snapshot = await _directory.ReadAsync(
            new DirectoryScope([], [account]) { Access = new AccessScope([right.Branch], [], false) }, Cancel);
        var graph = new MembershipGraph(snapshot);
        var tree = new AccessTree(snapshot.Access!);
        return AccessTrace.Make(
            new TraceQuestion($@"FENNMOOR\{account}", graph.IndexOf(account), right, [], [], []), tree, graph);
    }

    private async Task MakeAsync(DirectoryChange change)
    {
        if (change is AddAccessRule or RemoveAccessRule or SwitchInheritance)
            (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.NotDone, change.Words);
        await _directory.MakeAsync(change, null, Cancel);
        (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.Done, change.Words);
    }

    private static Dictionary<string, string> Lists(RawClient raw, string branch) =>
        raw.Search(branch, SearchScope.Subtree, "(objectClass=*)", "nTSecurityDescriptor")
        .ToDictionary(e => e.DistinguishedName, e => Convert.ToHexString((byte[])e.Attributes["nTSecurityDescriptor"][0]));
}
