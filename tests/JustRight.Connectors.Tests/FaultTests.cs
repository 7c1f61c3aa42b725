using System.DirectoryServices.Protocols;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Connectors.Tests;

/// <summary>What goes wrong with a real controller: each has its message, and nothing is written or taken for fine.</summary>
public sealed class FaultTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example";
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("must change", "its password must be changed first")]
    [InlineData("disabled", "it is disabled")]
    [InlineData("ended", "the account has expired")]
    public async Task Why_the_reader_itself_may_not_sign_in_is_said(string state, string reason)
    {
        var name = "svc-reader-" + state.Replace(' ', '-');
        var password = NewPassword.Generate();
        await _directory.MakeAsync(
            new CreateAccount("FENNMOOR", name, $"CN={name},CN=Users,{Root}", $"{name}@fennmoor.example", "", false), password,
            Cancel);
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        var dn = $"CN={name},CN=Users,{Root}";
        (state switch
        {
            "must change" => raw.TryReplace(dn, "pwdLastSet", "0"),
            "disabled" => raw.TryReplace(dn, "userAccountControl", "514"),
            _ => raw.TryReplace(
                dn, "accountExpires",
                DateTimeOffset.UtcNow.AddDays(-1).ToFileTime().ToString(System.Globalization.CultureInfo.InvariantCulture)),
        }).ShouldBe(ResultCode.Success);
        var reader = new LdapDirectory(
            controller.Target with { SignInAs = $"{name}@fennmoor.example", Password = password }, new DirectorySchemas(),
            TimeProvider.System);
        var failure = await Should.ThrowAsync<ConnectorException>(() => reader.ReadAsync(new DirectoryScope([], []), Cancel));
        failure.Failure.ShouldBe(ConnectorFailure.SignIn);
        failure.Message.ShouldContain(reason);
    }

    [Theory]
    [InlineData("532", "its password has expired")] // the real controller lets no password last less than a day
    [InlineData("775", "it is locked")]
    [InlineData("530", "it may not sign in at this time of day")]
    [InlineData("52e", "wrong name or password, or the account is disabled")]
    public async Task Why_a_sign_in_is_refused_is_read_from_the_number_in_the_answer(string number, string reason)
    {
        using var simulated = new SimulatedController(controller, _ => (0, []))
        {
            BindRefusal = $"80090308: LdapErr: DSID-0C090439, comment: AcceptSecurityContext error, data {number}, v4563",
        };
        var failure = await Should.ThrowAsync<ConnectorException>(() =>
            new LdapDirectory(simulated.Target, new DirectorySchemas(), TimeProvider.System)
                .ReadAsync(new DirectoryScope([], []), Cancel));
        (failure.Failure, failure.Message)
            .ShouldBe((
                ConnectorFailure.SignIn,
                $"{Controller.Address} refuses the sign-in of Administrator@fennmoor.example: {reason}."));
    }

    [Fact]
    public async Task A_controller_whose_clock_is_far_off_is_read_and_that_is_said()
    {
        var ahead = await new LdapDirectory(controller.Target, new DirectorySchemas(), new Shifted(TimeSpan.FromMinutes(-20)))
            .ReadAsync(new DirectoryScope([], []), Cancel);
        ahead.Remarks.ShouldHaveSingleItem()
            .ShouldBe("The clock of fm-dc01.fennmoor.example is 20 minutes ahead of this one: ages and expiry dates may be judged wrongly.");
        (await _directory.ReadAsync(new DirectoryScope([], []), Cancel)).Remarks.ShouldBeEmpty();
    }

    [Fact]
    public async Task What_this_controller_does_not_hold_is_said_and_its_references_to_other_parts_do_not_disturb_a_sweep()
    {
        var failure = await Should.ThrowAsync<ConnectorException>(() =>
            _directory.MakeAsync(new CreateBranch("OTHER", "OU=Branch,DC=elsewhere,DC=example"), null, Cancel));
        failure.Failure.ShouldBe(ConnectorFailure.NotFound);
        (await _directory.ReadReplicasAsync("DC=elsewhere,DC=example", Cancel)).ShouldHaveSingleItem().Found.ShouldBeFalse();
        // the root refers to the configuration
        var whole = (await _directory.ReadAsync(
            new DirectoryScope([], []) { Access = new AccessScope([Root], [], false) }, Cancel)).Access!;
        whole.Unread.ShouldBeEmpty();
        whole.Objects.ShouldContain(o => o.Dn == $"CN=Administrator,CN=Users,{Root}");
    }

    [Fact]
    public async Task A_list_of_sixty_thousand_bytes_is_read_and_one_entry_more_leaves_the_others_alone()
    {
        var dn = $"OU=Long,{Root}";
        await _directory.MakeAsync(new CreateBranch("FENNMOOR", dn), null, Cancel);
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        var own = Enumerable.Range(0, 1600)
            .Select(i =>
                new Ace(AceType.Allow, AceFlags.None, AccessRights.ListContents, Sid.Parse($"S-1-5-21-7-8-9-{5000 + i}")))
            .ToList();
        raw.TryReplace(dn, "nTSecurityDescriptor", DescriptorBytes.Write(raw.Descriptor(dn).WithEntries(own).DaclOnly))
            .ShouldBe(ResultCode.Success);
        var rule = new AddAccessRule(
            "FENNMOOR", dn, new AccessRule("Everyone", false, AccessRights.ReadProperty, null, null, AceFlags.None), "read");
        await _directory.MakeAsync(rule, null, Cancel);
        var read = (await _directory.ReadAsync(
            new DirectoryScope([], []) { Access = new AccessScope([], [dn], false) }, Cancel)).Access!;
        var list = read.Descriptors[read.Objects.Single(o => o.Dn == dn).Descriptor].Entries.Where(e => !e.IsInherited).ToList();
        list.Count.ShouldBe(1601);
        list.Take(1600).ShouldBe(own);
    }

    private sealed class Shifted(TimeSpan by) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => System.GetUtcNow() + by;
    }
}
