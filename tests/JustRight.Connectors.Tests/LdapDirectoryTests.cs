using System.DirectoryServices.Protocols;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

[assembly: AssemblyFixture(typeof(JustRight.Tests.Shared.Controller))]

// With many tests at once on the one controller, now and then a connection is gone between its opening and its first request.
[assembly: CollectionBehavior(DisableTestParallelization = true)]

namespace JustRight.Connectors.Tests;

/// <summary>The connector against a real controller: what it makes is there, what it reads is so, what it may not do it says.</summary>
public sealed class LdapDirectoryTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example";
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Branches_accounts_groups_and_memberships_are_made_read_and_unmade()
    {
        var branch = $"OU=Made,{Root}";
        Change[] changes =
        [
            new CreateBranch("FENNMOOR", branch),
            new CreateGroup("FENNMOOR", "made-inner", $"CN=made-inner,{branch}", GroupScope.Global, "holds the poller"),
            new CreateGroup("FENNMOOR", "made-outer", $"CN=made-outer,{branch}", GroupScope.DomainLocal, "holds the inner one"),
            new CreateAccount(
                "FENNMOOR", "svc-made", $"CN=svc-made,{branch}", "svc-made@fennmoor.example", "polls, and \"more\"", true),
            new AddMember("FENNMOOR", "made-inner", "svc-made"),
            new AddMember("FENNMOOR", "made-outer", "made-inner"),
        ];
        foreach (var change in changes.Cast<DirectoryChange>())
        {
            (await _directory.ObserveAsync(change, Cancel)).State.ShouldNotBe(ObservedState.Done, change.Words);
            await _directory.MakeAsync(change, change is CreateAccount ? NewPassword.Generate() : null, Cancel);
            (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.Done, change.Words);
        }

        var snapshot = await _directory.ReadAsync(new DirectoryScope([branch], []), Cancel);
        snapshot.Branches.ShouldBe([branch]);
        snapshot.ReadFrom.ShouldBe("fm-dc01.fennmoor.example");
        var account = snapshot.Principals.Single(p => p.Name == "svc-made");
        (account.Kind, account.Description, account.State, account.PrimaryGroupRid)
            .ShouldBe((PrincipalKind.User, "polls, and \"more\"", AccountState.PasswordNeverExpires, 513u));
        snapshot.Principals.Single(p => p.Name == "made-outer").Scope.ShouldBe(GroupScope.DomainLocal);
        var graph = new MembershipGraph(snapshot);
        graph.Closure(graph.IndexOf("svc-made")).Select(graph.NameOf)
            .ShouldBe(
                [@"FENNMOOR\Domain Users", @"FENNMOOR\made-inner", @"FENNMOOR\made-outer", @"FENNMOOR\Users"], ignoreOrder: true);

        foreach (var undo in changes.Reverse().Select(c => (DirectoryChange)c.Inverse!))
        {
            await _directory.MakeAsync(undo, null, Cancel);
            (await _directory.ObserveAsync(undo, Cancel)).State.ShouldBe(ObservedState.Done, undo.Words);
        }

        (await _directory.NamesInUseAsync(["svc-made", "made-inner", "Administrator"], Cancel)).ShouldBe(["Administrator"]);
    }

    [Fact]
    public async Task A_new_account_can_sign_in_with_the_password_it_was_given()
    {
        await BranchAsync("SignIn");
        var password = NewPassword.Generate();
        await _directory.MakeAsync(
            new CreateAccount(
                "FENNMOOR", "svc-signin", $"CN=svc-signin,OU=SignIn,{Root}", "svc-signin@fennmoor.example", "signs in", false),
            password, Cancel);
        var own = new LdapDirectory(
            controller.Target with { SignInAs = "svc-signin@fennmoor.example", Password = password }, new DirectorySchemas(),
            TimeProvider.System);
        (await own.NamesInUseAsync(["svc-signin"], Cancel)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task Whether_an_account_was_ever_used_is_asked_of_every_controller()
    {
        await BranchAsync("Used");
        var create = new CreateAccount(
            "FENNMOOR", "svc-used", $"CN=svc-used,OU=Used,{Root}", "svc-used@fennmoor.example", "", false);
        await _directory.MakeAsync(create, NewPassword.Generate(), Cancel);
        (await _directory.ReadUseAsync("svc-used", Cancel)).ShouldSatisfyAllConditions(
            u => u.Controllers.ShouldHaveSingleItem().Controller.ShouldBe("fm-dc01.fennmoor.example"), u => u.WhyNotUnused()
                .ShouldBeNull());

        // This controller counts no simple bind; what a real sign-in leaves is written here.
        var at = new DateTimeOffset(2026, 11, 28, 9, 0, 0, TimeSpan.Zero);
        using (var client = new RawClient(controller.Target, "Administrator@fennmoor.example", controller.Password))
            client.TryReplace(create.Dn, "lastLogon", $"{at.ToFileTime()}").ShouldBe(ResultCode.Success);
        (await _directory.ReadUseAsync("svc-used", Cancel)).WhyNotUnused()
            .ShouldBe("it signed in at fm-dc01.fennmoor.example, last 2026-11-28 09:00 UTC");

        (await _directory.ReadUseAsync("svc-nobody", Cancel)).WhyNotUnused().ShouldNotBeNull()
            .ShouldContain("svc-nobody is not there");
        var silent = controller.Target with { Others = [controller.Target with { Port = 9 }] };
        await _directory.MakeAsync(
            create with { Name = "svc-used2", Dn = $"CN=svc-used2,OU=Used,{Root}", Upn = "svc-used2@fennmoor.example" },
            NewPassword.Generate(), Cancel);
        (await new LdapDirectory(silent, new DirectorySchemas(), TimeProvider.System).ReadUseAsync("svc-used2", Cancel))
            .WhyNotUnused().ShouldNotBeNull()
            .ShouldContain("is not known", customMessage: "a controller that does not answer may know of a sign-in");

        // So may one that the estate does not name.
        await controller.ToolAsync("computer", "create", "FM-DC02");
        try
        {
            await controller.ToolAsync("group", "addmembers", "Domain Controllers", "FM-DC02$");
            await controller.ToolAsync("user", "setprimarygroup", "FM-DC02$", "Domain Controllers");
            (await _directory.ReadUseAsync("svc-used2", Cancel)).WhyNotUnused().ShouldNotBeNull()
                .ShouldStartWith("whether it signed in at FM-DC02 is not known: the estate does not name it");
        }
        finally
        {
            await controller.ToolAsync("computer", "delete", "FM-DC02");
        }
    }

    [Fact]
    public async Task A_disabled_account_cannot_sign_in_and_an_enabled_one_can_again_with_all_else_as_it_was()
    {
        await BranchAsync("Retired");
        var password = NewPassword.Generate();
        await _directory.MakeAsync(
            new CreateAccount(
                "FENNMOOR", "svc-retired", $"CN=svc-retired,OU=Retired,{Root}", "svc-retired@fennmoor.example", "signs in", true),
            password, Cancel);
        var own = new LdapDirectory(
            controller.Target with { SignInAs = "svc-retired@fennmoor.example", Password = password }, new DirectorySchemas(),
            TimeProvider.System);
        var disable = new DisableAccount("FENNMOOR", "svc-retired");
        (await _directory.ObserveAsync(disable, Cancel)).State.ShouldBe(ObservedState.NotDone);
        await _directory.MakeAsync(disable, null, Cancel);
        (await _directory.ObserveAsync(disable, Cancel)).State.ShouldBe(ObservedState.Done);
        await Should.ThrowAsync<ConnectorException>(() => own.NamesInUseAsync(["svc-retired"], Cancel));
        (await StateAsync()).ShouldBe(AccountState.Disabled | AccountState.PasswordNeverExpires);
        await _directory.MakeAsync((DirectoryChange)disable.Inverse!, null, Cancel);
        (await _directory.ObserveAsync((DirectoryChange)disable.Inverse!, Cancel)).State.ShouldBe(ObservedState.Done);
        (await own.NamesInUseAsync(["svc-retired"], Cancel)).Count.ShouldBe(1);
        (await StateAsync()).ShouldBe(AccountState.PasswordNeverExpires);
        (await _directory.ObserveAsync(new DisableAccount("FENNMOOR", "svc-nobody"), Cancel)).State.ShouldBe(
            ObservedState.Impossible);

        async Task<AccountState> StateAsync() =>
            (await _directory.ReadAsync(new DirectoryScope([$"OU=Retired,{Root}"], []), Cancel)).Principals.Single(p =>
                p.Name == "svc-retired").State;
    }

    [Fact]
    public async Task More_objects_than_one_page_are_all_read()
    {
        await BranchAsync("Large");
        await _directory.MakeAsync(
            new CreateGroup("FENNMOOR", "large", $"CN=large,OU=Large,{Root}", GroupScope.Global, ""), null, Cancel);
        var names = Enumerable.Range(0, 620).Select(i => $"large-{i:000}").ToList(); // more than one page of 500
        using (var client = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password))
        {
            foreach (var name in names) client.Do(new AddRequest(
                $"CN={name},OU=Large,{Root}",
                new DirectoryAttribute("objectClass", "group"), new DirectoryAttribute("sAMAccountName", name)));
            client.Do(new ModifyRequest(
                $"CN=large,OU=Large,{Root}", DirectoryAttributeOperation.Add, "member",
                [.. names.Take(40).Select(n => $"CN={n},OU=Large,{Root}")]));
        }

        var snapshot = await _directory.ReadAsync(new DirectoryScope([$"OU=Large,{Root}"], []), Cancel);
        snapshot.Principals.Count(p => p.Name.StartsWith("large-", StringComparison.Ordinal)).ShouldBe(620);
        snapshot.Principals.Single(p => p.Name == "large").Members.Count.ShouldBe(40);
    }

    [Fact]
    public async Task Names_asked_for_are_read_wherever_they_are_with_the_groups_above_them()
    {
        var snapshot = await _directory.ReadAsync(new DirectoryScope([], ["Administrator"]), Cancel);
        var graph = new MembershipGraph(snapshot);
        var groups = graph.Closure(graph.IndexOf("Administrator")).Select(graph.NameOf).ToList();
        groups.ShouldContain(@"FENNMOOR\Domain Admins");
        groups.ShouldContain(@"FENNMOOR\Administrators"); // Domain Admins is in it
    }

    [Fact]
    public async Task States_of_accounts_are_read()
    {
        await BranchAsync("States");
        foreach (var name in new[] { "svc-off", "svc-ended", "svc-change" })
            await _directory.MakeAsync(
                new CreateAccount("FENNMOOR", name, $"CN={name},OU=States,{Root}", $"{name}@fennmoor.example", "", false),
                NewPassword.Generate(), Cancel);
        await controller.ToolAsync("user", "disable", "svc-off");
        await controller.ToolAsync("user", "setexpiry", "svc-ended", "--days=-1");
        await controller.ToolAsync(
            "user", "setpassword", "svc-change", "--newpassword=Zz9-" + Guid.NewGuid().ToString("N"),
            "--must-change-at-next-login");
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        // never expires, never set
        raw.Do(new System.DirectoryServices.Protocols.AddRequest(
            $"CN=svc-unset,OU=States,{Root}",
            [new("objectClass", "user"), new("sAMAccountName", "svc-unset"), new("userAccountControl", "66080")]));
        var snapshot = await _directory.ReadAsync(new DirectoryScope([$"OU=States,{Root}"], []), Cancel);
        snapshot.Principals.Single(p => p.Name == "svc-unset").State.ShouldBe(AccountState.PasswordNeverExpires);
        snapshot.Principals.Single(p => p.Name == "svc-off").State.ShouldBe(AccountState.Disabled);
        snapshot.Principals.Single(p => p.Name == "svc-ended").State.ShouldBe(AccountState.Expired);
        snapshot.Principals.Single(p => p.Name == "svc-change").State.ShouldBe(
            AccountState.PasswordExpired | AccountState.PasswordMustChange);
    }

    [Fact]
    public async Task Ends_policies_and_service_names_of_accounts_are_read()
    {
        await BranchAsync("Facts");
        await _directory.MakeAsync(
            new CreateAccount("FENNMOOR", "svc-facts", $"CN=svc-facts,OU=Facts,{Root}", "svc-facts@fennmoor.example", "", false),
            NewPassword.Generate(), Cancel);
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        var dn = $"CN=svc-facts,OU=Facts,{Root}";
        raw.TryReplace(dn, "servicePrincipalName", "HTTP/fm-facts01", "HTTP/fm-facts01.fennmoor.example")
            .ShouldBe(System.DirectoryServices.Protocols.ResultCode.Success);
        var end = new DateTimeOffset(2031, 3, 4, 5, 6, 7, TimeSpan.Zero);
        raw.TryReplace(dn, "accountExpires", end.ToFileTime().ToString(System.Globalization.CultureInfo.InvariantCulture))
            .ShouldBe(System.DirectoryServices.Protocols.ResultCode.Success);
        var account = (await _directory.ReadAsync(
            new DirectoryScope([$"OU=Facts,{Root}"], ["Administrator"]), Cancel)).Principals.Single(
            p => p.Name == "svc-facts");
        account.ServicePrincipalNames.ShouldBe(["HTTP/fm-facts01", "HTTP/fm-facts01.fennmoor.example"]);
        account.EndsAt.ShouldBe(end);
        account.PasswordSetAt.ShouldNotBeNull().ShouldBe(DateTimeOffset.UtcNow, TimeSpan.FromMinutes(5));
        // the domain's own policy
        account.PasswordExpiresAt.ShouldNotBeNull().ShouldBe(account.PasswordSetAt!.Value.AddDays(42), TimeSpan.FromMinutes(1));
        account.LastSeenAt.ShouldBeNull();
    }

    [Fact]
    public async Task A_wrong_authority_is_named_and_nothing_is_sent()
    {
        var failure = await FailsAsync(controller.Target with { CaFolder = controller.WrongCaFolder });
        failure.Failure.ShouldBe(ConnectorFailure.NotTrusted);
        failure.Message.ShouldContain("none of the trusted authorities issued it (it was issued by CN=Fennmoor test authority)");
    }

    [Fact]
    public async Task A_certificate_for_another_name_is_refused()
    {
        var failure = await FailsAsync(controller.Target with { Controller = "localhost" });
        failure.Failure.ShouldBe(ConnectorFailure.NotTrusted);
        failure.Message.ShouldContain("not for the name localhost");
    }

    [Fact]
    public async Task A_wrong_password_is_a_refused_sign_in_and_not_repeated()
    {
        var failure = await FailsAsync(controller.Target with { Password = new NewPassword("Wrong-" + Guid.NewGuid()) });
        failure.Failure.ShouldBe(ConnectorFailure.SignIn);
        failure.Message.ShouldContain("refuses the sign-in of Administrator@fennmoor.example");
    }

    [Fact]
    public async Task An_empty_password_is_refused_before_it_could_pass_as_anonymous() =>
        (await FailsAsync(controller.Target with { Password = new NewPassword("") })).Failure.ShouldBe(ConnectorFailure.SignIn);

    [Fact]
    public async Task A_port_where_nothing_answers_is_unreachable() =>
        (await FailsAsync(controller.Target with { Port = 1 })).Message.ShouldContain("127.0.0.1:1 does not answer");

    [Fact]
    public async Task A_branch_that_is_not_there_is_said_and_nothing_is_half_done()
    {
        var change = new CreateAccount(
            "FENNMOOR", "svc-nowhere", $"CN=svc-nowhere,OU=Nowhere,{Root}", "svc-nowhere@fennmoor.example", "", false);
        var failure = await Should.ThrowAsync<ConnectorException>(() =>
            _directory.MakeAsync(change, NewPassword.Generate(), Cancel));
        (failure.Failure, failure.Message.Contains("OU=Nowhere", StringComparison.Ordinal))
            .ShouldBe((ConnectorFailure.NotFound, true));
        (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.NotDone);
    }

    [Fact]
    public async Task No_right_to_create_is_said_and_nothing_is_half_done_and_an_administrator_still_can()
    {
        await BranchAsync("Forbidden");
        var password = NewPassword.Generate();
        await _directory.MakeAsync(
            new CreateAccount(
                "FENNMOOR", "svc-plain", $"CN=svc-plain,OU=Forbidden,{Root}", "svc-plain@fennmoor.example", "", false),
            password, Cancel);
        var plain = new LdapDirectory(
            controller.Target with { SignInAs = "svc-plain@fennmoor.example", Password = password }, new DirectorySchemas(),
            TimeProvider.System);
        var change = new CreateGroup("FENNMOOR", "not-mine", $"CN=not-mine,OU=Forbidden,{Root}", GroupScope.Global, "");
        var failure = await Should.ThrowAsync<ConnectorException>(() => plain.MakeAsync(change, null, Cancel));
        failure.Failure.ShouldBe(ConnectorFailure.NotAllowed);
        failure.Message.ShouldContain("svc-plain@fennmoor.example has no right for creating CN=not-mine");
        (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.NotDone);
        await _directory.MakeAsync(change, null, Cancel);
    }

    [Fact]
    public async Task No_failure_shows_a_password()
    {
        var secret = "Plain-Marker-" + Guid.NewGuid().ToString("N");
        var change = new CreateAccount(
            "FENNMOOR", "svc-marker", $"CN=svc-marker,OU=Nowhere,{Root}", "svc-marker@fennmoor.example", "", false);
        (await Should.ThrowAsync<ConnectorException>(() => _directory.MakeAsync(change, new NewPassword(secret), Cancel)))
            .ToString().ShouldNotContain(secret);
        (await FailsAsync(controller.Target with { Password = new NewPassword(secret) })).ToString().ShouldNotContain(secret);
    }

    private async Task BranchAsync(string name) =>
        await _directory.MakeAsync(new CreateBranch("FENNMOOR", $"OU={name},{Root}"), null, Cancel);

    private static Task<ConnectorException> FailsAsync(LdapTarget target) =>
        Should.ThrowAsync<ConnectorException>(() =>
            new LdapDirectory(target, new DirectorySchemas(), TimeProvider.System)
                .ReadAsync(new DirectoryScope([], ["Administrator"]), Cancel));
}
