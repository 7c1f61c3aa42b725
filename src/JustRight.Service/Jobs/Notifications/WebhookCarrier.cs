using System.Net.Http.Headers;
using System.Text.Json;
using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.SecretUses;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Notifications;

/// <summary>
/// Calls the organization's webhook with a notice, as signed JSON. Follows no redirect: the answer comes from whom the estate
/// names, or not at all.
/// </summary>
internal sealed class WebhookCarrier(HttpClient http, SecretGate secrets, TimeProvider time)
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    /// <summary>Sends one; returns why it could not be sent, or null.</summary>
    public async Task<string?> SendAsync(NotificationRow notice, DeliveryRow delivery, CancellationToken cancel)
    {
        var address = new Uri(delivery.To);
        NewPassword key;
        try
        {
            key = await secrets.GetAsync(delivery.Secret ?? "", EstateSecretUses.OfWebhook(notice.Estate, address), cancel);
        }
        catch (ConnectorException e)
        {
            return e.Message;
        }

        var body = JsonSerializer.SerializeToUtf8Bytes(
            new WebhookNotification(notice.Id, notice.Estate, notice.Kind, notice.Subject, notice.Text, notice.At),
            ContractsJson.Default.WebhookNotification);
        using var request = new HttpRequestMessage(HttpMethod.Post, address) { Content = new ByteArrayContent(body) };
        request.Content.Headers.ContentType = new MediaTypeHeaderValue("application/json");
        foreach (var (name, value) in MessageSignature.Of(
            "POST", address, body, delivery.Secret!, key.Reveal(), time.GetUtcNow()))
            request.Headers.TryAddWithoutValidation(name, value);
        using var deadline = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        deadline.CancelAfter(Longest);
        try
        {
            using var response = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, deadline.Token);
            return response.IsSuccessStatusCode ? null : $"it answered {(int)response.StatusCode}";
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return $"it did not answer within {Longest.TotalSeconds:0} seconds";
        }
        catch (HttpRequestException e)
        {
            return e.Message;
        }
    }
}
