using System.Globalization;
using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Features.Estates;

/// <summary>Where no connection to the directory is allowed: what somebody read of it comes as a file.</summary>
internal static class DirectoryFileEndpoints
{
    private const long MostBytes = 1_000_000_000;

    public static void MapDirectoryFiles(this IEndpointRouteBuilder api) =>
        api.MapPost("/estates/{name}/directory-file", AddAsync)
            .WithName("AddDirectoryFile")
            .WithSummary("Checks an LDIF export of an estate's directory, and stores it for surveys; the body is the file")
            .Accepts<string>("text/plain").WithMetadata(new RequestSizeLimitAttribute(MostBytes))
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);

    private static async Task<Results<Ok<DirectoryFileView>, ProblemHttpResult>> AddAsync(
        string name, string? file, [FromQuery(Name = "read-at")] string? readAt, HttpRequest request, ClaimsPrincipal user,
        Library library, DirectoryFiles files, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.EstateKind, name, cancel) is not { } row)
            return await library.NoEstateAsync(name, cancel);
        var estate = Library.ReadEstate(row);
        if (estate.Directory.Reach != Reach.File)
            return Problems.Of(
                409, "not-by-file", $"The directory of {name} is not read from a file.",
                $"Set 'reach: file' under 'directory' in {row.File}, and add the estate again.");
        DateTimeOffset? time = null;
        if (readAt is not null)
        {
            if (!DateTimeOffset.TryParse(readAt, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var parsed))
                return Problems.Bad("read-at", "This is not a time.", "a time such as 2026-11-25T09:30:00Z", readAt);
            time = parsed;
        }

        var (kept, read, faults) = await files.SaveAsync(
            estate, Upload.Name(file, "directory.ldif"), request.Body, time, user.Identity!.Name!, cancel);
        return kept is null
            ? Problems.Of(faults)
            : TypedResults.Ok(new DirectoryFileView(
                name, kept.File, kept.ReadAt, read!.Count, read.SchemaRoot.Length > 0, read.SaysWhoRead));
    }
}
