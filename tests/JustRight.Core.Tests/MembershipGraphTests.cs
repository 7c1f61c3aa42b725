using CsCheck;
using JustRight.Core.Directory;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests;

public sealed class MembershipGraphTests
{
    private static readonly Sid Domain = Sid.Parse("S-1-5-21-1-2-3");

    // Random graphs of up to twelve groups and one account, rings included.
    private static readonly Gen<(int Member, int Group)[]> Edges = Gen.Select(
        Gen.Int[0, 12], Gen.Int[1, 12]).Select((m, g) => (m, g)).Array[0, 40];

    [Fact]
    public void The_closure_is_what_the_simplest_search_finds() => Edges.Sample(edges =>
    {
        var graph = Graph(edges);
        graph.Closure(Node(graph, 0)).Select(graph.SidOf).ToHashSet()
            .ShouldBe(Simple(edges, 0).Select(SidOf).ToHashSet(), ignoreOrder: true);
    });

    [Fact]
    public void Leaving_a_membership_out_is_the_closure_of_the_graph_without_it() =>
        Edges.Where(e => e.Length > 0).Sample(edges =>
    {
        var cut = edges[0];
        var graph = Graph(edges);
        var without = graph.Closure(
            Node(graph, 0), new HashSet<(int, int)> { (Node(graph, cut.Member), Node(graph, cut.Group)) });
        without.Select(graph.SidOf).ToHashSet()
            .ShouldBe(Simple([.. edges.Where(e => e != cut)], 0).Select(SidOf).ToHashSet(), ignoreOrder: true);
    });

    [Fact]
    public void Paths_lead_over_memberships_that_exist_shortest_first_and_exist_just_when_the_group_is_reached() =>
        Edges.Sample(edges =>
    {
        var graph = Graph(edges);
        var reached = Simple(edges, 0);
        for (var group = 1; group <= 12; group++)
        {
            var paths = graph.Paths(Node(graph, 0), Node(graph, group), 8);
            (paths.Count > 0).ShouldBe(reached.Contains(group));
            paths.Select(p => p.Length).ShouldBe(paths.Select(p => p.Length).Order());
            foreach (var path in paths)
                for (var i = 1; i < path.Length; i++) graph.GroupsOf(path[i - 1]).ToArray().ShouldContain(path[i]);
        }
    });

    [Fact]
    public void A_distribution_group_ends_the_chain()
    {
        var list = Group(1, 0) with { IsSecurity = false };
        var graph = new MembershipGraph(Snapshot([Account(), list, Group(2, 1)]));
        graph.Closure(Node(graph, 0)).ShouldBeEmpty();
    }

    [Fact]
    public void What_every_domain_user_has_is_the_baseline()
    {
        var users = new DirectoryPrincipal(Domain.Append(513), PrincipalKind.Group, "Domain Users", "CN=Domain Users,DC=x");
        var everyone = new DirectoryPrincipal(SidOf(1), PrincipalKind.Group, "all-staff", "CN=all-staff,DC=x")
        {
            Members = [users.Sid],
        };
        var graph = new MembershipGraph(Snapshot([Account(), users, everyone, Group(2, 0)]));
        graph.Baseline.ShouldContain(Node(graph, 1));
        graph.Baseline.ShouldNotContain(Node(graph, 2));
    }

    private static MembershipGraph Graph((int Member, int Group)[] edges) => new(Snapshot(
        [
            Account(),
            .. Enumerable.Range(1, 12)
                .Select(g => Group(g, [.. edges.Where(e => e.Group == g).Select(e => e.Member).Distinct()]))]));

    /// <summary>The second, simpler model: repeat until nothing is added.</summary>
    private static HashSet<int> Simple((int Member, int Group)[] edges, int from)
    {
        var reached = new HashSet<int>();
        while (true)
        {
            var before = reached.Count;
            foreach (var (member, group) in edges)
                if (member == from || reached.Contains(member)) reached.Add(group);
            if (reached.Count == before) return reached;
        }
    }

    private static DirectorySnapshot Snapshot(IReadOnlyList<DirectoryPrincipal> principals) =>
        new("FENNMOOR", Domain, "test", default, principals, [], null);

    private static DirectoryPrincipal Account() => new(SidOf(0), PrincipalKind.User, "n0", "CN=n0,DC=x");

    private static DirectoryPrincipal Group(int number, params int[] members) =>
        new(SidOf(number), PrincipalKind.Group, $"n{number}", $"CN=n{number},DC=x") { Members = [.. members.Select(SidOf)] };

    private static Sid SidOf(int number) => Domain.Append(2000 + (uint)number);

    private static int Node(MembershipGraph graph, int number) => graph.IndexOf(SidOf(number));
}
