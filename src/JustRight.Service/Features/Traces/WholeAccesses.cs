using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Access;
using JustRight.Core.Traces;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Traces;

namespace JustRight.Service.Features.Traces;

/// <summary>Everything that an account can do to one object, read now.</summary>
internal sealed class WholeAccesses(ConnectorStore connectorStore, FitService fits, SurveyStore surveys)
{
    /// <summary>Reads and tells; null when the object is not there, or may not be seen.</summary>
    public async Task<WholeAccessView?> TellAsync(Estate estate, WholeAccessOrder order, CancellationToken cancel)
    {
        var names = await DirectoryNames.OfAsync(estate, [order.Account, order.At], fits, surveys, cancel);
        var account = names.Principal(order.Account);
        var reading = await DirectoryReading.TakeAsync(
            (await connectorStore.OpenAsync(estate, cancel)).Directory, [account], [], [names.Object(order.At)], cancel);
        var (tree, graph) = (reading.Tree, reading.Graph);
        var node = reading.NodeOf(account, estate);
        var index = tree.IndexOf(reading.Objects[0]);
        if (index < 0) return null;
        var acts = WholeAccess.Of(new AccessSweep(tree, AccessTokens.Of(graph, node)), index);
        return new WholeAccessView(
            estate.Name, estate.IsSimulated, graph.NameOf(node), tree[index].Dn, tree[index].Class,
            tree.DescriptorOf(index) is { Owner.IsEmpty: false } list ? NameOf(list.Owner) : "", reading.Read.ReadFrom,
            reading.Read.ReadAt, [.. acts.Select(Of)], Unread(reading));

        string NameOf(Sid sid) => AccessNames.Of(graph, sid);

        ObjectActView Of(ObjectAct act) => new(
            act.Kind.Word(), act.What, AccessQuestions.AnswerWord(act.Answer), Words(act), act.Number,
            tree[act.At < 0 ? index : act.At].Dn,
            act.By is null ? "" : tree[act.From].Dn);

        string Words(ObjectAct act) => act.Reason switch
        {
            AccessReason.Allowed or AccessReason.Denied or AccessReason.UnknownEntry =>
                act.By is { } ace ? AceWords.Of(ace, tree.Schema, NameOf) : "",
            AccessReason.NoList => "there is no access list: everybody may",
            AccessReason.Owner => "it owns the object",
            AccessReason.Privilege => "a privilege of the account",
            AccessReason.NothingAllows => "no ACE gives it",
            AccessReason.UnreadMembership => "what the account is in could not be read whole, and that could decide it",
            AccessReason.Unread => "the ACL could not be read",
        };
    }

    /// <summary>What could not be read.</summary>
    public static IReadOnlyList<UnreadPartView> Unread(DirectoryReading reading) =>
        [.. reading.Tree.Snapshot.Unread.Select(u => new UnreadPartView(u.Part, u.Reason, reading.Read.ReadAt))];
}
