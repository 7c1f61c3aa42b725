using JustRight.Contracts;
using JustRight.Core.Calendar;
using JustRight.Core.Estates;
using JustRight.Core.Fit.Drift;
using JustRight.Service.Data.Calendar;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Lists;
using JustRight.Service.Platform.Settings;
using JustRight.Service.Platform.Tls;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Jobs.Notifications;

/// <summary>Writes notices down, once each, for those whom the organization wants told; the post office carries them.</summary>
internal sealed class NotificationService(
    CalendarService calendar, Delivery post, IDbContextFactory<AppDb> databases, IOptions<ServiceSettings> settings,
    TimeProvider time) : IDisposable
{
    /// <summary>What a list of them can be sorted by.</summary>
    public static readonly Columns<NotificationRow> Columns = new(
        Column<NotificationRow>.Of("at", n => n.Id), Column<NotificationRow>.Of("subject", n => n.Subject),
        Column<NotificationRow>.Of("kind", n => n.Kind))
    {
        NewestFirst = true,
    };

    private readonly SemaphoreSlim _one = new(1); // the hour's reminders and a person may ask at once

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    /// <summary>Tells of what got worse from one survey to the next.</summary>
    /// <param name="who">Who took the survey.</param>
    public Task TellDriftAsync(
        Estate estate, IReadOnlyList<WorseLine> worse, string who, CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        var told = worse.Where(w => w.Line.Severity <= estate.Rules.Notifications.Least).ToList();
        if (told.Count == 0) return Task.CompletedTask;
        var origin = PublicAddress.OriginOf(settings.Value);
        var text = DriftNotice.Text(
            told,
            i => origin is null ? $"justright drift {i}" : $"{origin}/installs/{Uri.EscapeDataString(i)} or justright drift {i}",
            origin is null ? "justright install list" : $"{origin}/ or justright install list");
        return AddAsync(
            estate, $"drift {estate.Name} {now.UtcDateTime:O}", "drift", DriftNotice.Subject(estate.Title, told),
            $"{Simulated(estate)}Since the last survey, found by {who} at {now.UtcDateTime:yyyy-MM-dd HH:mm:ss}Z:\n\n{text}",
            cancel);
    }

    /// <summary>Reminds of what is due and was not reminded of; returns what was written down now.</summary>
    public async Task<IReadOnlyList<NotificationView>> RemindAsync(Estate estate, CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        var made = new List<NotificationView>();
        foreach (var entry in await calendar.EntriesAsync(estate, cancel))
        {
            if (entry.ReminderAt(now) is not { } key) continue;
            var when = $"{(entry.StandingAt(now) == EntryStanding.Overdue ? "since" : "by")} {TimeZoneInfo.ConvertTime(entry.At, estate.Rules.TimeZone):yyyy-MM-dd HH:mm zzz}";
            if (await AddAsync(
                estate, $"reminder {estate.Name} {key}", "reminder",
                $"{estate.Title}: {entry.Subject}: {CalendarFile.Title(entry.Kind)} {when}",
                $"{Simulated(estate)}{entry.Subject}: {entry.Words}\n\nDue {when}.\nNext: {entry.Next}\n", cancel) is { } notice)
                made.Add(notice);
        }

        return made;
    }

    /// <summary>A page of those of an estate.</summary>
    public async Task<NotificationPage> ListAsync(string estate, ListOrder order, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var matching = db.Notifications.AsNoTracking().Where(n => n.Estate == estate)
            .Containing(order.Search, n => n.Subject, n => n.Text);
        var rows = await Columns.Page(matching, order).Include(n => n.Deliveries).ToListAsync(cancel);
        return new NotificationPage([.. rows.Select(View)], order.Skipped, await matching.CountAsync(cancel));
    }

    private async Task<NotificationView?> AddAsync(
        Estate estate, string key, string kind, string subject, string text, CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            return await AddOnceAsync(estate, key, kind, subject, text, cancel);
        }
        finally
        {
            _one.Release();
        }
    }

    private async Task<NotificationView?> AddOnceAsync(
        Estate estate, string key, string kind, string subject, string text, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (await db.Notifications.AnyAsync(n => n.Key == key, cancel)) return null;
        var now = time.GetUtcNow();
        var (rules, zone) = (estate.Rules.Notifications, estate.Rules.TimeZone);
        var row = new NotificationRow { Estate = estate.Name, Key = key, Kind = kind, Subject = subject, Text = text, At = now };
        row.Deliveries.AddRange(
            estate.Rules.Notifications.Mail.Select(to =>
                new DeliveryRow
                {
                    Channel = DeliveryChannel.Mail,
                    To = to,
                    State = DeliveryState.Waiting,
                    NextTry = rules.MailAt(now, zone),
                    At = now,
                }));
        if (estate.Rules.Notifications.Webhook is { } webhook)
            row.Deliveries.Add(new DeliveryRow
            {
                Channel = DeliveryChannel.Webhook,
                To = webhook.ToString(),
                Secret = estate.Rules.Notifications.WebhookSecret,
                State = DeliveryState.Waiting,
                NextTry = rules.CallAt(now, zone),
                At = now,
            });
        db.Notifications.Add(row);
        await db.SaveChangesAsync(cancel);
        post.Wake();
        return View(row);
    }

    private static string Simulated(Estate estate) => estate.IsSimulated ? "This estate is simulated.\n\n" : "";

    private static NotificationView View(NotificationRow row) =>
        new(
            row.Id, row.Estate, row.Kind, row.Subject, row.Text, row.At,
            [.. row.Deliveries.OrderBy(d => d.Id).Select(d =>
                new DeliveryView(d.Channel.Word(), d.To, d.State.Word(), d.Tries, d.At, d.Error))]);
}
