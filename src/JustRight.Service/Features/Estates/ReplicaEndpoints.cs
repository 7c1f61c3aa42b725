using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Replicas;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Estates;

/// <summary>Changed here, not yet seen there: which controller is used, and do they agree?</summary>
internal static class ReplicaEndpoints
{
    public static void MapReplicas(this IEndpointRouteBuilder api) =>
        api.MapGet("/estates/{name}/controllers", CompareAsync)
            .WithName("CompareControllers").WithSummary("Compares an object on all domain controllers, and says which is behind")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(400).ProducesProblem(502);

    private static async Task<Results<Ok<ReplicaComparisonView>, ProblemHttpResult>> CompareAsync(
        string name, string @object, Library library, ConnectorStore connectorStore, TimeProvider time, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        if (!DistinguishedName.TryParse(@object, out var dn))
            return Problems.Bad(
                "object", "This is not a distinguished name.", "a name such as OU=People,DC=fennmoor,DC=example", @object);
        try
        {
            var replicas = await (await connectorStore.OpenAsync(estate, cancel)).Directory.ReadReplicasAsync(dn.Text, cancel);
            var compared = ReplicaComparison.Of(replicas);
            return TypedResults.Ok(new ReplicaComparisonView(
                dn.Text, replicas[0].Controller, compared.Agree, compared.Newest, Words(compared, replicas),
                [.. compared.Others.Select(o =>
                    new ReplicaLagView(
                        o.Controller, o.Found, o.Attributes, o.ChangesBehind, o.Delay.TotalSeconds, Words(o, compared.Newest)))],
                [.. compared.Unread.Select(u => new UnreadPartView(u.Controller, u.Reason, time.GetUtcNow()))]));
        }
        catch (ConnectorException e)
        {
            return Problems.Of(502, "unreachable", e.Message);
        }
    }

    private static string Words(ReplicaComparison compared, IReadOnlyList<ReplicaObject> replicas)
    {
        var read = replicas.Count(r => r.Unread is null);
        if (read == 0) return "no domain controller answered";
        if (replicas.All(r => r.Unread is not null || !r.Found)) return "no domain controller that answered has it";
        var unread = compared.Unread.Count == 0 ? "" : $"; {compared.Unread.Count} did not answer";
        if (read == 1) return $"only {replicas.First(r => r.Unread is null).Controller} was asked{unread}";
        return compared.Agree
            ? $"{read} controllers agree{unread}"
            : $"{compared.Others.Count(o => o.Attributes.Count > 0 || o.ChangesBehind > 0 || !o.Found)} of {read} controllers differ{unread}";
    }

    private static string Words(ReplicaLag lag, string? newest)
    {
        if (!lag.Found) return "does not have it";
        if (lag.Attributes.Count == 0 && lag.ChangesBehind == 0) return "agrees";
        var what = lag.Attributes.Count == 0 ? "its values are the same" : $"differs in {string.Join(", ", lag.Attributes)}";
        return newest is null
            ? what
            : $"{what}; {lag.ChangesBehind} {(lag.ChangesBehind == 1 ? "change" : "changes")} and {lag.Delay.TotalSeconds:0} s behind {newest}";
    }
}
