using System.Buffers;
using System.Collections.Concurrent;
using System.Net;
using System.Text;
using SmtpServer;
using SmtpServer.ComponentModel;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace JustRight.Service.Tests;

/// <summary>Those who are told: a real mail server and a listener for the webhook, both on loopback.</summary>
internal sealed class NotificationScene : MessageStore, IAsyncDisposable
{
    private readonly CancellationTokenSource _stop = new();
    private readonly HttpListener _webhook = new();
    private readonly Task _mail;
    private readonly Task _calls;
    private int _refusals;

    public NotificationScene()
    {
        var parts = new ServiceProvider();
        parts.Add((IMessageStore)this);
        _mail = new SmtpServer.SmtpServer(
            new SmtpServerOptionsBuilder().ServerName("localhost")
                .Endpoint(e => e.Endpoint(new IPEndPoint(IPAddress.Loopback, MailPort))).Build(),
            parts)
            .StartAsync(_stop.Token);
        _webhook.Prefixes.Add(Webhook);
        _webhook.Start();
        _calls = ListenAsync();
    }

    /// <summary>Where mail is taken.</summary>
    public int MailPort { get; } = Loopback.FreePort();

    /// <summary>Where the webhook listens.</summary>
    public string Webhook { get; } = $"http://127.0.0.1:{Loopback.FreePort()}/told/";

    /// <summary>The mails that came, as they came.</summary>
    public ConcurrentQueue<string> Mails { get; } = [];

    /// <summary>The calls that came: headers and body.</summary>
    public ConcurrentQueue<(WebHeaderCollection Headers, byte[] Body)> Calls { get; } = [];

    /// <summary>Refuses the next mail, as a server does that is out of room for now.</summary>
    public void RefuseNext() => _refusals = 1;

    /// <summary>The calls whose body holds a text.</summary>
    public IEnumerable<(WebHeaderCollection Headers, byte[] Body)> CallsWith(string text) =>
        Calls.Where(c => Encoding.UTF8.GetString(c.Body).Contains(text, StringComparison.Ordinal));

    /// <summary>The mails that hold a text.</summary>
    public IEnumerable<string> MailsWith(string text) => Mails.Where(m => m.Contains(text, StringComparison.Ordinal));

    /// <summary>Waits until one came, or the time is over. What the service sends of itself meanwhile does not count.</summary>
    public static async Task<T> FirstAsync<T>(Func<IEnumerable<T>> came)
    {
        await Waiting.UntilAsync("something came", () => came().Any());
        return came().First();
    }

    /// <inheritdoc/>
    public override Task<SmtpResponse> SaveAsync(
        ISessionContext context, IMessageTransaction transaction, ReadOnlySequence<byte> buffer,
        CancellationToken cancellationToken)
    {
        if (Interlocked.Exchange(ref _refusals, 0) == 1)
            return Task.FromResult(new SmtpResponse(SmtpReplyCode.InsufficientStorage, "no room now"));
        Mails.Enqueue(Encoding.UTF8.GetString(buffer.ToArray()));
        return Task.FromResult(SmtpResponse.Ok);
    }

    public async ValueTask DisposeAsync()
    {
        await _stop.CancelAsync();
        _webhook.Close();
        await Task.WhenAny(Task.WhenAll(_mail, _calls), Task.Delay(2000));
        _stop.Dispose();
    }

    private async Task ListenAsync()
    {
        try
        {
            while (true)
            {
                var call = await _webhook.GetContextAsync();
                using var body = new MemoryStream();
                await call.Request.InputStream.CopyToAsync(body);
                Calls.Enqueue(((WebHeaderCollection)call.Request.Headers, body.ToArray()));
                call.Response.StatusCode = 204;
                call.Response.Close();
            }
        }
        catch (Exception e) when (e is HttpListenerException or ObjectDisposedException)
        {
            // It was closed.
        }
    }
}
