using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Formats.Passwords;
using JustRight.Service.Storage;

namespace JustRight.Service.Passwords;

/// <summary>Passwords for the wire: everything about them, never one itself.</summary>
internal static class PasswordViews
{
    public static AccountPasswordView Of(AccountPassword account, int places, string? renewal) => new(
        account.Account, account.Keeper.Word(), account.KeptBy, account.Uses, account.Standing.Word(), account.Due, account.Words,
        account.SetAt, account.ExpiresAt, account.Never, account.Quarrel, places, renewal);

    /// <param name="renewals">Renewals of the account, newest first: they know who changed it where last.</param>
    public static PasswordPlaceView Of(PasswordPlace place, IEnumerable<RunBook> renewals, ToldPlaceRow? told)
    {
        var last = renewals.SelectMany(b => b.Steps).Where(s => s.Place == place.Id && s.State == RunBookState.Done)
            .MaxBy(s => s.At);
        return new PasswordPlaceView(
            place.Account, place.Product, place.Install, place.Host, place.Where, place.Setting, place.Breaks, place.Kind.Word(),
            place.Words, place.BreaksAtOnce, place.Reference, place.NotSeen, place.Note, last?.By, last?.At, told?.Id);
    }

    public static RenewalStepView Of(RunBookStep step) =>
        new(
            step.Number, step.Act.Word(), step.Secret.Word(), step.Host, step.Words, step.Why, step.State.Word(), step.Note,
            step.By, step.At);

    public static RenewalView Of(
        RenewalRow row, Estate estate, IReadOnlyList<PasswordPlace> places, string? job, DateTimeOffset now)
    {
        var book = RunBookJson.Read(row.BookJson);
        bool IsOpen(string host) => RenewalJob.IsOpen(estate, host, now);
        var next = book.Next(IsOpen);
        var current = book.Current(IsOpen);
        return new RenewalView(
            row.Id, row.Estate, row.Account, estate.IsSimulated, next.Word(), RenewalWords.Of(book, next), current?.Number,
            next == RunBookNext.Window ? estate.Host(current!.Host)!.Restarts!.NextOpen(now, estate.Rules.TimeZone) : null,
            book.GoesBack, row.OldProtected is not null && !book.GoesBack, row.StartedBy, row.StartedAt, row.EndedAt,
            [.. book.Steps.Select(Of)], book.Remarks, [.. book.Divided().Select(d => RenewalWords.Of(d, places))], job);
    }
}
