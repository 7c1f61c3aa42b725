using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Sheets;
using JustRight.Formats.Ldif;

namespace JustRight.Connectors.Tests;

/// <summary>The file for an ordinary client, applied by one: what it makes is what our own connector finds made.</summary>
public sealed class LdifTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example";
    private const string Branch = "OU=Ldif Käse," + Root;
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_an_ordinary_client_applies_is_what_was_planned()
    {
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        DirectoryChange[] first =
        [
            new CreateBranch("FENNMOOR", Branch), new CreateGroup(
                "FENNMOOR", "ldif-agents", $"CN=ldif-agents,{Branch}", GroupScope.DomainLocal, "holds the copier; für \"alle\""),
            new CreateAccount(
                "FENNMOOR", "svc-ldif", $"CN=svc-ldif,{Branch}", "svc-ldif@fennmoor.example", "copies " + new string('x', 120),
                true), new AddMember("FENNMOOR", "ldif-agents", "svc-ldif"),
        ];
        await ApplyAsync(raw, first);
        DirectoryChange[] second =
        [
            new AddAccessRule(
                "FENNMOOR", Branch, Rule(@"FENNMOOR\ldif-agents", AccessRights.WriteProperty),
                "write every attribute"), new AddAccessRule("FENNMOOR", Branch, Rule(
                    "Everyone", AccessRights.ListContents), "list"),
            new DescribeAccount("FENNMOOR", "svc-ldif", "", false, "", true), new RemoveMember(
                "FENNMOOR", "ldif-agents", "svc-ldif"),
            new AddServiceName("FENNMOOR", "svc-ldif", "HTTP/ldif.fennmoor.example"),
            new AllowDelegation("FENNMOOR", "svc-ldif", "HTTP/other.fennmoor.example"),
        ];
        await ApplyAsync(raw, second);
        await ApplyAsync(
            raw,
            [
                new RemoveServiceName("FENNMOOR", "svc-ldif", "HTTP/ldif.fennmoor.example"),
                new EndDelegation("FENNMOOR", "svc-ldif", "HTTP/other.fennmoor.example")]);
        await ApplyAsync(raw, [new TrustForDelegation("FENNMOOR", "svc-ldif")]);
        await ApplyAsync(raw, [new EndDelegationTrust("FENNMOOR", "svc-ldif")]);
        await ApplyAsync(raw, [new DisableAccount("FENNMOOR", "svc-ldif")]);
        var list = new SwitchInheritance("FENNMOOR", Branch, false, DescriptorText.Write(raw.Descriptor(Branch).DaclOnly));
        await ApplyAsync(
            raw,
            [
                list, new DeleteAccount("FENNMOOR", "svc-ldif", $"CN=svc-ldif,{Branch}"),
                new DeleteGroup("FENNMOOR", "ldif-agents", $"CN=ldif-agents,{Branch}"), new DeleteBranch("FENNMOOR", Branch)],
            onlyLast: true);
    }

    [Fact]
    public void What_cannot_be_said_yet_is_a_comment_with_the_reason_and_no_record()
    {
        var nobody = new LdifDirectory(_ => null, _ => null, _ => null, _ => null);
        var text = LdifWriter.Write(
            "test",
            [
                new AddMember("D", "g", "a"), new AddAccessRule("D", Root, Rule(@"D\a", AccessRights.ListContents), "list"),
                new DescribeAccount("D", "a", "x", true, "", true)],
            nobody);
        text.Split('\n').Count(l => l.StartsWith("# NOT IN THIS FILE", StringComparison.Ordinal)).ShouldBe(3);
        text.ShouldNotContain("dn:");
    }

    private static AccessRule Rule(string principal, AccessRights rights) =>
        new(principal, false, rights, null, null, AceFlags.None);

    private async Task ApplyAsync(RawClient raw, DirectoryChange[] changes, bool onlyLast = false)
    {
        var known = new LdifDirectory(
            name => raw.Search(
                Root, System.DirectoryServices.Protocols.SearchScope.Subtree, $"(sAMAccountName={name})", "objectSid")
                .FirstOrDefault()?.DistinguishedName,
            principal => WellKnownSids.Find(principal)
                ?? SidOf(raw, principal[(principal.IndexOf('\\', StringComparison.Ordinal) + 1)..]), raw.Descriptor, _ => 66050);
        var file = Path.Combine(controller.Folder, $"{Guid.NewGuid():N}.ldif");
        await File.WriteAllTextAsync(file, LdifWriter.Write("test", changes, known), Cancel);
        var secret = Path.Combine(controller.Folder, "ldap-password");
        await File.WriteAllTextAsync(secret, controller.Password, Cancel);
        var end = await Programs.RunAsync(
            "ldapmodify", [
                "-H", $"ldaps://{Controller.Address}", "-x", "-D", controller.Target.SignInAs, "-y", secret, "-f", file],
            environment: [("LDAPTLS_CACERT", Path.Combine(controller.CaFolder, "ca.pem"))], cancel: Cancel);
        end.Code.ShouldBe(0, $"{end.Error}\n{end.Output}\n{await File.ReadAllTextAsync(file, Cancel)}");
        foreach (var change in onlyLast ? changes[^1..] : changes)
            (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.Done, change.Words);
    }

    private static Sid? SidOf(RawClient raw, string name) =>
        raw.Search(Root, System.DirectoryServices.Protocols.SearchScope.Subtree, $"(sAMAccountName={name})", "objectSid")
            .FirstOrDefault() is { } entry
        && Sid.TryFromBytes((byte[])entry.Attributes["objectSid"].GetValues(typeof(byte[]))[0], out var sid) ? sid : null;
}
