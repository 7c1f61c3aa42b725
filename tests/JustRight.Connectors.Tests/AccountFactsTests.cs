using System.DirectoryServices.Protocols;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.Tests;

/// <summary>What a real controller says of accounts besides their groups: who made them, what their passwords may, who may fetch a managed one.</summary>
public sealed class AccountFactsTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example";
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_we_made_is_known_by_its_note_and_nothing_else_is_deleted_as_ours()
    {
        var note = CreationNote.Of("mara", DateTimeOffset.UtcNow, "thermograph-dataroom");
        var group = (CreateGroup)new CreateGroup(
            "FENNMOOR", "noted-group", $"CN=noted-group,CN=Users,{Root}", GroupScope.Global, "")
            .Noted(note);
        var account = (CreateAccount)new CreateAccount(
            "FENNMOOR", "svc-noted", $"CN=svc-noted,CN=Users,{Root}", "svc-noted@fennmoor.example", "", true)
            .Noted(note);
        await _directory.MakeAsync(group, null, Cancel);
        await _directory.MakeAsync(account, NewPassword.Generate(), Cancel);
        var read = await ReadAsync("svc-noted");
        read.Note.ShouldBe(note);
        read.CreatedAt.ShouldNotBeNull().ShouldBe(DateTimeOffset.UtcNow, TimeSpan.FromMinutes(5));

        // Somebody deletes it and makes another of the same name.
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        raw.TryReplace(account.Dn, "info", "made by hand").ShouldBe(ResultCode.Success);
        raw.TryReplace(group.Dn, "info").ShouldBe(ResultCode.Success);
        foreach (var deletion in new[] { (DirectoryChange)account.Inverse!, (DirectoryChange)group.Inverse! })
        {
            (await _directory.ObserveAsync(deletion, Cancel)).State.ShouldBe(ObservedState.Impossible);
            (await Should.ThrowAsync<ConnectorException>(() =>
                _directory.MakeAsync(deletion, null, Cancel))).Message.ShouldContain("it is another");
        }

        raw.TryReplace(account.Dn, "info", note).ShouldBe(ResultCode.Success);
        await _directory.MakeAsync((DirectoryChange)account.Inverse!, null, Cancel);
        (await _directory.NamesInUseAsync(["svc-noted", "noted-group"], Cancel)).ShouldBe(["noted-group"]);
    }

    [Fact]
    public async Task That_an_account_may_not_change_its_password_is_made_read_and_so()
    {
        var password = NewPassword.Generate();
        var dn = $"CN=svc-fixed,CN=Users,{Root}";
        await _directory.MakeAsync(
            new CreateAccount("FENNMOOR", "svc-fixed", dn, "svc-fixed@fennmoor.example", "", true), password, Cancel);
        (await ReadAsync("svc-fixed")).PasswordCannotChange.ShouldBe(false);
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        // else the policy refuses a second change on one day, whatever the list says
        raw.TryReplace(Root, "minPwdAge", "0").ShouldBe(ResultCode.Success);
        using var own = new RawClient(controller.Target, "svc-fixed@fennmoor.example", password.Reveal());
        foreach (var rule in OwnPasswordChange.Denials)
            await _directory.MakeAsync(new AddAccessRule("FENNMOOR", dn, rule, "change its password"), null, Cancel);
        (await ReadAsync("svc-fixed")).PasswordCannotChange.ShouldBe(true);
        // it says "constraint violation" where the protocol has "insufficient rights"
        own.Try(Change(dn, password, NewPassword.Generate())).ShouldNotBe(ResultCode.Success);
        foreach (var rule in OwnPasswordChange.Denials)
            await _directory.MakeAsync(new RemoveAccessRule("FENNMOOR", dn, rule, "change its password"), null, Cancel);
        (await ReadAsync("svc-fixed")).PasswordCannotChange.ShouldBe(false);
        own.Try(Change(dn, password, NewPassword.Generate())).ShouldBe(ResultCode.Success);

        raw.TryReplace(dn, "userAccountControl", "512").ShouldBe(ResultCode.Success);
        raw.TryReplace(dn, "pwdLastSet", "0").ShouldBe(ResultCode.Success);
        (await ReadAsync("svc-fixed")).State.ShouldBe(AccountState.PasswordExpired | AccountState.PasswordMustChange);
    }

    [Fact]
    public async Task Who_may_fetch_a_group_managed_password_is_read_and_whether_there_is_a_key()
    {
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        raw.Do(new AddRequest($"CN=fm-hosts,CN=Users,{Root}", [new("objectClass", "group"), new("sAMAccountName", "fm-hosts")]));
        var hosts = (await _directory.ReadAsync(new DirectoryScope([], ["fm-hosts"]), Cancel)).Principals.Single(p =>
            p.Name == "fm-hosts");
        var fetchers = DescriptorBytes.Write(Sddl.Read($"O:S-1-5-32-544D:(A;;RP;;;{hosts.Sid})"));
        raw.Do(new AddRequest($"CN=gmsa-round,CN=Managed Service Accounts,{Root}", [
            new("objectClass", "msDS-GroupManagedServiceAccount"), new("sAMAccountName", "gmsa-round$"), new(
                "dNSHostName", "round.fennmoor.example"), new("msDS-ManagedPasswordInterval", "30"),
            new("msDS-GroupMSAMembership", fetchers),
        ]));
        var before = await _directory.ReadAsync(new DirectoryScope([], ["gmsa-round$"]), Cancel);
        var list = DescriptorText.Read(before.Principals.Single(p => p.Name == "gmsa-round$").PasswordFetchers.ShouldNotBeNull());
        list.Entries.ShouldHaveSingleItem().Trustee.ShouldBe(hosts.Sid);
        before.RootKeysUsableFrom.ShouldBe([]);

        var from = new DateTimeOffset(2026, 11, 1, 8, 0, 0, TimeSpan.Zero);
        var service = $"CN=Group Key Distribution Service,CN=Services,CN=Configuration,{Root}";
        var keys = $"CN=Master Root Keys,{service}";
        raw.Do(new AddRequest(service, "container"));
        raw.Do(new AddRequest(keys, "container"));
        raw.Do(new AddRequest($"CN={Guid.NewGuid()},{keys}", [
            new("objectClass", "msKds-ProvRootKey"), new("msKds-CreateTime", Ticks(from)), new(
                "msKds-UseStartTime", Ticks(from)), new(
                "msKds-DomainID", $"OU=Domain Controllers,{Root}"), new("msKds-KDFAlgorithmID", "SP800_108_CTR_HMAC"),
            new("msKds-PrivateKeyLength", "512"), new("msKds-PublicKeyLength", "2048"), new(
                "msKds-RootKeyData", new byte[64]), new(
                "msKds-SecretAgreementAlgorithmID", "DH"), new("msKds-Version", "1"),
        ]));
        (await _directory.ReadAsync(new DirectoryScope([], ["gmsa-round$"]), Cancel)).RootKeysUsableFrom.ShouldBe([from]);
        (await _directory.ReadAsync(new DirectoryScope([], ["Administrator"]), Cancel)).RootKeysUsableFrom.ShouldBeNull();
    }

    [Fact]
    public async Task A_group_that_may_not_be_read_is_named_and_what_the_account_is_in_is_not_taken_for_whole()
    {
        var (hidden, password) = ($"OU=Secret,{Root}", NewPassword.Generate());
        await _directory.MakeAsync(new CreateBranch("FENNMOOR", hidden), null, Cancel);
        await _directory.MakeAsync(
            new CreateGroup("FENNMOOR", "secret-group", $"CN=secret-group,{hidden}", GroupScope.Global, ""), null, Cancel);
        await _directory.MakeAsync(
            new CreateGroup("FENNMOOR", "open-group", $"CN=open-group,CN=Users,{Root}", GroupScope.DomainLocal, ""), null,
            Cancel);
        foreach (var name in new[] { "svc-secret", "svc-onlooker" })
            await _directory.MakeAsync(
                new CreateAccount("FENNMOOR", name, $"CN={name},CN=Users,{Root}", $"{name}@fennmoor.example", "", true), password,
                Cancel);
        await _directory.MakeAsync(new AddMember("FENNMOOR", "secret-group", "svc-secret"), null, Cancel);
        await _directory.MakeAsync(new AddMember("FENNMOOR", "open-group", "secret-group"), null, Cancel);
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        var domain = (await _directory.ReadAsync(new DirectoryScope([], []), Cancel)).DomainSid;
        foreach (var dn in new[] { $"CN=secret-group,{hidden}", hidden })
            raw.TryReplace(
                dn, "nTSecurityDescriptor",
                DescriptorBytes.Write(Sddl.Read("O:DAG:DAD:P(A;;GA;;;DA)(A;;GA;;;SY)", domain).DaclOnly))
                .ShouldBe(ResultCode.Success);

        var onlooker = new LdapDirectory(
            controller.Target with { SignInAs = "svc-onlooker@fennmoor.example", Password = password }, new DirectorySchemas(),
            TimeProvider.System);
        var read = await onlooker.ReadAsync(new DirectoryScope([], ["svc-secret", "open-group"]), Cancel);
        read.Principals.ShouldNotContain(p => p.Name == "secret-group");
        read.Principals.Single(p => p.Name == "svc-secret").HiddenGroups.ShouldBe([$"CN=secret-group,{hidden}"]);
        read.Principals.Single(p => p.Name == "open-group").MembersUnread.ShouldBe(
            $"its member CN=secret-group,{hidden} and the members of that may not be read");
        var graph = new MembershipGraph(read);
        AccessTokens.Of(graph, graph.IndexOf("svc-secret")).WhyDoubtful.ShouldNotBeNull()(
            read.Principals.Single(p => p.Name == "open-group").Sid)
            .ShouldBe(@"the members of FENNMOOR\open-group could not be read");

        // who may see everything doubts nothing
        var whole = await _directory.ReadAsync(new DirectoryScope([], ["svc-secret", "open-group"]), Cancel);
        whole.Principals.ShouldAllBe(p => p.HiddenGroups.Count == 0 && p.MembersUnread == null);
    }

    private static string Ticks(DateTimeOffset time) =>
        time.ToFileTime().ToString(System.Globalization.CultureInfo.InvariantCulture);

    private static ModifyRequest Change(string dn, NewPassword from, NewPassword to)
    {
        var old = new DirectoryAttributeModification { Name = "unicodePwd", Operation = DirectoryAttributeOperation.Delete };
        old.Add(System.Text.Encoding.Unicode.GetBytes($"\"{from.Reveal()}\""));
        var fresh = new DirectoryAttributeModification { Name = "unicodePwd", Operation = DirectoryAttributeOperation.Add };
        fresh.Add(System.Text.Encoding.Unicode.GetBytes($"\"{to.Reveal()}\""));
        return new ModifyRequest(dn, old, fresh);
    }

    private async Task<DirectoryPrincipal> ReadAsync(string name) =>
        (await _directory.ReadAsync(new DirectoryScope([], [name]), Cancel)).Principals.Single(p => p.Name == name);
}
