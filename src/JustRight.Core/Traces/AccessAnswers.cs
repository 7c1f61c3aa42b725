using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Traces;

/// <summary>One answer of many: whether an account can do something to an object, or below a branch.</summary>
/// <param name="Answer">What counts for all that was judged: no where one refuses, unknown where one could not be judged.</param>
/// <param name="Can">How many objects grant it.</param>
/// <param name="Cannot">How many refuse it.</param>
/// <param name="Unseen">How many could not be judged.</param>
/// <param name="Words">Why not, in one sentence; empty where it can.</param>
public sealed record AccessReply(AccessAnswer Answer, int Can, int Cannot, int Unseen, string Words)
{
    /// <summary>That the object itself was not seen.</summary>
    public static AccessReply NotSeen(string words) => new(AccessAnswer.Unknown, 0, 0, 1, words);
}

/// <summary>
/// Answers many questions from one reading. What is worked out for one account is kept for its next question. Not for several
/// threads at once.
/// </summary>
/// <param name="judgeOf">Makes an account ready for judging, once.</param>
public sealed class AccessAnswers(Func<int, BranchJudge> judgeOf)
{
    private readonly Dictionary<int, BranchJudge> _judges = [];

    /// <summary>Answers from a tree, about accounts of a graph.</summary>
    public static AccessAnswers Of(AccessTree tree, MembershipGraph graph) => new(account => new BranchJudge(
        new AccessSweep(tree, AccessTokens.Of(graph, account)), graph.DomainSid, sid => ProtectedGroups.Holds(graph, sid)));

    /// <summary>Answers for one object.</summary>
    /// <param name="account">The account's node.</param>
    /// <param name="asked">What; its class counts only for what is to be created in the object.</param>
    /// <param name="index">The object.</param>
    public AccessReply OfObject(int account, BranchAsked asked, int index) =>
        Reply(JudgeOf(account).Judge(asked, [index]));

    /// <summary>Answers for everything of a class below a branch.</summary>
    public AccessReply Below(int account, BranchAsked asked)
    {
        var (answer, unseen) = JudgeOf(account).Judge(asked);
        return answer is null ? AccessReply.NotSeen(unseen!) : Reply(answer);
    }

    private static AccessReply Reply(BranchAnswer answer) => new(
        answer.Cannot > 0 ? AccessAnswer.No : answer.Unseen > 0 ? AccessAnswer.Unknown : answer.Holds ? AccessAnswer.Yes
            : AccessAnswer.No,
        answer.Can, answer.Cannot, answer.Unseen,
        answer.Failures.Count > 0 ? string.Join("; ", answer.Failures.Take(3).Select(f => f.Words))
            : answer.Holds ? "" : "there is none yet, and a new one would refuse it");

    private BranchJudge JudgeOf(int account)
    {
        if (!_judges.TryGetValue(account, out var judge)) _judges[account] = judge = judgeOf(account);
        return judge;
    }
}
