using System.Security.Claims;
using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Access;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Estates;

/// <summary>The protection from accidental deletion: is it on, and switching it on or off knowingly.</summary>
internal static class ProtectionEndpoints
{
    public static void MapProtection(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/protection", ShowAsync)
            .WithName("ShowProtection")
            .WithSummary("Whether an object is protected from accidental deletion, and what would set or remove the protection")
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404).ProducesProblem(502);
        api.MapPost("/estates/{name}/protection", ChangeAsync)
            .WithName("ChangeProtection").WithSummary("Sets or removes the protection of an object; logged, and can be undone")
            .RequireAuthorization(Roles.Granter).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409)
            .ProducesProblem(502);
    }

    private static async Task<Results<Ok<ProtectionView>, ProblemHttpResult>> ShowAsync(
        string name, string @object, Library library, ConnectorStore connectorStore, CancellationToken cancel)
    {
        var (_, read, problem) = await ReadAsync(name, @object, library, connectorStore, cancel);
        return problem is not null
            ? problem
            : TypedResults.Ok(new ProtectionView(
                read!.Dn, read.Simulated, read.IsOn, [.. read.Set.Select(c => c.Words)], [.. read.Lift.Select(c => c.Words)]));
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> ChangeAsync(
        string name, ProtectionOrder order, ClaimsPrincipal user, Library library, ConnectorStore connectorStore,
        ProposalService proposals, CancellationToken cancel)
    {
        var (estate, read, problem) = await ReadAsync(name, order.Dn ?? "", library, connectorStore, cancel);
        if (problem is not null) return problem;
        var changes = order.On ? read!.Set : read!.Lift;
        if (changes.Count == 0)
            return Problems.Of(409, "as-it-is", order.On ? $"{read.Dn} is protected already." : $"{read.Dn} is not protected.");
        if (await DirectoryFiles.RefusalAsync(library, estate!.Name, changes, cancel) is { } refusal) return refusal;
        var job = await proposals.AddAsync(
            name,
            new JobOrder(JobKind.Protect, name, user.Identity!.Name!)
            {
                OrderJson = JobKinds.ProtectionOrder,
                Changes = changes,
                Log = _ => new LogWords(order.On ? "confirm protection" : "confirm lifting the protection", read.Dn),
            },
            cancel);
        return TypedResults.Accepted($"/api/jobs/{job.Id}", JobViews.Of(job));
    }

    private static async Task<(Estate? Estate, Protected? Read, ProblemHttpResult? Problem)> ReadAsync(
        string name, string @object, Library library, ConnectorStore connectorStore, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate)
            return (null, null, await library.NoEstateAsync(name, cancel));
        var asked = estate.Branches.FirstOrDefault(b => b.Key == @object)?.Name.Text ?? @object;
        if (!DistinguishedName.TryParse(asked, out var dn))
            return (
                null, null,
                Problems.Bad(
                    "object", "This is neither a branch of the estate nor a DN.",
                    "a key of 'branches', or a name such as OU=People,DC=fennmoor,DC=example", @object,
                    [.. estate.Branches.Select(b => b.Key)]));
        try
        {
            var read = await (await connectorStore.OpenAsync(estate, cancel)).Directory.ReadAsync(
                new DirectoryScope([], []) { Access = new AccessScope([], [dn.Text], AllContainers: false) }, cancel);
            var tree = new AccessTree(read.Access!);
            if (tree.IndexOf(dn.Text) is var at && (at < 0 || tree.DescriptorOf(at) is null))
                return (
                    null, null,
                    Problems.Of(
                        404, "not-found", $"{dn.Text} does not exist, or its ACL may not be read.",
                        "Check the name, and what the bind account may see."));
            var list = tree.DescriptorOf(at)!;
            return (
                estate,
                new Protected(
                    tree[at].Dn, estate.IsSimulated, DeletionProtection.IsOn(list),
                    DeletionProtection.Set(tree, at, estate.Domain.ShortName),
                    DeletionProtection.Lift(tree, at, estate.Domain.ShortName)),
                null);
        }
        catch (ConnectorException e)
        {
            return (null, null, Problems.Of(502, "unreachable", e.Message));
        }
    }

    private sealed record Protected(
        string Dn, bool Simulated, bool IsOn, IReadOnlyList<DirectoryChange> Set, IReadOnlyList<DirectoryChange> Lift);
}
