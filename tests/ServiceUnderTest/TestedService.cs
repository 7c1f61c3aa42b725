using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using JustRight.Contracts;

namespace JustRight.Tests.ServiceUnderTest;

/// <summary>
/// The service on loopback, with a data folder of its own: within the tests' process, or as a process of its own where a test
/// kills it, looks at how it ends, or at what is shipped.
/// </summary>
public sealed class TestedService : IAsyncDisposable
{
    private readonly int _port = Loopback.FreePort();
    private readonly StringBuilder _output = new();
    private bool _asProcess;
    private IServiceRun? _run;
    private string _also = "";

    /// <summary>The service's clock, while it runs within the tests' process.</summary>
    public MovableClock Clock { get; } = new();

    /// <summary>The data folder; kept over restarts, deleted at the end.</summary>
    public string Data { get; } = Directory.CreateTempSubdirectory("justright-service-").FullName;

    /// <summary>All files of the data folder but the one that a running service holds locked, which is empty.</summary>
    public IEnumerable<string> DataFiles =>
        Directory.GetFiles(Data, "*", SearchOption.AllDirectories).Where(f => Path.GetFileName(f) != "in-use");

    /// <summary>The address.</summary>
    public string Address => $"http://127.0.0.1:{_port}";

    /// <summary>An owner's token.</summary>
    public string Token { get; private set; } = "";

    /// <summary>A client that is signed in as owner.</summary>
    public HttpClient Http { get; private set; } = new();

    /// <summary>Everything it has printed so far.</summary>
    public string Output
    {
        get
        {
            lock (_output) return _output.ToString();
        }
    }

    /// <summary>Starts the service and claims a token with its first sign-in link.</summary>
    public static Task<TestedService> StartAsync(params string[] settings) => StartedAsync(new TestedService(), settings);

    /// <summary>Starts the service at another time than the machine's, with the whole demo.</summary>
    public static async Task<TestedService> StartDemoAtAsync(DateTimeOffset now, params string[] settings)
    {
        var service = new TestedService();
        service.Clock.Set(now);
        await StartedAsync(service, settings);
        await service.AddDemoAsync();
        return service;
    }

    /// <summary>Starts the service as a process of its own.</summary>
    public static Task<TestedService> StartProcessAsync(params string[] settings) =>
        StartedAsync(new TestedService { _asProcess = true }, settings);

    /// <summary>Starts a service that listens at another address too.</summary>
    public static Task<TestedService> StartListeningAlsoAsync(string address, params string[] settings) =>
        StartedAsync(new TestedService { _also = ";" + address }, settings);

    /// <summary>Starts the service on a data folder that an earlier one left behind, packed.</summary>
    public static async Task<TestedService> StartOnAsync(string packed)
    {
        var service = new TestedService();
        await Programs.MustRunAsync("tar", "-C", service.Data, "-xzf", packed);
        return await StartedAsync(service, []);
    }

    /// <summary>Starts the service on a copy of a data folder, with a token that it knows.</summary>
    /// <param name="asProcess">Whether as a process of its own.</param>
    public static async Task<TestedService> StartOnCopyAsync(string folder, string token, bool asProcess, string[] settings)
    {
        var service = new TestedService { Token = token, _asProcess = asProcess };
        await Programs.MustRunAsync("cp", "-r", $"{folder}/.", service.Data);
        return await StartedAsync(service, settings);
    }

    private static async Task<TestedService> StartedAsync(TestedService service, string[] settings)
    {
        await service.RestartAsync(settings);
        return service;
    }

