using JustRight.Core.Rights.Directory;
using JustRight.Core.Rights.Directory.Access;

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
    string Principal, int Node, IReadOnlyList<Demand> Demands, string Of, string? Below, IReadOnlyList<string> Objects, IReadOnlyList<string> IfMemberOf, IReadOnlyList<string> IfInheriting);

/// <summary>The answer to a trace.</summary>
/// <param name="Tree">The tree it was judged on, what-ifs included.</param>
/// <param name="Root">The branch, or -1.</param>
/// <param name="NotFound">Given objects that were not read: not there, or not to be seen.</param>
/// <param name="Remedies">The remedies of each failure, in the order of the failures.</param>
public sealed record AccessTrace(
    TraceQuestion Question, AccessTree Tree, int Root, BranchAnswer Answer, IReadOnlyList<string> NotFound, IReadOnlyList<IReadOnlyList<Remedy>> Remedies)
{
    private static readonly uint[] ProtectedOfDomain = [498, 512, 516, 518, 519, 521, 526, 527]; // [MS-ADTS 3.1.1.6.1.2]
    private static readonly uint[] ProtectedBuiltIn = [544, 548, 549, 550, 551, 552];

    /// <summary>Traces.</summary>
    /// <param name="domain">The domain's SID.</param>
    public static AccessTrace Make(TraceQuestion question, AccessTree tree, MembershipGraph graph, Sid domain)
    {
        var opened = question.IfInheriting.Select(tree.IndexOf).Where(i => i >= 0 && tree.DescriptorOf(i) is not null).ToDictionary(i => i, i => tree.DescriptorOf(i)!.WithProtection(false));
        if (opened.Count > 0) tree = tree.With(opened);
        var token = AccessTokens.Of(graph, question.Node);
        var groups = question.IfMemberOf.Select(graph.IndexOf).Where(n => n >= 0).ToList();
        if (groups.Count > 0)
            token = new AccessToken(token.Account, token.Sids.Concat(groups.SelectMany(g => graph.Closure(g).Append(g)).Select(graph.SidOf))) { MayTakeOwnership = token.MayTakeOwnership, MayManageAudit = token.MayManageAudit };

        var sweep = new AccessSweep(tree, token);
        var judge = new BranchJudge(sweep, domain, sid => IsProtected(graph, sid));
        var root = question.Below is { } below ? tree.IndexOf(below) : -1;
        var found = question.Objects.Select(tree.IndexOf).Where(i => i >= 0).Distinct().ToList();
        var answer = root >= 0 ? judge.Judge(question.Demands, question.Of, root) : judge.Judge(question.Demands, found);
        var maker = new RemedyMaker(sweep, graph.Domain, question.Principal, token.Account, sid => NameOf(graph, sid));
        return new AccessTrace(
            question, tree, root, answer, [.. question.Objects.Where(o => tree.IndexOf(o) < 0)],
            [.. answer.Failures.Select((f, i) => maker.For(f, i + 1, root))]);
    }

    /// <summary>The name of a SID.</summary>
    public static string NameOf(MembershipGraph graph, Sid sid) => graph.IndexOf(sid) is >= 0 and var node ? graph.NameOf(node) : WellKnownSids.NameOf(sid) ?? sid.ToString();

    /// <summary>Whether a principal is in a group whose members the directory protects, through any nesting, or is such a group.</summary>
    public static bool IsProtected(MembershipGraph graph, Sid sid)
    {
        var node = graph.IndexOf(sid);
        return node >= 0 && graph.Closure(node).Append(node).Select(graph.SidOf).Any(s => s.IsBuiltIn ? ProtectedBuiltIn.Contains(s.Rid) : ProtectedOfDomain.Contains(s.Rid));
    }
}
