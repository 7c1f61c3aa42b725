using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Background;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Notifications;

/// <summary>
/// Carries notices by mail and webhook. One that does not arrive is tried again, each time after twice as long, for a day.
/// </summary>
internal sealed class Delivery(
    MailCarrier mail, WebhookCarrier webhook, IDbContextFactory<AppDb> databases, TimeProvider time, ILogger<Delivery> logger)
    : RepeatedWork(logger)
{
    private const int MostTries = 12; // half a minute, doubled eleven times, is above a day
    private static readonly TimeSpan FirstWait = TimeSpan.FromSeconds(30);
    private readonly SemaphoreSlim _work = new(1); // the first turn is at once: what waited at the last stop

    /// <summary>Says that there is something to carry.</summary>
    public void Wake() => _work.Release();

    /// <inheritdoc/>
    public override void Dispose()
    {
        _work.Dispose();
        base.Dispose();
    }

    /// <inheritdoc/>
    protected override async Task WaitAsync(CancellationToken cancel)
    {
        using var turn = new CancellationTokenSource(FirstWait, time);
        using var either = CancellationTokenSource.CreateLinkedTokenSource(turn.Token, cancel);
        try
        {
            await _work.WaitAsync(either.Token);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            // nobody called: what is tried again may be due
        }
    }

    /// <inheritdoc/>
    protected override async Task TurnAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var now = time.GetUtcNow();
        var waiting = await db.Set<DeliveryRow>().Where(d => d.State == DeliveryState.Waiting).OrderBy(d => d.Id)
            .ToListAsync(cancel);
        var due = waiting.Where(d => IsDue(d, now)).ToList();
        var ids = due.Select(d => d.NotificationId).Distinct().ToList();
        var notices = await db.Notifications.AsNoTracking().Where(n => ids.Contains(n.Id)).ToDictionaryAsync(n => n.Id, cancel);
        // mail of one estate to one address goes together; each call of the webhook is one notice
        foreach (var together in due.GroupBy(d =>
            d.Channel == DeliveryChannel.Mail ? $"{d.To} {notices[d.NotificationId].Estate}" : $"{d.Id}"))
            await CarryAsync(db, [.. together], Gathered([.. together.Select(d => notices[d.NotificationId])]), cancel);
    }

    private async Task CarryAsync(AppDb db, List<DeliveryRow> deliveries, NotificationRow notice, CancellationToken cancel)
    {
        // The try is kept before it is made: on a full disk the same would be sent again at each turn.
        var now = time.GetUtcNow();
        foreach (var delivery in deliveries)
        {
            (delivery.Tries, delivery.At) = (delivery.Tries + 1, now);
            delivery.NextTry = now + (FirstWait * Math.Pow(2, delivery.Tries - 1));
        }

        await db.SaveChangesAsync(cancel);
        var error = await SendAsync(notice, deliveries[0], cancel);
        foreach (var delivery in deliveries)
        {
            (delivery.At, delivery.Error) = (time.GetUtcNow(), error);
            delivery.State = error is null ? DeliveryState.Sent
                : delivery.Tries >= MostTries ? DeliveryState.GivenUp
                : DeliveryState.Waiting;
            if (error is not null)
                logger.Log(
                    delivery.State == DeliveryState.GivenUp ? LogLevel.Warning : LogLevel.Information,
                    "Notification {Notification} did not reach {Channel} {To}: {Error}", delivery.NotificationId,
                        delivery.Channel,
                    delivery.To, error);
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>One mail of several notices: what got worse before what is due, and the earliest first.</summary>
    private static NotificationRow Gathered(IReadOnlyList<NotificationRow> notices)
    {
        if (notices is [var one]) return one;
        var ordered = notices.OrderBy(n => n.Kind == "drift" ? 0 : 1).ThenBy(n => n.Id).ToList();
        return new NotificationRow
        {
            Id = ordered[0].Id,
            Estate = ordered[0].Estate,
            Key = ordered[0].Key,
            Kind = ordered[0].Kind,
            At = ordered[0].At,
            Subject = $"{ordered[0].Subject}, and {notices.Count - 1} more",
            Text = string.Join($"\n{new string('-', 72)}\n\n", ordered.Select(n => $"{n.Subject}\n\n{n.Text}")),
        };
    }

    /// <summary>A clock that was set back since the last try must not keep what waits for as long again.</summary>
    private static bool IsDue(DeliveryRow delivery, DateTimeOffset now) => delivery.NextTry <= now || delivery.At > now;

    /// <summary>
    /// Sends one; whatever goes wrong with it is said of it, and keeps neither the others nor the service from going on.
    /// </summary>
    private async Task<string?> SendAsync(NotificationRow notice, DeliveryRow delivery, CancellationToken cancel)
    {
        try
        {
            return delivery.Channel == DeliveryChannel.Mail
                ? await mail.SendAsync(notice, delivery, cancel)
                : await webhook.SendAsync(notice, delivery, cancel);
        }
        catch (Exception e) when (!cancel.IsCancellationRequested)
        {
            logger.LogError(e, "Notification {Notification} broke on its way to {Channel}", notice.Id, delivery.Channel);
            return $"something unexpected went wrong ({e.GetType().Name}); the service's log has the details";
        }
    }
}
