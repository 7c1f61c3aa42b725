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
    /// <summary>What is left out, or null and must not be, is no answer: a command that met it later would break.</summary>
    private static readonly ContractsJson Strict = new(new JsonSerializerOptions(ContractsJson.Default.Options)
    {
        RespectNullableAnnotations = true,
        RespectRequiredConstructorParameters = true,
    });

    private readonly HttpClient _http;
    private readonly string _address;

    /// <param name="address">The service's address.</param>
    /// <param name="token">The token, or null for what needs none.</param>
    public ApiClient(string address, string? token)
    {
        if (!Uri.TryCreate(address, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https"))
            throw new ClientException(
                ExitCode.BadInput, $"'{address}' is not an address.", "Give one such as http://127.0.0.1:5820.");
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

    public Task<T> PostAsync<TBody, T>(
        string path, TBody body, JsonTypeInfo<TBody> bodyType, JsonTypeInfo<T> type, CancellationToken cancel) =>
        SendAsync(new HttpRequestMessage(HttpMethod.Post, path) { Content = Json(body, bodyType) }, type, cancel);

    /// <summary>Sends a file as it is; its faults come back with its own name.</summary>
    /// <param name="query">More to say of it, such as <c>read-at=…</c>; or null.</param>
    public async Task<T> PostFileAsync<T>(
        string path, string file, JsonTypeInfo<T> type, CancellationToken cancel, string? query = null,
        string mediaType = "application/yaml")
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
            return await SendAsync(
                new HttpRequestMessage(
                    HttpMethod.Post,
                    $"{path}?file={Uri.EscapeDataString(Path.GetFileName(file))}{(query is null ? "" : "&" + query)}")
                {
                    Content = content,
                },
                type, cancel);
        }
    }

    /// <summary>Sends a text as a file of a name.</summary>
    /// <param name="query">More to say of it.</param>
    public Task<T> PostTextAsync<T>(
        string path, string file, string text, string mediaType, string query, JsonTypeInfo<T> type, CancellationToken cancel) =>
        SendAsync(
            new HttpRequestMessage(HttpMethod.Post, $"{path}?file={Uri.EscapeDataString(file)}&{query}")
            {
                Content = new StringContent(text, Encoding.UTF8, mediaType),
            },
            type, cancel);

    public Task PutAsync<TBody>(string path, TBody body, JsonTypeInfo<TBody> bodyType, CancellationToken cancel) =>
        SendAsync(HttpMethod.Put, path, body, bodyType, cancel);

    /// <summary>Sends something to which nothing but a status is answered.</summary>
    public async Task SendAsync<TBody>(
        HttpMethod method, string path, TBody body, JsonTypeInfo<TBody> bodyType, CancellationToken cancel) =>
        (await SendAsync(new HttpRequestMessage(method, path) { Content = Json(body, bodyType) }, cancel)).Dispose();

    public async Task PutAsync(string path, CancellationToken cancel) =>
        (await SendAsync(new HttpRequestMessage(HttpMethod.Put, path), cancel)).Dispose();

    public async Task DeleteAsync(string path, CancellationToken cancel) =>
        (await SendAsync(new HttpRequestMessage(HttpMethod.Delete, path), cancel)).Dispose();

    /// <summary>Sends something, and writes what comes back into a new file that nobody else may read.</summary>
    public async Task SaveAsync<TBody>(
        string path, TBody body, JsonTypeInfo<TBody> bodyType, string file, CancellationToken cancel)
    {
        var options = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows()) options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        await using var saved = new FileStream(file, options);
        using var response = await SendAsync(
            new HttpRequestMessage(HttpMethod.Post, path) { Content = Json(body, bodyType) }, cancel);
        await response.Content.CopyToAsync(saved, cancel);
    }

    /// <summary>The events of a job until it ends.</summary>
    public async IAsyncEnumerable<JobEvent> WatchAsync(
        string job, [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel)
    {
        using var response = await SendAsync(new HttpRequestMessage(HttpMethod.Get, $"jobs/{job}/events"), cancel);
        await using var stream = await response.Content.ReadAsStreamAsync(cancel);
        var events = SseParser.Create(stream, (_, data) => Event(data));
        await foreach (var item in events.EnumerateAsync(cancel)) yield return item.Data;
    }

    public void Dispose() => _http.Dispose();

    private JobEvent Event(ReadOnlySpan<byte> data)
    {
        try
        {
            return JsonSerializer.Deserialize(data, Strictly(ContractsJson.Default.JobEvent)) ?? throw NotOurs("nothing");
        }
        catch (JsonException)
        {
            throw NotOurs("what this client does not know");
        }
    }

    private static StringContent Json<T>(T body, JsonTypeInfo<T> type) =>
        new(JsonSerializer.Serialize(body, type), Encoding.UTF8, "application/json");

    private async Task<T> SendAsync<T>(HttpRequestMessage request, JsonTypeInfo<T> type, CancellationToken cancel)
    {
        using var response = await SendAsync(request, cancel);
        await using var stream = await response.Content.ReadAsStreamAsync(cancel);
        try
        {
            return await JsonSerializer.DeserializeAsync(stream, Strictly(type), cancel) ?? throw NotOurs("nothing");
        }
        catch (JsonException)
        {
            throw NotOurs("what this client does not know");
        }
    }

    private static JsonTypeInfo<T> Strictly<T>(JsonTypeInfo<T> type) => (JsonTypeInfo<T>)Strict.GetTypeInfo(type.Type)!;

    private ClientException NotOurs(string what) => new(
        ExitCode.Unread, $"{_address} answered {what}.", "Is it Just Right's service, and of this client's release?");

    private async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancel)
    {
        HttpResponseMessage response;
        try
        {
            response = await _http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
        }
        catch (HttpRequestException e)
        {
            throw new ClientException(
                ExitCode.Unread, $"The service at {_address} does not answer: {e.Message}",
                "Is it running? ./demo starts one; --address or JUSTRIGHT_ADDRESS names another.");
        }

        if (response.IsSuccessStatusCode) return response;
        using (response) throw await ErrorAsync(response, cancel);
    }

    private async Task<ClientException> ErrorAsync(HttpResponseMessage response, CancellationToken cancel)
    {
        ProblemView? problem = null;
        try
        {
            problem = JsonSerializer.Deserialize(
                await response.Content.ReadAsStringAsync(cancel), ContractsJson.Default.ProblemView);
        }
        catch (JsonException)
        {
            // Not ours; the status says what there is to say.
        }

        var advice = response.StatusCode == HttpStatusCode.Unauthorized && problem?.Type == "urn:justright:sign-in"
            ? "Claim a token with the link the service printed: justright token claim LINK"
            : problem?.Detail;
        var code = (int)response.StatusCode >= 500 ? ExitCode.Unread
            : problem?.Type == "urn:justright:two-person-approval" ? ExitCode.Waits : ExitCode.BadInput;
        return new ClientException(
            code, problem?.Title ?? $"{_address} answered with status {(int)response.StatusCode}.", advice, problem?.Faults);
    }
}
