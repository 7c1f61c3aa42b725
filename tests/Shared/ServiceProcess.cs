using System.Diagnostics;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using JustRight.Contracts;

namespace JustRight.Tests.Shared;

/// <summary>The built service as a process of its own on loopback, with a data folder of its own.</summary>
public sealed class ServiceProcess : IAsyncDisposable
{
    private readonly int _port = Loopback.FreePort();
    private readonly StringBuilder _output = new();
    private Process? _process;
    private string _also = "";

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

    /// <summary>Everything the process has printed so far.</summary>
    public string Output
    {
        get
        {
            lock (_output) return _output.ToString();
        }
    }

    /// <summary>Starts the service and claims a token with its first sign-in link.</summary>
    public static async Task<ServiceProcess> StartAsync(params string[] settings)
    {
        var service = new ServiceProcess();
        await service.RestartAsync(settings);
        return service;
    }

    /// <summary>Starts a service that listens at another address too.</summary>
    public static async Task<ServiceProcess> StartListeningAlsoAsync(string address, params string[] settings)
    {
        var service = new ServiceProcess { _also = ";" + address };
        await service.RestartAsync(settings);
        return service;
    }

    /// <summary>Starts the service on a data folder that an earlier one left behind, packed.</summary>
    public static async Task<ServiceProcess> StartOnAsync(string packed)
    {
        var service = new ServiceProcess();
        await Programs.MustRunAsync("tar", "-C", service.Data, "-xzf", packed);
        await service.RestartAsync();
        return service;
    }

    /// <summary>Starts the service on a copy of a data folder, with a token that it knows.</summary>
    public static async Task<ServiceProcess> StartOnCopyAsync(string folder, string token, string[] settings)
    {
        var service = new ServiceProcess { Token = token };
        await Programs.MustRunAsync("cp", "-r", $"{folder}/.", service.Data);
        await service.RestartAsync(settings);
        return service;
    }

    /// <summary>Starts the process, again if it ended, on the same data.</summary>
    public async Task RestartAsync(params string[] settings)
    {
        var dll = Path.Combine(Checkout.Top, ".build", "service", "JustRight.Service.dll");
        if (!File.Exists(dll)) throw new InvalidOperationException("The service is not built: ./test builds it.");
        string[] arguments =
        [
            dll, "--urls", Address + _also, "--JustRight:Data", Data, "--JustRight:SignInLinks", "2",
            "--JustRight:Console", Path.Combine(Checkout.Top, "console", "dist"),
            "--JustRight:Outbound:Allow:0", "127.0.0.0/8", .. settings,
        ];
        var start = new ProcessStartInfo("dotnet", arguments) { RedirectStandardOutput = true, RedirectStandardError = true };
        _process = Process.Start(start)!;
        var links = new List<string>();
        _process.OutputDataReceived += (_, e) =>
        {
            lock (_output) _output.AppendLine(e.Data);
            if (e.Data?.StartsWith("One-time", StringComparison.Ordinal) == true)
                lock (links) links.Add(e.Data[(e.Data.LastIndexOf(": ", StringComparison.Ordinal) + 2)..]);
        };
        _process.ErrorDataReceived += (_, e) =>
        {
            lock (_output) _output.AppendLine(e.Data);
        };
        _process.BeginOutputReadLine();
        _process.BeginErrorReadLine();
        await Waiting.UntilAsync("the service printed its sign-in links", () =>
        {
            if (_process.HasExited) throw new InvalidOperationException("The service ended: " + Output);
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
    }

    /// <summary>The sign-in links of this start; the first is used up at the first start.</summary>
    public IReadOnlyList<string> Links { get; private set; } = [];

    /// <summary>The code of a link.</summary>
    public static string CodeOf(string link) => link[(link.IndexOf('#', StringComparison.Ordinal) + 1)..];

    /// <summary>Kills the process as a power cut would.</summary>
    public async Task KillAsync()
    {
        _process!.Kill(); // SIGKILL
        await _process.WaitForExitAsync();
        _process.Dispose();
        _process = null;
    }

    /// <summary>Stops the process gracefully; returns its exit code.</summary>
    public async Task<int> StopAsync()
    {
        await Programs.MustRunAsync("kill", "-TERM", _process!.Id.ToString(System.Globalization.CultureInfo.InvariantCulture));
        await _process.WaitForExitAsync(new CancellationTokenSource(TimeSpan.FromMinutes(5)).Token);
        var code = _process.ExitCode;
        _process.Dispose();
        _process = null;
        return code;
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
        response.EnsureSuccessStatusCode();
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

    /// <summary>Verifies an install and gives everything its worklist offers.</summary>
    public async Task<JobView> GrantAllAsync(string install, bool remove = false)
    {
        await RunAsync($"installs/{install}/verify");
        var worklist = await GetAsync($"installs/{install}/worklist", ContractsJson.Default.WorklistView);
        var steps = (remove ? worklist.Remove : worklist.Give).Where(s => s.Blocked is null).Select(s => s.Id);
        return await RunAsync($"installs/{install}/grant", new GrantOrder(remove, [.. steps]));
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        if (_process is not null) await KillAsync();
        Http.Dispose();
        Directory.Delete(Data, true);
    }

    /// <summary>Waits until a step of a job stands still at the stage that <c>RehearseHaltAt</c> names.</summary>
    public Task HaltedAsync() =>
        Waiting.UntilAsync("the halt was reached", () => File.Exists(Path.Combine(Data, "halted-for-rehearsal")));
}
