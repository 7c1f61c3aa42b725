using JustRight.Core.Directory;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Hosts;

/// <summary>Which policies count for a host of a survey: from the directory's links and filters, and from the host's own word where the directory does not tell.</summary>
public sealed class HostPoliciesTests
{
    private const string Right = "SeBatchLogonRight";
    private const string Servers = "OU=Servers,DC=fennmoor,DC=example";
    private const string Everybody = "O:BAG:BAD:(A;;RPCR;;;AU)";
    private static readonly Sid Domain = Sid.Parse("S-1-5-21-1-2-3");
    private static readonly string A = PolicyScene.IdOf("A");
    private static readonly string B = PolicyScene.IdOf("B");

    [Theory]
    [InlineData(Everybody, "A")]
    // the host itself
    [InlineData("O:BAG:BAD:(A;;RP;;;AU)(OA;;CR;edacfd8f-ffb3-11d1-b41d-00a0c968f939;;S-1-5-21-1-2-3-1001)", "A")]
    // a group it is in
    [InlineData("O:BAG:BAD:(A;;RP;;;AU)(OA;;CR;edacfd8f-ffb3-11d1-b41d-00a0c968f939;;S-1-5-21-1-2-3-1002)", "A")]
    // one it is not in
    [InlineData("O:BAG:BAD:(A;;RP;;;AU)(OA;;CR;edacfd8f-ffb3-11d1-b41d-00a0c968f939;;S-1-5-21-1-2-3-1003)", "host")]
    [InlineData("O:BAG:BAD:(OA;;CR;edacfd8f-ffb3-11d1-b41d-00a0c968f939;;AU)", "host")] // may apply it, may not read it
    [InlineData("O:BAG:BAD:(D;;CR;;;S-1-5-21-1-2-3-1001)(A;;RPCR;;;AU)", "host")] // denied to apply
    [InlineData("O:BAG:BAD:(A;;RP;;;AU)(OA;;CR;ab721a53-1e2f-11d0-9819-00aa0040529b;;AU)", "host")] // another extended right
    [InlineData(null, "?")]
    public void A_policy_applies_to_a_computer_that_may_read_and_apply_it(string? list, string winner) =>
        Winner(new PolicySnapshot([Link(Servers, A)], [], [Policy("A", list)], null)).ShouldBe(winner);

    [Theory]
    [InlineData(null, "?")]
    [InlineData("A", "A")]
    [InlineData("", "host")]
    public void A_query_is_answered_by_what_the_host_has_applied(string? applied, string winner) =>
        Winner(
            new PolicySnapshot(
                [Link(Servers, A)], [], [Policy("A", Everybody) with { QueryFilter = "[fennmoor.example;{…};0]" }], null),
            applied)
            .ShouldBe(winner);

    [Theory]
    [InlineData(null, "?")] // which site the host is in is not known
    [InlineData("B", "B")] // it has applied what only the site links
    [InlineData("", "host")]
    [InlineData("C", "?")] // it has applied what no link that was read leads to
    public void Policies_of_the_site_are_known_from_the_host(string? applied, string winner) =>
        Winner(
            new PolicySnapshot(
                [Plain(Servers)], [Link("CN=Highfield,CN=Sites,CN=Configuration,DC=fennmoor,DC=example", B)],
                [Policy("B", Everybody)], null),
            applied)
            .ShouldBe(winner);

    [Fact]
    public void Where_the_directory_was_not_read_the_hosts_word_on_each_list_counts()
    {
        var told = new LogonList(Right, []) { Policy = A };
        Winner(new PolicySnapshot([], [], [], "access denied"), "A", told).ShouldBe("A");
        Winner(new PolicySnapshot([], [], [], "access denied"), "A", told with { Policy = null }).ShouldBe("host");
        Winner(new PolicySnapshot([], [], [], "access denied")).ShouldBe("?");
        Winner(null).ShouldBe("?");
    }

    [Fact]
    public void A_host_without_a_computer_account_here_and_a_broken_link_are_not_known() =>
        (
            Winner(new PolicySnapshot([Link(Servers, A)], [], [Policy("A", Everybody)], null), host: "fm-other"),
            Winner(new PolicySnapshot([new PolicyContainer(Servers, "[broken", false)], [], [Policy("A", Everybody)], null)))
            .ShouldBe(("?", "?"));

    [Fact]
    public void A_template_that_a_host_could_read_serves_where_no_copy_was_given()
    {
        var snapshot = new PolicySnapshot(
            [Link(Servers, A)], [], [Policy("A", Everybody) with { Lists = null, ListsUnread = "no copy" }], null);
        Winner(snapshot, "A").ShouldBe("?");
        var brought = new AppliedPolicy(A, "A") { Lists = [new PolicyList(Right, ["*S-1-5-32-544"])] };
        Make(snapshot, [brought], null).Of("fm-temp01", Right).List!.Entries.ShouldBe(["*S-1-5-32-544"]);
    }

    [Fact]
    public void A_branch_above_the_host_that_is_hidden_or_hides_its_links_leaves_everything_open()
    {
        Winner(new PolicySnapshot([Plain("DC=fennmoor,DC=example")], [], [], null)).ShouldBe("?");
        Winner(new PolicySnapshot([Plain("DC=fennmoor,DC=example"), Plain(Servers)], [], [], null)).ShouldBe("host");
        Winner(new PolicySnapshot(
            [Link(Servers, A), Plain("DC=fennmoor,DC=example") with { Unread = "gPLink may not be read" }], [],
            [Policy("A", Everybody)], null))
            .ShouldBe("?");
    }

    private static PolicyContainer Plain(string dn) => new(dn, "", false);

    private static PolicyContainer Link(string dn, string policy) =>
        new(dn, PolicyLink.Write([new PolicyLink(policy, false, false)], "DC=fennmoor,DC=example"), false);

    private static GroupPolicy Policy(string name, string? list) =>
        new(PolicyScene.IdOf(name), name, false, list, [new PolicyList(Right, [])]);

    private static string Winner(
        PolicySnapshot? policies, string? applied = null, LogonList? told = null, string host = "fm-temp01")
    {
        var governance = Make(
            policies, applied is null ? null : [.. applied.Select(c => new AppliedPolicy(PolicyScene.IdOf($"{c}"), $"{c}"))],
            told)
            .Of(host, Right);
        return governance.Unseen is not null ? "?" : governance.Policy?.Name ?? "host";
    }

    private static HostPolicies Make(PolicySnapshot? policies, AppliedPolicy[]? applied, LogonList? told)
    {
        var at = FitScene.Now;
        var computer = new DirectoryPrincipal(
            Domain.Append(1001), PrincipalKind.Computer, "FM-TEMP01$", $"CN=FM-TEMP01,{Servers}")
        {
            PrimaryGroupRid = 515,
        };
        var group = new DirectoryPrincipal(
            Domain.Append(1002), PrincipalKind.Group, "some-servers", "CN=some-servers,DC=fennmoor,DC=example")
        {
            Members = [computer.Sid],
        };
        var directory = new DirectorySnapshot("FENNMOOR", Domain, "dc", at, [computer, group], [], null) { Policies = policies };
        var survey = new Survey(
            "fennmoor", at, false, directory,
            [new HostSnapshot("fm-temp01", at, null, [], told is null ? [] : [told], []) { Policies = applied }], []);
        return new HostPolicies(survey, new MembershipGraph(directory));
    }
}
