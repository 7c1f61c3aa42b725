using JustRight.Contracts;
using JustRight.Core.Faults;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Platform.Answers;

/// <summary>Errors as problem details [RFC 9457]. Types are stable words below <c>urn:justright:</c>.</summary>
internal static class Problems
{
    private const int FewEnoughToList = 5;

    /// <summary>A problem with a type, a title and, where it helps, what to do.</summary>
    public static ProblemHttpResult Of(
        int status, string type, string title, string? detail = null, IReadOnlyList<FaultView>? faults = null)
    {
        var details = new ProblemDetails { Type = $"urn:justright:{type}", Title = title, Status = status, Detail = detail };
        if (faults is not null) details.Extensions["faults"] = faults;
        return TypedResults.Problem(details);
    }

    /// <summary>Faults of a user's file.</summary>
    public static ProblemHttpResult Of(IReadOnlyList<Fault> faults) =>
        Of(
            400, "faulty-file", faults.Count == 1 ? "This file has a fault." : $"This file has {faults.Count} faults.",
            faults[0].ToString(), [.. faults.Select(ToView)]);

    /// <summary>A field of a request that does not fit.</summary>
    public static ProblemHttpResult Bad(
        string field, string message, string expected, string? found = null, IReadOnlyList<string>? known = null) =>
        Of(
            400, "bad-request", message, $"Expected: {expected}.",
            [new FaultView(
                "bad-request", "", 0, 0, field, message, found, expected,
                found is null || known is null ? null : Spelling.Nearest(found, known))]);

    /// <summary>Fields of a request that do not fit: the first is told, all are named.</summary>
    public static ProblemHttpResult Bad(IReadOnlyList<Fault> faults) => Of(
        400, "bad-request", faults[0].Message,
        faults[0].Nearest is { } near ? $"Did you mean '{near}'?" : $"Expected: {faults[0].Expected}.",
        [.. faults.Select(ToView)]);

    /// <summary>Something that is not in Just Right.</summary>
    public static ProblemHttpResult NotFound(string what, string name, IEnumerable<string> known)
    {
        var all = known.Distinct(StringComparer.Ordinal).ToList();
        var advice = Spelling.Nearest(name, all) is { } near ? $"Did you mean '{near}'?"
            : all.Count is > 0 and <= FewEnoughToList ? $"There is: {string.Join(", ", all)}."
            : null;
        return Of(404, "not-found", $"There is no {what} called '{name}'.", advice);
    }

    /// <summary>A fault for the wire.</summary>
    public static FaultView ToView(Fault fault) =>
        new(
            fault.Code, fault.At.File, fault.At.Line, fault.At.Column, fault.Field, fault.Message, fault.Found, fault.Expected,
            fault.Nearest);
}