    /// <summary>Starts it again, if it ended, on the same data.</summary>
    public async Task RestartAsync(params string[] settings)
    {
        string[] arguments =
        [
            "--urls", Address + _also, "--JustRight:Data", Data, "--JustRight:SignInLinks", "2",
            "--JustRight:Console", Path.Combine(Checkout.Top, "console", "dist"),
            "--JustRight:Outbound:Allow:0", "127.0.0.0/8", .. settings,
        ];
        var links = new List<string>();
        _run = _asProcess ? ServiceProcess.Start(arguments, Said) : ServiceWithin.Start(arguments, Said, Clock);
        await Waiting.UntilAsync("the service printed its sign-in links", () =>
        {
            if (_run.HasEnded) throw new InvalidOperationException("The service ended: " + Output);
            lock (links) return links.Count == 2;
        });
        Links = links;
        Http.Dispose();
        Http = new HttpClient { BaseAddress = new Uri(Address), Timeout = TimeSpan.FromMinutes(5) };
        if (Token.Length == 0)
        {
            var claim = await Http.PostAsJsonAsync(
                "/api/tokens/claim", new TokenClaim(CodeOf(links[0]), "tester"), ContractsJson.Default.TokenClaim);
            Token = (await claim.Content.ReadFromJsonAsync(ContractsJson.Default.NewTokenView))!.Token;
        }

        Http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", Token);

        void Said(string? line)
        {
            lock (_output) _output.AppendLine(line);
            if (line?.StartsWith("One-time", StringComparison.Ordinal) == true)
                lock (links) links.Add(line[(line.LastIndexOf(": ", StringComparison.Ordinal) + 2)..]);
        }
    }

    /// <summary>The sign-in links of this start; the first is used up at the first start.</summary>
    public IReadOnlyList<string> Links { get; private set; } = [];

    /// <summary>The code of a link.</summary>
    public static string CodeOf(string link) => link[(link.IndexOf('#', StringComparison.Ordinal) + 1)..];

    /// <summary>Kills the process as a power cut would.</summary>
    public async Task KillAsync()
    {
        await _run!.KillAsync();
        await EndAsync();
    }

    /// <summary>Stops the service as an operator would; returns its exit code.</summary>
    public async Task<int> StopAsync()
    {
        var code = await _run!.StopAsync();
        await EndAsync();
        return code;
    }

    private async ValueTask EndAsync()
    {
        if (_run is { } run) await run.DisposeAsync();
        _run = null;
    }

    /// <summary>Posts a file of the demo data, or another text, to a collection.</summary>
    public Task<HttpResponseMessage> AddAsync(string collection, string file, byte[]? bytes = null)
    {
        var content = new ByteArrayContent(bytes ?? File.ReadAllBytes(Path.Combine(Checkout.Top, "demo-data", file)));
        content.Headers.ContentType = new MediaTypeHeaderValue("application/yaml");
        return Http.PostAsync($"/api/{collection}?file={Uri.EscapeDataString(Path.GetFileName(file))}", content);
    }

    /// <summary>A client that is signed in with a token of its own.</summary>
    /// <param name="person">Whom the token is issued to.</param>
    public async Task<HttpClient> ClientAsync(string name, string role, string? person = null)
    {
        var order = new TokenOrder(name, role, 1) { Person = person };
        using var made = await Http.PostAsJsonAsync("/api/tokens", order, ContractsJson.Default.TokenOrder);
        made.EnsureSuccessStatusCode();
        var token = (await made.Content.ReadFromJsonAsync(ContractsJson.Default.NewTokenView))!.Token;
        var client = new HttpClient { BaseAddress = new Uri(Address), Timeout = TimeSpan.FromMinutes(5) };
        client.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
        return client;
    }

    /// <summary>Sets a secret, as an owner.</summary>
    public async Task SetSecretAsync(string name, string value)
    {
        var secret = new SecretValue(value);
        using var set = await Http.PutAsJsonAsync($"/api/secrets/{name}", secret, ContractsJson.Default.SecretValue);
        set.EnsureSuccessStatusCode();
    }

    /// <summary>Lets a secret be used for everything that it is asked for now, as an owner; there must be something.</summary>
    /// <param name="name">The secret, or an account as <c>DOMAIN\name</c>.</param>
    public async Task AllowAsync(string name)
    {
        var all = await Http.GetFromJsonAsync("/api/secrets", ContractsJson.Default.IReadOnlyListSecretView);
        var uses = all!.FirstOrDefault(s => s.Name == name)?.Uses ?? [];
        if (uses.Count == 0) throw new InvalidOperationException($"Nothing asks for {name}.");
        foreach (var use in uses)
            (await Http.PutAsync($"/api/secrets/{Uri.EscapeDataString(name)}/uses/{use.Id}", null)).EnsureSuccessStatusCode();
    }

    /// <summary>Adds the whole demo.</summary>
    public async Task AddDemoAsync()
    {
        var demo = Path.Combine(Checkout.Top, "demo-data");
        foreach (var kind in new[] { "sheets", "estates", "installs" })
            foreach (var file in Directory.GetFiles(Path.Combine(demo, kind), "*.yaml").Order(StringComparer.Ordinal))
                (await AddAsync(kind, Path.GetRelativePath(demo, file))).EnsureSuccessStatusCode();
    }

