using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Evidence;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;

namespace JustRight.Service.Features.Reports;

/// <summary>
/// The whole evidence of a fit as one signed file: what was asked, what was read, what was said of it, and what people accepted.
/// A JSON Web Signature in its flattened JSON form [RFC 7515, 7.2.2], by RS256, so that anything that knows the standard checks
/// it.
/// </summary>
internal sealed class EvidenceFile(Library library, SurveyStore surveys, EvidenceKey key)
{
    /// <summary>Writes it.</summary>
    public async Task<byte[]> WriteAsync(InstallReport report, CancellationToken cancel)
    {
        var signed = await key.SignAsync("justright-evidence+json", (await BodyAsync(report, cancel)).ToJsonString(), cancel);
        return Encoding.UTF8.GetBytes(signed.ToJsonString());
    }

    private async Task<JsonObject> BodyAsync(InstallReport report, CancellationToken cancel)
    {
        var fit = report.Fit;
        return new JsonObject
        {
            ["evidence"] = 1,
            ["writtenAt"] = report.WrittenAt.UtcDateTime,
            ["install"] = fit.Install,
            ["simulated"] = fit.Simulated,
            ["fitNumber"] = report.FitNumber,
            ["fit"] = JsonSerializer.SerializeToNode(fit, ContractsJson.Default.FitView),
            ["exceptions"] = JsonSerializer.SerializeToNode(report.Exceptions, ContractsJson.Default.IReadOnlyListExceptionView),
            ["reviews"] = JsonSerializer.SerializeToNode(report.Reviews, ContractsJson.Default.IReadOnlyListReviewView),
            ["documents"] = new JsonArray(
                Document(await library.FindAsync(Library.SheetKind, fit.Sheet, cancel)), Document(
                    await library.FindAsync(Library.EstateKind, fit.Estate, cancel)), Document(
                    await library.FindAsync(Library.InstallKind, fit.Install, cancel))),
            ["survey"] = JsonNode.Parse(await surveys.LatestJsonAsync(fit.Estate, cancel)),
        };
    }

    private static JsonObject? Document(DocumentRow? row) => row is null ? null : new JsonObject
    {
        ["kind"] = row.Kind,
        ["name"] = row.Name,
        ["addedBy"] = row.AddedBy,
        ["addedAt"] = row.AddedAt.UtcDateTime,
        ["sha256"] = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(row.Text))),
        ["text"] = row.Text,
    };
}
