using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Traces;

/// <summary>What is traced: one account, one thing it shall be able to do, below a branch or on given objects.</summary>
/// <param name="Principal"><c>DOMAIN\name</c> of the account.</param>
/// <param name="Node">The account's node in the membership graph.</param>
/// <param name="Demands">What it shall be able to do.</param>
/// <param name="Of">The class of object, where a branch is traced.</param>
/// <param name="Below">The branch's distinguished name, or null.</param>
/// <param name="Objects">Distinguished names of given objects; empty where a branch is traced.</param>
/// <param name="IfMemberOf">Groups the account is thought to be in.</param>
/// <param name="IfInheriting">Objects at which inheritance is thought to be on.</param>
public sealed record TraceQuestion(
    string Principal, int Node, IReadOnlyList<Demand> Demands, string Of, string? Below, IReadOnlyList<string> Objects,
    IReadOnlyList<string> IfMemberOf, IReadOnlyList<string> IfInheriting);

/// <summary>The answer to a trace.</summary>
/// <param name="Tree">The tree it was judged on, what-ifs included.</param>
/// <param name="NotFound">Given objects that were not read: not there, or not to be seen.</param>
/// <param name="Remedies">The remedies of each failure, in the order of the failures.</param>
public sealed record AccessTrace(
    TraceQuestion Question, AccessTree Tree, BranchAnswer Answer, IReadOnlyList<string> NotFound,
    IReadOnlyList<IReadOnlyList<Remedy>> Remedies)
{
    /// <summary>Traces.</summary>
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
        var root = question.Below is { } below ? tree.IndexOf(below) : -1;
        var found = question.Objects.Select(tree.IndexOf).Where(i => i >= 0).Distinct().ToList();
        var answer = root >= 0 ? judge.Judge(question.Demands, question.Of, root) : judge.Judge(question.Demands, found);
        var maker = new RemedyMaker(sweep, graph.Domain, question.Principal, token.Account, sid => AccessNames.Of(graph, sid));
        return new AccessTrace(
            question, tree, answer, [.. question.Objects.Where(o => tree.IndexOf(o) < 0)],
            [.. answer.Failures.Select((f, i) => maker.For(f, i + 1, root))]);
    }
}
