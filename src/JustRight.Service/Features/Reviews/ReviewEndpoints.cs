using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Exceptions;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Reviews;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Notifications;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Reviews;

/// <summary>Reviews, and exceptions from what a fit asks.</summary>
internal static class ReviewEndpoints
{
    private const int LongestName = 128, LongestText = 1000, LongestDays = 366;

    private static readonly Columns<ReviewStand> Stands = new(
        Column<ReviewStand>.Of("install", s => s.Install), Column<ReviewStand>.Of("due", s => s.DueAt),
        Column<ReviewStand>.Of("reviewed", s => s.Latest == null ? null : (DateTimeOffset?)s.Latest.At), Column<ReviewStand>.Of("stage", s => s.Stage));

    public static void MapReviews(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/exceptions", ListExceptionsAsync)
            .WithName("ListExceptions").WithSummary("The exceptions, newest first, including the expired ones")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
        api.MapPost("/installs/{name}/exceptions", AllowAsync)
            .WithName("AllowException")
            .WithSummary("Accepts a deviation for a reason and until a date; only an owner accepts a forbidden right")
            .RequireAuthorization(Roles.Granter)
            .ProducesProblem(400).ProducesProblem(403).ProducesProblem(404).ProducesProblem(409);
        api.MapPost("/installs/{name}/exceptions/{number:int}/end", EndAsync)
            .WithName("EndException").WithSummary("Ends an exception early").RequireAuthorization(Roles.Granter)
            .ProducesProblem(404);
        api.MapGet("/installs/{name}/reviews", ListReviewsAsync)
            .WithName("ListReviews").WithSummary("The reviews of an install, newest first")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
        api.MapGet("/estates/{name}/reviews", ListStandsAsync)
            .WithName("ListReviewStands")
            .WithSummary(
                "The installs of an estate, who reviewed each last, and when it is to be reviewed next: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapPost("/installs/{name}/reviews", ReviewAsync)
            .WithName("Review")
            .WithSummary("Records who reviewed the latest fit, its deviations, and which of them are accepted until when")
            .RequireAuthorization(Roles.Planner)
            .ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<IReadOnlyList<ExceptionView>>, ProblemHttpResult>> ListExceptionsAsync(
        string name, Library library, ExceptionStore exceptions, CancellationToken cancel) =>
        await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing
            ? missing
            : TypedResults.Ok(await exceptions.ListAsync(name, cancel));

    private static async Task<Results<Ok<IReadOnlyList<ReviewView>>, ProblemHttpResult>> ListReviewsAsync(
        string name, Library library, ReviewStore reviews, CancellationToken cancel) =>
        await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing
            ? missing
            : TypedResults.Ok(await reviews.ListAsync(name, cancel));

    private static async Task<Results<Ok<ReviewStandPage>, ProblemHttpResult>> ListStandsAsync(
        string name, [AsParameters] ListOrder order, Library library, ReviewStands stands, CancellationToken cancel)
    {
        if (Stands.WhyNot(order) is { } wrong) return wrong;
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var words = SoughtWords.Of(order.Search);
        var (rows, total) = Stands.Page(
            (await stands.ListAsync(estate, cancel)).Where(s => SoughtWords.AreIn(
                words, s.Install, s.Title, s.Stage, s.Standing, s.Latest?.By, s.Latest?.Remark)),
            order);
        return TypedResults.Ok(new ReviewStandPage(rows, order.Skipped, total));
    }

    private static async Task<Results<Ok<ExceptionView>, ProblemHttpResult>> AllowAsync(
        string name, ExceptionOrder order, ClaimsPrincipal user, Library library, JudgedOrNot fits, DriftKeeper drift,
        ExceptionStore exceptions, SecondPerson second, TimeProvider time, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        var off = Off(judged!.Fit);
        if (off.FirstOrDefault(o => o.Target == order.Target) is not { } what)
            return Problems.Of(
                409, "not-off", $"No deviation has the id '{order.Target}'.",
                off.Count == 0
                    ? "The latest fit has no deviation."
                    : "Use the id of a missing, excess or forbidden right in the latest fit.");
        if (TextFault("why", order.Why, LongestText, true) is { } noReason) return noReason;
        if (TextFault("by", order.By, LongestName, false) is { } noName) return noName;
        var rules = Library.ReadEstate((await library.FindAsync(Library.EstateKind, judged.Fit.Plan.Estate, cancel))!).Rules;
        var (now, until) = (time.GetUtcNow(), rules.EndOf(order.Until));
        if (until <= now || until > now.AddDays(LongestDays))
            return Problems.Bad(
                "until", "An exception ends within a year.", $"a day from today to {now.AddDays(LongestDays - 1):yyyy-MM-dd}",
                $"{order.Until:yyyy-MM-dd}");
        if (what.Verdict == Verdict.Forbidden && !user.IsInRole(Roles.Owner))
            return Problems.Of(403, "role", "Only an owner accepts a forbidden right.", "Ask an owner, or remove the right.");
        var act = new ProposedAct(
            JobKind.Exception, name, [$"accept until {order.Until:yyyy-MM-dd}: {what.Words}; {order.Why.Trim()}"], what.Target,
            $"{what.Verdict}", $"{until:O}", order.Why.Trim(), NameOf(order.By, user));
        if (await second.AskAsync([judged.Fit.Plan.Estate], act, user.Identity!.Name!, cancel) is { } waits) return waits;
        var made = await exceptions.AddAsync(
            new AcceptedException(0, name, what.Target, what.Verdict, order.Why.Trim(), NameOf(order.By, user), now, until),
            what.Words, user.Identity!.Name!, cancel);
        await KeepAsync(name, user.Identity!.Name!, library, fits, drift, cancel);
        return TypedResults.Ok(made);
    }

    private static async Task<Results<Ok<IReadOnlyList<ExceptionView>>, ProblemHttpResult>> EndAsync(
        string name, int number, ClaimsPrincipal user, Library library, JudgedOrNot fits, DriftKeeper drift,
        ExceptionStore exceptions, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing) return missing;
        if (!await exceptions.EndAsync(name, number, user.Identity!.Name!, cancel))
            return Problems.Of(
                404, "not-found", $"{name} has no valid exception {number}.", $"See justright exception list {name}");
        await KeepAsync(name, user.Identity!.Name!, library, fits, drift, cancel);
        return TypedResults.Ok(await exceptions.ListAsync(name, cancel));
    }

    private static async Task<Results<Ok<ReviewView>, ProblemHttpResult>> ReviewAsync(
        string name, ReviewOrder order, ClaimsPrincipal user, Library library, JudgedOrNot fits, FitHistory history,
        DriftKeeper drift, ReviewStore reviews, TimeProvider time, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        var fit = judged!.Fit;
        if (TextFault("by", order.By, LongestName, false) is { } noName) return noName;
        if (TextFault("remark", order.Remark, LongestText, false) is { } noRemark) return noRemark;
        var now = time.GetUtcNow();
        if (order.NextBy is { } next
            && (next <= DateOnly.FromDateTime(now.UtcDateTime) || next > DateOnly.FromDateTime(now.UtcDateTime.AddYears(10))))
            return Problems.Bad(
                "nextBy", "The next review must be on a future day.", "a later day, at most ten years from now",
                $"{next:yyyy-MM-dd}");
        // An exception may have ended since the last survey: what is reviewed is what holds at this moment.
        await KeepAsync(name, DriftKeeper.Clock, library, fits, drift, cancel);
        var latest = (await history.ViewAsync(name, null, cancel))!.Number;
        if (order.Fit != latest)
            return Problems.Of(
                409, "fit-changed", $"Fit {order.Fit} is not the latest: that is fit {latest}.",
                $"See what changed first: justright drift {name}{(order.Fit > 0 && order.Fit < latest ? $" --from {order.Fit}" : "")}");
        var off = Off(fit).Select(o => new ReviewedView(o.Words, ExceptionStore.Word(o.Verdict), FitViews.Of(o.Accepted)))
            .ToList();
        var review = new ReviewView(
            0, name, latest, FitViews.Of(fit.Counts, fit.UnreadParts.Count, fit.Words), NameOf(order.By, user),
            user.Identity!.Name!, now, order.NextBy, order.Remark?.Trim(), off);
        return TypedResults.Ok(await reviews.AddAsync(review, cancel));
    }

    /// <summary>Keeps the fit of an install as it is at this moment, from the latest survey.</summary>
    private static async Task KeepAsync(
        string name, string who, Library library, JudgedOrNot fits, DriftKeeper drift, CancellationToken cancel)
    {
        if (await fits.FindAsync(name, cancel) is ({ } judged, _))
            await drift.KeepAsync(
                Library.ReadEstate((await library.FindAsync(Library.EstateKind, judged.Fit.Plan.Estate, cancel))!), [judged.Fit],
                who, cancel);
    }

    private sealed record OffTarget(string Target, Verdict? Verdict, string Words, AcceptedException? Accepted);

    /// <summary>Everything of a fit that is off: what may be accepted.</summary>
    private static List<OffTarget> Off(InstallFit fit) =>
    [
        .. fit.Accounts.SelectMany(a =>
            a.Judgements.Where(j => ExceptionIndex.IsOff(j.Verdict))
                .Select(j =>
                    new OffTarget(
                        j.Id, j.Verdict, $"{a.Account.Name}: {j.Right}: {ExceptionStore.Word(j.Verdict)}", j.Accepted))),
        .. fit.Findings.Where(f => f.IsExcess).Select(f => new OffTarget(f.Id, null, f.Id, f.Accepted)),
    ];

    private static string NameOf(string? named, ClaimsPrincipal user) =>
        named?.Trim() is { Length: > 0 } name ? name : user.Identity!.Name!;

    private static ProblemHttpResult? TextFault(string field, string? text, int longest, bool needed) =>
        needed
            && string.IsNullOrWhiteSpace(text) ? Problems.Bad(field, "An exception needs a reason.", "the reason, in a sentence")
            : text is not null && (text.Length > longest || text.Any(char.IsControl))
                ? Problems.Bad(field, "This text is too long or has a line break.", $"at most {longest} characters on one line")
            : null;
}
