using System.DirectoryServices.Protocols;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Files;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;
using JustRight.Formats.Hosts;

namespace JustRight.Connectors.Tests;

/// <summary>Policies as a real controller keeps them: links, options and filters read from it, templates from a folder.</summary>
public sealed class PolicyTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example";
    private const string Right = "SeBatchLogonRight";
    private const string DefaultPolicy = "{31B2F340-016D-11D2-945F-00C04FB984F9}";
    private const string Ours = "{7C2E5A10-5B0D-4C0B-8E52-1D2F6A9B3C01}";
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Links_options_and_filters_are_read_and_the_policy_of_the_hosts_own_branch_wins()
    {
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        const string servers = $"OU=Policy Servers,{Root}", inner = $"OU=Inner,{servers}";
        raw.Do(new AddRequest(servers, "organizationalUnit"));
        raw.Do(new AddRequest(inner, "organizationalUnit"));
        raw.Do(new AddRequest(
            $"CN=FM-POL01,{inner}", new DirectoryAttribute("objectClass", "computer"),
            new DirectoryAttribute("sAMAccountName", "FM-POL01$"), new DirectoryAttribute("userAccountControl", "4096")));
        raw.Do(new AddRequest(
            $"CN={Ours},CN=Policies,CN=System,{Root}", new DirectoryAttribute("objectClass", "groupPolicyContainer"),
            new DirectoryAttribute("displayName", "Servers: rights"), new DirectoryAttribute("flags", "0")));
        raw.TryReplace(servers, "gPLink", PolicyLink.Write([new PolicyLink(Ours, false, false)], Root))
            .ShouldBe(ResultCode.Success);
        var folder = Directory.CreateTempSubdirectory("policies");
        var machine = Directory.CreateDirectory(
            Path.Combine(folder.FullName, Ours, "MACHINE", "Microsoft", "Windows NT", "SecEdit"));
        await File.WriteAllBytesAsync(
            Path.Combine(machine.FullName, "GptTmpl.inf"), SecurityTemplate.Empty.With(Right, ["*S-1-5-32-544"]).ToBytes(),
            Cancel);
        Directory.CreateDirectory(Path.Combine(folder.FullName, DefaultPolicy));

        // The default policy of the domain applies to every computer by its own access list; so does ours by the class's.
        (await OrderAsync()).Where(p => p.Fate == LinkFate.Applies).Select(p => (p.Policy, p.Container))
            .ShouldBe([(Ours, servers), (DefaultPolicy, Root)]);
        (await GovernedAsync())
            .ShouldSatisfyAllConditions(
                g => g.Policy!.Name.ShouldBe("Servers: rights"), g => g.List!.Entries.ShouldBe(["*S-1-5-32-544"]),
                g => g.Unseen.ShouldBeNull());

        // A branch that blocks, though it links nothing, drops both.
        raw.TryReplace(inner, "gPOptions", "1").ShouldBe(ResultCode.Success);
        (await OrderAsync()).ShouldAllBe(p => p.Fate == LinkFate.Blocked);
        (await GovernedAsync()).ShouldBe(Governance.None);
        raw.TryReplace(servers, "gPLink", PolicyLink.Write([new PolicyLink(Ours, false, true)], Root))
            .ShouldBe(ResultCode.Success);
        (await GovernedAsync()).Policy!.Id.ShouldBe(Ours); // enforced

        // Filtered by its access list, and with its computer half off.
        var list = raw.Descriptor($"CN={Ours},CN=Policies,CN=System,{Root}");
        raw.Protect(
            $"CN={Ours},CN=Policies,CN=System,{Root}",
            list.WithEntries([.. list.Entries.Where(e => e.Trustee != Sid.AuthenticatedUsers)]));
        (await OrderAsync()).Single(p => p.Policy == Ours).Fate.ShouldBe(LinkFate.Filtered);
        raw.Protect($"CN={Ours},CN=Policies,CN=System,{Root}", list);
        raw.TryReplace($"CN={Ours},CN=Policies,CN=System,{Root}", "flags", "2").ShouldBe(ResultCode.Success);
        (await OrderAsync()).Single(p => p.Policy == Ours).Fate.ShouldBe(LinkFate.HalfDisabled);

        // A link to a policy that is deleted stays behind.
        raw.Do(new DeleteRequest($"CN={Ours},CN=Policies,CN=System,{Root}"));
        (await OrderAsync()).Single(p => p.Policy == Ours).Fate.ShouldBe(LinkFate.Gone);
        Directory.Delete(folder.FullName, recursive: true);

        async Task<IReadOnlyList<PolicyStanding>> OrderAsync() => (await PoliciesAsync()).OrderOf("fm-pol01").Order;

        async Task<Governance> GovernedAsync() => (await PoliciesAsync()).Of("fm-pol01", Right);

        async Task<HostPolicies> PoliciesAsync()
        {
            var read = await _directory.ReadAsync(new DirectoryScope([], ["FM-POL01$"]) { Policies = true }, Cancel);
            read = read with { Policies = PolicyFolder.Fill(read.Policies!, folder.FullName) };
            return new HostPolicies(new Survey("x", read.ReadAt, false, read, [], []), new MembershipGraph(read));
        }
    }

    [Fact]
    public async Task A_branch_that_hides_its_links_or_itself_is_not_taken_for_one_without()
    {
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        const string outer = $"OU=Veiled Servers,{Root}", inner = $"OU=Inner,{outer}";
        var password = NewPassword.Generate();
        await _directory.MakeAsync(
            new CreateAccount(
                "FENNMOOR", "svc-policy-eye", $"CN=svc-policy-eye,CN=Users,{Root}", "svc-policy-eye@fennmoor.example", "", true),
            password, Cancel);
        raw.Do(new AddRequest(outer, "organizationalUnit"));
        raw.Do(new AddRequest(inner, "organizationalUnit"));
        raw.Do(new AddRequest(
            $"CN=FM-POL02,{inner}", new DirectoryAttribute("objectClass", "computer"),
            new DirectoryAttribute("sAMAccountName", "FM-POL02$"), new DirectoryAttribute("userAccountControl", "4096")));
        raw.TryReplace(inner, "gPLink", PolicyLink.Write([new PolicyLink(Ours, false, false)], Root))
            .ShouldBe(ResultCode.Success);
        var reader = new LdapDirectory(
            controller.Target with { SignInAs = "svc-policy-eye@fennmoor.example", Password = password }, new DirectorySchemas(),
            TimeProvider.System);
        (await ContainerAsync())
            .ShouldBe(
                new PolicyContainer(inner, $"[LDAP://cn={Ours},cn=policies,cn=system,{Root};0]", false),
                "whoever may read everything doubts nothing");
        (await WhyUnseenAsync()).ShouldBeNull();

        // The links may not be read: the branch looks as if it had none.
        var list = raw.Descriptor(inner);
        raw.Protect(
            inner,
            list.WithEntries([
                new Ace(AceType.DenyObject, AceFlags.None, AccessRights.ReadProperty, Sid.AuthenticatedUsers)
                {
                    ObjectType = new Guid("f30e3bbe-9ff0-11d1-b603-0000f80367c1"),
                },
                .. list.Entries]));
        (await ContainerAsync())!.ShouldSatisfyAllConditions(
            c => c.Links.ShouldBeEmpty(), c => c.Unread.ShouldNotBeNull().ShouldContain("the reader may not read gPLink"));
        (await WhyUnseenAsync()).ShouldNotBeNull().ShouldContain(inner);

        // The branch itself is hidden.
        var domain = (await _directory.ReadAsync(new DirectoryScope([], []), Cancel)).DomainSid;
        raw.Protect(inner, Sddl.Read("O:DAG:DAD:P(A;CI;GA;;;DA)(A;CI;GA;;;SY)", domain));
        (await ContainerAsync()).ShouldBeNull();

        async Task<PolicyContainer?> ContainerAsync() =>
            (await ReadAsync()).Policies!.Containers.FirstOrDefault(c => c.Dn == inner);

        async Task<string?> WhyUnseenAsync()
        {
            var read = await ReadAsync();
            return new HostPolicies(new Survey("x", read.ReadAt, false, read, [], []), new MembershipGraph(read))
                .OrderOf("fm-pol02").Unseen;
        }

        Task<DirectorySnapshot> ReadAsync() =>
            reader.ReadAsync(new DirectoryScope([], ["FM-POL02$"]) { Policies = true }, Cancel);
    }

    [Fact]
    public async Task What_the_folder_does_not_hold_or_cannot_be_read_is_unread()
    {
        var policies = (await _directory.ReadAsync(new DirectoryScope([], []) { Policies = true }, Cancel)).Policies!;
        PolicyFolder.Fill(policies, "/nowhere").Policies.ShouldAllBe(p =>
            p.Lists == null && p.ListsUnread!.Contains("directory.policy-folder"));
        var folder = Directory.CreateTempSubdirectory("policies").FullName;
        var broken = Directory.CreateDirectory(
            Path.Combine(folder, DefaultPolicy.ToLowerInvariant(), "Machine", "Microsoft", "Windows NT", "SecEdit")).FullName;
        await File.WriteAllBytesAsync(Path.Combine(broken, "gpttmpl.inf"), [0xC3, 0x28], Cancel);
        var filled = PolicyFolder.Fill(policies, folder).Policies;
        filled.Single(p => p.Id == DefaultPolicy).ListsUnread.ShouldNotBeNull().ShouldContain("neither UTF-16");
        filled.First(p => p.Id != DefaultPolicy).ListsUnread.ShouldNotBeNull().ShouldContain("it is not in");
        Directory.Delete(folder, recursive: true);
    }
}
