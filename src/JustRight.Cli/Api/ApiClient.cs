using System.Net;
using System.Net.Http.Headers;
using System.Net.ServerSentEvents;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using JustRight.Contracts;

namespace JustRight.Cli.Api;

/// <summary>Talks to the service. Every failure becomes one <see cref="ClientException"/>.</summary>
internal sealed class ApiClient : IDisposable
{
    private readonly HttpClient _http;
    private readonly string _address;

    /// <param name="address">The service's address.</param>
    /// <param name="token">The token, or null for what needs none.</param>
    public ApiClient(string address, string? token)
    {
        if (!Uri.TryCreate(address, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https")) throw new ClientException(ExitCode.BadInput, $"'{address}' is not an address.", "Give one such as http://127.0.0.1:5820.");
        _address = address;
        _http = new HttpClient { BaseAddress = new Uri(address.TrimEnd('/') + "/api/"), Timeout = Timeout.InfiniteTimeSpan };
        if (token is not null) _http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
    }

    public Task<T> GetAsync<T>(string path, JsonTypeInfo<T> type, CancellationToken cancel) =>
        SendAsync(new HttpRequestMessage(HttpMethod.Get, path), type, cancel);

    /// <summary>A file as it is.</summary>
    public async Task<byte[]> GetBytesAsync(string path, CancellationToken cancel)
    {
        using var response = await SendAsync(new HttpRequestMessage(HttpMethod.Get, path), cancel);
        return await response.Content.ReadAsByteArrayAsync(cancel);
    }

    public Task<T> PostAsync<T>(string path, JsonTypeInfo<T> type, CancellationToken cancel) =>
        SendAsync(new HttpRequestMessage(HttpMethod.Post, path), type, cancel);

    public Task<T> PostAsync<TBody, T>(string path, TBody body, JsonTypeInfo<TBody> bodyType, JsonTypeInfo<T> type, CancellationToken cancel) =>
        SendAsync(new HttpRequestMessage(HttpMethod.Post, path) { Content = Json(body, bodyType) }, type, cancel);

    /// <summary>Sends a file as it is; its faults come back with its own name.</summary>
    /// <param name="query">More to say of it, such as <c>read-at=…</c>; or null.</param>
    public async Task<T> PostFileAsync<T>(string path, string file, JsonTypeInfo<T> type, CancellationToken cancel, string? query = null, string mediaType = "application/yaml")
    {
        FileStream stream;
        try
        {
            stream = File.OpenRead(file);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new ClientException(ExitCode.BadInput, $"{file} cannot be read: {e.Message}");
        }

        await using (stream)
        {
            var content = new StreamContent(stream);
            content.Headers.ContentType = new MediaTypeHeaderValue(mediaType);
            return await SendAsync(new HttpRequestMessage(HttpMethod.Post, $"{path}?file={Uri.EscapeDataString(Path.GetFileName(file))}{(query is null ? "" : "&" + query)}") { Content = content }, type, cancel);
        }
    }

    public Task PutAsync<TBody>(string path, TBody body, JsonTypeInfo<TBody> bodyType, CancellationToken cancel) => SendAsync(HttpMethod.Put, path, body, bodyType, cancel);

    /// <summary>Sends something to which nothing but a status is answered.</summary>
    public async Task SendAsync<TBody>(HttpMethod method, string path, TBody body, JsonTypeInfo<TBody> bodyType, CancellationToken cancel) =>
        (await SendAsync(new HttpRequestMessage(method, path) { Content = Json(body, bodyType) }, cancel)).Dispose();

    public async Task PutAsync(string path, CancellationToken cancel) => (await SendAsync(new HttpRequestMessage(HttpMethod.Put, path), cancel)).Dispose();

    public async Task DeleteAsync(string path, CancellationToken cancel) => (await SendAsync(new HttpRequestMessage(HttpMethod.Delete, path), cancel)).Dispose();

    /// <summary>The events of a job until it ends.</summary>
    public async IAsyncEnumerable<JobEvent> WatchAsync(string job, [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel)
    {
        using var response = await SendAsync(new HttpRequestMessage(HttpMethod.Get, $"jobs/{job}/events"), cancel);
        await using var stream = await response.Content.ReadAsStreamAsync(cancel);
        var events = SseParser.Create(stream, (_, data) => JsonSerializer.Deserialize(data, ContractsJson.Default.JobEvent)!);
        await foreach (var item in events.EnumerateAsync(cancel)) yield return item.Data;
    }

    public void Dispose() => _http.Dispose();

    private static StringContent Json<T>(T body, JsonTypeInfo<T> type) => new(JsonSerializer.Serialize(body, type), Encoding.UTF8, "application/json");

    private async Task<T> SendAsync<T>(HttpRequestMessage request, JsonTypeInfo<T> type, CancellationToken cancel)
    {
        using var response = await SendAsync(request, cancel);
        await using var stream = await response.Content.ReadAsStreamAsync(cancel);
        return await JsonSerializer.DeserializeAsync(stream, type, cancel) ?? throw new ClientException(ExitCode.Unread, $"{_address} answered nothing.");
    }

    private async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancel)
    {
        HttpResponseMessage response;
        try
        {
            response = await _http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
        }
        catch (HttpRequestException e)
        {
            throw new ClientException(ExitCode.Unread, $"The service at {_address} does not answer: {e.Message}", "Is it running? ./demo starts one; --address or JUSTRIGHT_ADDRESS names another.");
        }

        if (response.IsSuccessStatusCode) return response;
        using (response) throw await ErrorAsync(response, cancel);
    }

    private async Task<ClientException> ErrorAsync(HttpResponseMessage response, CancellationToken cancel)
    {
        ProblemView? problem = null;
        try
        {
            problem = JsonSerializer.Deserialize(await response.Content.ReadAsStringAsync(cancel), ContractsJson.Default.ProblemView);
        }
        catch (JsonException)
        {
            // Not ours; the status says what there is to say.
        }

        var advice = response.StatusCode == HttpStatusCode.Unauthorized && problem?.Type == "urn:justright:sign-in"
            ? "Claim a token with the link the service printed: justright token claim LINK"
            : problem?.Detail;
        var code = (int)response.StatusCode >= 500 ? ExitCode.Unread : ExitCode.BadInput;
        return new ClientException(code, problem?.Title ?? $"{_address} answered with status {(int)response.StatusCode}.", advice, problem?.Faults);
    }
}
