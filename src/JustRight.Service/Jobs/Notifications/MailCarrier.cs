using System.Net.Sockets;
using System.Security.Cryptography;
using System.Text;
using JustRight.Connectors;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Settings;
using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using Microsoft.Extensions.Options;
using MimeKit;

namespace JustRight.Service.Jobs.Notifications;

/// <summary>Sends notices through the organization's mail server [RFC 5321].</summary>
internal sealed class MailCarrier(
    IOptions<ServiceSettings> settings, SecretGate secrets, OutboundHandler outbound, TimeProvider time)
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    /// <summary>Sends one; returns why it could not be sent, or null.</summary>
    public async Task<string?> SendAsync(NotificationRow notice, DeliveryRow delivery, CancellationToken cancel)
    {
        var mailServer = settings.Value.Mail;
        if (mailServer.Host is null)
            return "no mail server is set: start the service with --JustRight:Mail:Host and --JustRight:Mail:From (docs/operations.md)";
        if (!MailboxAddress.TryParse(mailServer.From, out var from)) return "--JustRight:Mail:From is not a mail address";
        if (!MailboxAddress.TryParse(delivery.To, out var to)) return "this is not a mail address";
        using var message = new MimeMessage
        {
            Subject = notice.Subject,
            Date = time.GetUtcNow(),
            MessageId = $"{IdOf(notice, delivery)}@{from.Domain}",
        };
        message.From.Add(from);
        message.To.Add(to);
        message.Headers.Add(HeaderId.AutoSubmitted, "auto-generated"); // so that no absence note answers it [RFC 3834]
        message.Body = new TextPart("plain") { Text = notice.Text };
        using var deadline = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        deadline.CancelAfter(Longest);
        try
        {
            using var client = new SmtpClient();
            // Only on this machine may mail go in the clear: elsewhere TLS is asked for, and nothing is sent without.
            var security = mailServer.IsTlsFromTheStart ? SecureSocketOptions.SslOnConnect
                : IsLoopback(mailServer.Host) ? SecureSocketOptions.StartTlsWhenAvailable
                : SecureSocketOptions.StartTls;
            // the client owns it from here
            var socket = await outbound.ConnectAsync(mailServer.Host, mailServer.Port, deadline.Token);
            await client.ConnectAsync(socket, mailServer.Host, mailServer.Port, security, deadline.Token);
            if (mailServer.SignInAs is { } name)
            {
                if (!client.IsSecure) return "the mail server offers no TLS: the password is not sent unencrypted";
                var password = await secrets.GetAsync(mailServer.Secret ?? "", mailServer.Use, cancel);
                await client.AuthenticateAsync(name, password.Reveal(), deadline.Token);
            }

            await client.SendAsync(message, deadline.Token);
            await client.DisconnectAsync(true, deadline.Token);
            return null;
        }
        catch (ConnectorException e)
        {
            return e.Message;
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return $"{mailServer.Host} did not answer within {Longest.TotalSeconds:0} seconds";
        }
        catch (Exception e) when (
            e is SocketException or IOException or ProtocolException or CommandException or AuthenticationException or SslHandshakeException or NotSupportedException or ServiceNotConnectedException)
        {
            return $"{mailServer.Host}: {e.Message.Split('\n')[0].Trim()}";
        }
    }

    /// <summary>
    /// One for each mail, whichever service sends it; the same for each try, so that a mail that came in spite of an error is
    /// known again [RFC 5322 3.6.4].
    /// </summary>
    private static string IdOf(NotificationRow notice, DeliveryRow delivery) => Convert.ToHexStringLower(SHA256.HashData(
        Encoding.UTF8.GetBytes($"{notice.Key}\n{notice.At.UtcTicks}\n{notice.Id}\n{delivery.Id}\n{delivery.To}"))[..16]);

    private static bool IsLoopback(string host) =>
        host == "localhost" || (System.Net.IPAddress.TryParse(host, out var address) && System.Net.IPAddress.IsLoopback(address));
}
