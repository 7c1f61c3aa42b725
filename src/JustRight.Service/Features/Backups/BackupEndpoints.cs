using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Backups;

/// <summary>Backups while the service runs.</summary>
internal static class BackupEndpoints
{
    /// <summary>What a backup is: gzip-compressed.</summary>
    public const string MediaType = "application/gzip";

    public static void MapBackups(this IEndpointRouteBuilder api) =>
        api.MapPost("/backup", MakeAsync)
            .WithName("MakeBackup")
            .WithSummary("A backup of one moment: without a recipient nothing secret is in it")
            .RequireAuthorization(Roles.Owner)
            .Produces<byte[]>(200, MediaType).ProducesProblem(409).ProducesProblem(507);

    private static async Task<Results<FileStreamHttpResult, ProblemHttpResult>> MakeAsync(
        BackupOrder order, ClaimsPrincipal user, BackupMaker maker, Library library, SecondPerson second, LogStore log,
        CancellationToken cancel)
    {
        var who = user.Identity!.Name!;
        if (order.Recipient is not { } pem)
        {
            await log.AddAsync(who, "backup", "all", "made, with nothing secret in it", cancel);
            return Sent(await maker.MakeAsync(null, who, cancel));
        }

        if (Recipient.Of(pem, out var recipient) is { } bad) return bad;
        var to = $"{recipient!.Subject} ({recipient.Thumbprint})";
        var estates = (await library.ListAsync(Library.EstateKind, cancel)).Select(e => e.Name);
        var act = new ProposedAct(
            JobKind.Backup, "all", [$"make a backup with every secret, kept password and key in it, encrypted to {to}"],
            recipient.Thumbprint, who);
        if (await second.AskAsync(estates, act, who, cancel) is { } waits) return waits;
        await log.AddAsync(who, "backup", "all", $"made, with what is secret encrypted to {to}", cancel);
        return Sent(await maker.MakeAsync(recipient, who, cancel));
    }

    private static FileStreamHttpResult Sent(FileStream backup) => TypedResults.Stream(backup, MediaType, "justright.backup");
}
