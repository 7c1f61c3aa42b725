using JustRight.Core.Directory;
using JustRight.Core.Rights.Branches;

namespace JustRight.Core.Rights.Access;

/// <summary>
/// Puts questions of one account to many objects. Each question is judged once for each distinct descriptor, so that the time
/// is that of walking the objects.
/// </summary>
public sealed class AccessSweep(AccessTree tree, AccessToken token)
{
    private readonly Dictionary<AccessQuestion, Memo> _memos = [];

    /// <summary>The tree.</summary>
    public AccessTree Tree => tree;

    /// <summary>Who asks.</summary>
    public AccessToken Token => token;

    /// <summary>Puts a question to an object.</summary>
    public AccessDecision Ask(int index, in AccessQuestion question) => MemoOf(question).Ask(index);

    /// <summary>Puts a demand to an object: the question itself, or the one to the parent that will do as well.</summary>
    public AccessDecision Ask(int index, Demand demand) => For(demand)(index);

    /// <summary>A demand made ready for asking many objects.</summary>
    public Func<int, AccessDecision> For(Demand demand)
    {
        var own = MemoOf(demand.Question);
        if (demand.OrWrite is { } write)
        {
            var written = MemoOf(write);
            return index => Either(own.Ask(index), written, index);
        }

        if (demand.OrOfParent is not { } other) return own.Ask;
        var above = MemoOf(other);
        return index => Either(own.Ask(index), above, tree.ParentOf(index));
    }

    /// <summary>What another question that will do as well makes of a decision.</summary>
    private static AccessDecision Either(AccessDecision decision, Memo other, int at)
    {
        if (decision.Answer == AccessAnswer.Yes || at < 0) return decision;
        var instead = other.Ask(at);
        return instead.Answer == AccessAnswer.Yes
            || (decision.Answer == AccessAnswer.No && instead.Answer == AccessAnswer.Unknown)
            ? instead
            : decision;
    }

    private Memo MemoOf(in AccessQuestion question) =>
        _memos.TryGetValue(question, out var memo) ? memo : _memos[question] = new Memo(tree, token, question);

    /// <summary>Answers by descriptor, apart for objects that are the account or a group of it: for those, Self counts.</summary>
    private sealed class Memo(AccessTree tree, AccessToken token, AccessQuestion question)
    {
        private readonly AccessDecision?[] _asOther = new AccessDecision?[tree.DescriptorCount];
        private readonly AccessDecision?[] _asSelf = new AccessDecision?[tree.DescriptorCount];

        public AccessDecision Ask(int index)
        {
            var id = tree.DescriptorIdOf(index);
            if (id < 0) return new AccessDecision(AccessAnswer.Unknown, AccessReason.Unread, -1, question.Rights);
            var sid = tree[index].Sid;
            var isSelf = !sid.IsEmpty && token.Holds(sid);
            // whether it is the account's own is not known: none is like another
            if (!isSelf && !sid.IsEmpty && token.WhyDoubtful?.Invoke(sid) is not null)
                return AccessCheck.Judge(tree.Distinct(id), token, question, sid);
            var memo = isSelf ? _asSelf : _asOther;
            return memo[id] ??= AccessCheck.Judge(tree.Distinct(id), token, question, isSelf ? sid : default);
        }
    }
}