    /// <summary>Reads something as JSON.</summary>
    public async Task<T> GetAsync<T>(string path, System.Text.Json.Serialization.Metadata.JsonTypeInfo<T> type) =>
        ClosedSets.Checked(JsonSerializer.Deserialize(await Http.GetStringAsync("/api/" + path), type)!);

    /// <summary>The newest entries of the log.</summary>
    public async Task<IReadOnlyList<LogEntryView>> LogAsync() =>
        (await GetAsync("log?take=500", ContractsJson.Default.LogPage)).Items;

    /// <summary>The newest notifications of an estate.</summary>
    public async Task<IReadOnlyList<NotificationView>> NotificationsAsync(string estate) =>
        (await GetAsync($"estates/{estate}/notifications?take=500", ContractsJson.Default.NotificationPage)).Items;

    /// <summary>All installs of the list, once none of them is being judged any more.</summary>
    public async Task<IReadOnlyList<InstallSummary>> InstallsAsync()
    {
        var page = await GetAsync("installs?take=500&wait=60", ContractsJson.Default.InstallPage);
        return page.Items.Any(i => i.IsBeingJudged) ? throw new TimeoutException("Installs are still being judged.") : page.Items;
    }

    /// <summary>Starts a job and waits for its end.</summary>
    public Task<JobView> RunAsync(string path, GrantOrder? order = null) =>
        StartedAsync(path, order is null ? null : JsonContent.Create(order, ContractsJson.Default.GrantOrder));

    /// <summary>Traces and waits for the answer.</summary>
    public async Task<TraceView> TraceAsync(string estate, TraceOrder order)
    {
        var job = await StartedAsync($"estates/{estate}/trace", JsonContent.Create(order, ContractsJson.Default.TraceOrder));
        return job.State == "done"
            ? await GetAsync($"jobs/{job.Id}/trace", ContractsJson.Default.TraceView)
            : throw new InvalidOperationException(job.Message);
    }

    /// <summary>Carries out a remedy of a trace and waits for its end.</summary>
    public Task<JobView> FixAsync(string trace, string remedy) =>
        StartedAsync($"jobs/{trace}/fix", JsonContent.Create(new FixOrder(remedy), ContractsJson.Default.FixOrder));

    /// <summary>Starts a job with an order and waits for its end.</summary>
    public async Task<JobView> StartedAsync(string path, HttpContent? body)
    {
        using var response = await Http.PostAsync("/api/" + path, body);
        if (!response.IsSuccessStatusCode)
            throw new HttpRequestException(await response.Content.ReadAsStringAsync(), null, response.StatusCode);
        return await EndOfAsync((await response.Content.ReadFromJsonAsync(ContractsJson.Default.JobView))!.Id);
    }

    /// <summary>Waits for the end of a job.</summary>
    public async Task<JobView> EndOfAsync(string id)
    {
        return await Waiting.ForAsync($"job {id} ended", async () =>
        {
            var job = await GetAsync($"jobs/{id}", ContractsJson.Default.JobView);
            return job.State is "queued" or "running" ? null : job;
        });
    }

    /// <summary>
    /// Verifies an install and gives everything its worklist offers, but for what would have to ask for a password.
    /// </summary>
    public async Task<JobView> GrantAllAsync(string install, bool remove = false)
    {
        await RunAsync($"installs/{install}/verify");
        var worklist = await GetAsync($"installs/{install}/worklist", ContractsJson.Default.WorklistView);
        var steps = (remove ? worklist.Remove : worklist.Give).Where(s => s is { Blocked: null, Asks: null }).Select(s => s.Id);
        return await RunAsync($"installs/{install}/grant", new GrantOrder(remove, [.. steps]));
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        Http.Dispose(); // its connections would be waited for
        await EndAsync();
        Directory.Delete(Data, true);
    }

    /// <summary>Waits until a step of a job stands still at the stage that <c>RehearseHaltAt</c> names.</summary>
    public Task HaltedAsync() =>
        Waiting.UntilAsync("the halt was reached", () => File.Exists(Path.Combine(Data, "halted-for-rehearsal")));
}
