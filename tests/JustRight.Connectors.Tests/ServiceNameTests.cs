using System.DirectoryServices.Protocols;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.Tests;

/// <summary>
/// Service principal names on a real controller: found wherever they are, registered once, and good for a real Kerberos ticket.
/// </summary>
public sealed class ServiceNameTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example", Branch = "OU=Names," + Root;
    private const string Web = "HTTP/names-web.fennmoor.example";
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_name_is_registered_once_read_back_and_gives_a_real_ticket()
    {
        await MakeAsync(new CreateBranch("FENNMOOR", Branch));
        var password = NewPassword.Generate();
        foreach (var account in new[] { "svc-names", "svc-names-too" })
            await _directory.MakeAsync(
                new CreateAccount("FENNMOOR", account, $"CN={account},{Branch}", $"{account}@fennmoor.example", "", false),
                    password,
                Cancel);
        var (mine, theirs) = (new AddServiceName("FENNMOOR", "svc-names", Web), new AddServiceName("FENNMOOR",
            "svc-names-too", Web));
        using var kerberos = new Kerberos(controller.Folder);
        await kerberos.SignInAsync("svc-names-too", password.Reveal());
        (await kerberos.TicketAsync(Web)).ShouldBeFalse("nobody has the name yet");

        (await _directory.ObserveAsync(mine, Cancel)).State.ShouldBe(ObservedState.NotDone);
        await MakeAsync(mine);
        (await _directory.ObserveAsync(mine, Cancel)).State.ShouldBe(ObservedState.Done);
        (await kerberos.TicketAsync(Web)).ShouldBeTrue("a client gets a ticket for what runs as the account");

        var second = await _directory.ObserveAsync(theirs, Cancel);
        (second.State, second.Seen).ShouldBe(
            (ObservedState.Impossible, $"svc-names has {Web}: Kerberos sign-in would fail for both"));
        (await Should.ThrowAsync<ConnectorException>(() => MakeAsync(theirs))).Failure.ShouldBe(ConnectorFailure.Conflict);

        var scope = new DirectoryScope([], ["svc-names-too"]) { ServiceNames = [Web, "HTTP/nobody"] };
        var read = await _directory.ReadAsync(scope, Cancel);
        read.Principals.Single(p => p.Name == "svc-names").ServicePrincipalNames.ShouldBe([Web]);
        read.ServiceNamesAsked.ShouldBe([Web, "HTTP/nobody"]);
        read.OtherDomains.ShouldBeEmpty();

        var inverse = (DirectoryChange)mine.Inverse!;
        await MakeAsync(inverse);
        (await _directory.ObserveAsync(inverse, Cancel)).State.ShouldBe(ObservedState.Done);
        await kerberos.SignInAsync("svc-names-too", password.Reveal());
        (await kerberos.TicketAsync(Web)).ShouldBeFalse("the name is gone");
    }

    [Fact]
    public async Task A_name_is_taken_as_it_is_written_there_and_a_computers_name_is_found_too()
    {
        await MakeAsync(new CreateBranch("FENNMOOR", "OU=Names2," + Root));
        await _directory.MakeAsync(
            new CreateAccount("FENNMOOR", "svc-cased", $"CN=svc-cased,OU=Names2,{Root}", "svc-cased@fennmoor.example", "", false),
            NewPassword.Generate(), Cancel);
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        raw.TryReplace($"CN=svc-cased,OU=Names2,{Root}", "servicePrincipalName", "http/CASED.fennmoor.example")
            .ShouldBe(ResultCode.Success);
        await MakeAsync(new RemoveServiceName("FENNMOOR", "svc-cased", "HTTP/cased.fennmoor.example"));
        raw.Entry($"CN=svc-cased,OU=Names2,{Root}", "servicePrincipalName")!.Attributes.Contains("servicePrincipalName")
            .ShouldBeFalse();

        var dc = raw.Search(Root, SearchScope.Subtree, "(servicePrincipalName=HOST/*)", "servicePrincipalName",
            "sAMAccountName").First();
        var name = (string)dc.Attributes["servicePrincipalName"][0];
        var read = await _directory.ReadAsync(new DirectoryScope([], ["svc-cased"]) { ServiceNames = [name] }, Cancel);
        read.Principals.ShouldContain(p => p.Name == (string)dc.Attributes["sAMAccountName"][0]);
        (await _directory.ObserveAsync(new AddServiceName("FENNMOOR", "svc-cased", name), Cancel)).State
            .ShouldBe(ObservedState.Impossible);
    }

    [Fact]
    public async Task Delegation_is_given_read_and_taken_away_and_no_other_flag_changes()
    {
        var (branch, target) = ($"OU=Names3,{Root}", "MSSQLSvc/names.fennmoor.example:1433");
        await MakeAsync(new CreateBranch("FENNMOOR", branch));
        await _directory.MakeAsync(
            new CreateAccount("FENNMOOR", "svc-acts", $"CN=svc-acts,{branch}", "svc-acts@fennmoor.example", "", true),
            NewPassword.Generate(), Cancel);
        var before = await ReadAsync();
        (before.DelegatesTo.Count, before.IsTrustedForDelegation).ShouldBe((0, false));
        foreach (var change in new DirectoryChange[]
            { new AllowDelegation("FENNMOOR", "svc-acts", target), new TrustForDelegation("FENNMOOR", "svc-acts") })
        {
            (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.NotDone);
            await MakeAsync(change);
            (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.Done);
        }

        var given = await ReadAsync();
        given.DelegatesTo.ShouldBe([target]);
        (given.IsTrustedForDelegation, given.State, given.Flags ^ before.Flags).ShouldBe((true, before.State, 0x80000));
        await MakeAsync(new EndDelegation("FENNMOOR", "svc-acts", target.ToUpperInvariant()));
        await MakeAsync(new EndDelegationTrust("FENNMOOR", "svc-acts"));
        var after = await ReadAsync();
        (after.DelegatesTo.Count, after.Flags).ShouldBe((0, before.Flags));

        async Task<DirectoryPrincipal> ReadAsync() =>
            (await _directory.ReadAsync(new DirectoryScope([], ["svc-acts"]), Cancel)).Principals
                .Single(p => p.Name == "svc-acts");
    }

    private Task MakeAsync(DirectoryChange change) => _directory.MakeAsync(change, null, Cancel);
}
