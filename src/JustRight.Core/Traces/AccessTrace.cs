using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Traces;

/// <summary>What is traced: one account, one thing it shall be able to do, below a branch or on given objects.</summary>
/// <param name="Principal"><c>DOMAIN\name</c> of the account.</param>
/// <param name="Node">The account's node in the membership graph.</param>
/// <param name="Asked">What it shall be able to do, and below which branch; its branch is empty where objects are given, and its
/// class too, unless it is the class of what is to be created in them.</param>
/// <param name="Objects">Distinguished names of given objects; empty where a branch is traced.</param>
/// <param name="IfMemberOf">Groups the account is thought to be in.</param>
/// <param name="IfInheriting">Objects at which inheritance is thought to be on.</param>
public sealed record TraceQuestion(
    string Principal, int Node, BranchAsked Asked, IReadOnlyList<string> Objects, IReadOnlyList<string> IfMemberOf,
    IReadOnlyList<string> IfInheriting);

/// <summary>The answer to a trace.</summary>
/// <param name="Tree">The tree it was judged on, what-ifs included.</param>
/// <param name="NotFound">Given objects that were not read: not there, or not to be seen.</param>
/// <param name="Remedies">The remedies of each failure, in the order of the failures.</param>
public sealed record AccessTrace(
    TraceQuestion Question, AccessTree Tree, BranchAnswer Answer, IReadOnlyList<string> NotFound,
    IReadOnlyList<IReadOnlyList<Remedy>> Remedies)
{
    /// <summary>Traces.</summary>
    /// <param name="tree">Where a branch is asked about, it holds the branch, and its schema what is asked.</param>
    public static AccessTrace Make(TraceQuestion question, AccessTree tree, MembershipGraph graph)
    {
        var opened = question.IfInheriting.Select(tree.IndexOf).Where(i => i >= 0 && tree.DescriptorOf(i) is not null)
            .ToDictionary(i => i, i => tree.DescriptorOf(i)!.WithProtection(false));
        if (opened.Count > 0) tree = tree.With(opened);
        var token = AccessTokens.Of(graph, question.Node);
        var groups = question.IfMemberOf.Select(graph.IndexOf).Where(n => n >= 0).ToList();
        if (groups.Count > 0)
            token = token.With(groups.SelectMany(g => graph.Closure(g).Append(g)).Select(graph.SidOf));

        var sweep = new AccessSweep(tree, token);
        var judge = new BranchJudge(sweep, graph.DomainSid, sid => ProtectedGroups.Holds(graph, sid));
        var (asked, root) = (question.Asked, tree.IndexOf(question.Asked.Branch));
        var found = question.Objects.Select(tree.IndexOf).Where(i => i >= 0).Distinct().ToList();
        var answer = root >= 0
            ? judge.Judge(Demands.Of(asked, tree.Schema).Demands!, asked.Of, root)
            : judge.Judge(asked, found);
        var maker = new RemedyMaker(sweep, graph.Domain, question.Principal, token.Account, sid => AccessNames.Of(graph, sid));
        return new AccessTrace(
            question, tree, answer, [.. question.Objects.Where(o => tree.IndexOf(o) < 0)],
            [.. answer.Failures.Select((f, i) => maker.For(f, i + 1, root))]);
    }
}
