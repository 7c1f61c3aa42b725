using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Core.Runs;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Runs;

namespace JustRight.Service.Jobs.Renewals;

/// <summary>Passwords for the wire: everything about them, never one itself.</summary>
internal static class PasswordViews
{
    public static AccountPasswordView Of(AccountPassword account, int places, string? renewal) => new(
        account.Account, account.Keeper.Word(), account.KeptBy, account.Uses, account.Standing.Word(), account.Due, account.Words,
        account.SetAt, account.ExpiresAt, account.Never, account.Quarrel, places, renewal);

    /// <param name="renewals">Renewals of the account, newest first: they know who changed it where last.</param>
    public static PasswordPlaceView Of(PasswordPlace place, IEnumerable<RunBook> renewals, ToldPlaceRow? told)
    {
        var last = renewals.SelectMany(b => b.Steps).Where(s => s.Place == place.Id && s.State == RunStepState.Made)
            .Select(s => s.Step).MaxBy(s => s.At);
        return new PasswordPlaceView(
            place.Account, place.Product, place.Install, place.Host, place.Where, place.Setting, place.Breaks, place.Kind.Word(),
            place.Words, place.BreaksAtOnce, place.Reference, place.NotSeen, place.Note, last?.By, last?.At, told?.Id);
    }

    public static RenewalStepView Of(RunBookStep step) =>
        new(
            step.Number, step.Act.Word(), step.Secret.Word(), step.Host, step.Words, step.Why, step.State.Word(), step.Step.Note,
            step.Step.By, step.Step.At);

    public static RenewalView Of(
        Renewal renewal, Estate estate, IReadOnlyList<PasswordPlace> places, DateTimeOffset now)
    {
        var (row, job, book) = (renewal.Row, renewal.Job, renewal.Book);
        var next = book.Run.Next(host => RestartWindows.IsOpen(estate, host, now));
        return new RenewalView(
            row.Id, row.Estate, row.Account, estate.IsSimulated, job.State.Word(), next.Wait.Word(),
            RenewalWords.Of(book, next.Wait), next.Step?.Number,
            next.Wait == RunWait.Window ? RestartWindows.NextOpen(estate, next.Step!.Window, now) : null,
            book.GoesBack, job.CanGoBack, row.StartedBy, row.StartedAt, row.EndedAt,
            [.. book.Steps.Select(Of)], book.Remarks, [.. book.Divided().Select(d => RenewalWords.Of(d, places))]);
    }
}
