using JustRight.Core.Adoptions;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Exceptions;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Proposals;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Adoptions;

/// <summary>
/// What an adoption found, nobody is sure of, and a sheet has no words for. No need keeps it, so an exception does, with the name
/// of who was not sure, until it is to be looked at again: what nobody understands is not the first thing to be removed.
/// </summary>
internal sealed class UnsaidHoldings(FitService fits, ExceptionStore exceptions, SecondPerson second, TimeProvider time)
{
    /// <summary>
    /// How long it is kept where the organization says nothing of reviews; no exception lasts longer than a year.
    /// </summary>
    private static readonly TimeSpan Longest = TimeSpan.FromDays(364);

    /// <summary>
    /// Accepts what is to be kept, and ends what was accepted and is now answered otherwise. What a rule forbids is kept by no
    /// doubt: that only an owner accepts.
    /// </summary>
    /// <param name="answers">The last answer to each item.</param>
    /// <returns>Why it waits for a second person, or null when it is done.</returns>
    public async Task<ProblemHttpResult?> KeepAsync(
        Adoption adoption, AdoptionFindings found, IReadOnlyDictionary<string, AdoptionAnswer> answers, Estate estate, string who,
        CancellationToken cancel)
    {
        if (await fits.JudgeAsync(adoption.Name, cancel) is not { } judged) return null;
        var unsaid = found.Items.Where(i => i.WhyNot is not null).Select(i => (
            Answer: answers[i.Id],
            Excess: judged.Fit.Accounts.First(a => a.Account.Key == i.Account.Key).Judgements
                .FirstOrDefault(j => j.Verdict == Verdict.Excess && j.Right.Key == i.Right.Key))).Where(u => u.Excess is not null)
                    .ToList();
        foreach (var (_, kept) in unsaid.Where(u => u.Answer.Word == AdoptionWord.NotNeeded && u.Excess!.Accepted is not null))
            await exceptions.EndAsync(adoption.Name, kept!.Accepted!.Id, who, cancel);
        var keep = unsaid.Where(u => u.Answer.Word != AdoptionWord.NotNeeded && u.Excess!.Accepted is null).ToList();
        if (keep.Count == 0) return null;

        var now = time.GetUtcNow();
        var end = now + (estate.Rules.Reviews.Every is { } every && every < Longest ? every : Longest);
        var last = DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(end, estate.Rules.TimeZone).DateTime);
        var lines = keep.Select(k =>
            (k.Excess!.Id, Words: $"{NameOf(adoption, k.Excess.Account)}: {k.Excess.Right}", k.Answer, Why: Why(k.Answer)))
            .ToList();
        var act = new ProposedAct(
            JobKind.Exception, adoption.Name, [.. lines.Select(l => $"accept until {last:yyyy-MM-dd}: {l.Words}; {l.Why}")],
            [.. lines.SelectMany(l => new[] { l.Id, l.Answer.By, l.Why }), $"{last:yyyy-MM-dd}"]);
        if (await second.AskAsync([estate.Name], act, who, cancel) is { } waits) return waits;
        foreach (var (id, words, answer, why) in lines)
            await exceptions.AddAsync(
                new AcceptedException(0, adoption.Name, id, Verdict.Excess, why, answer.By, now, estate.Rules.EndOf(last)),
                    words, who,
                cancel);
        return null;
    }

    private static string NameOf(Adoption adoption, string key) => adoption.Accounts.First(a => a.Key == key).Name;

    private static string Why(AdoptionAnswer answer) =>
        $"not sure what needs it{(answer.Why is { } why ? $": {why}" : "")}; a sheet has no words for it";
}
