// Uses a running service through a client that was generated from the description of its API.
// Arguments: the service's address, the code of a sign-in link, the folder of the demo's documents.
using System.Net.Http.Headers;
using JustRight.Generated;
using JustRight.Generated.Api.Installs.Item.Handovers.Item;
using JustRight.Generated.Models;
using Microsoft.Kiota.Abstractions.Authentication;
using Microsoft.Kiota.Http.HttpClientLibrary;

const string Install = "thermograph-dataroom";
var (address, code, demo) = (args[0], args[1], args[2]);
var anybody = Client(null);
var refused = await RefusalAsync(() => anybody.Api.Me.GetAsync());
Holds(refused.Status == 401 && refused.Type == "urn:justright:sign-in", "who is not signed in is refused");

var claimed = await anybody.Api.Tokens.Claim.PostAsync(new TokenClaim { Code = code, Name = "a generated client" });
var api = Client(claimed!.Token);
var me = await api.Api.Me.GetAsync();
Holds(me!.Role == WhoView_role.Owner && me.Release!.Length > 0, "who one is");

await api.Api.Sheets.PostAsync(Document("sheets/thermograph.yaml"));
await api.Api.Estates.PostAsync(Document("estates/fennmoor.yaml"));
await api.Api.Installs.PostAsync(Document($"installs/{Install}.yaml"));
var spoilt = Document("sheets/thermograph.yaml");
spoilt.Text = spoilt.Text!.Replace("works-as: job", "works-as: jog", StringComparison.Ordinal);
var faulty = await RefusalAsync(() => api.Api.Sheets.Check.PostAsync(spoilt));
Holds(faulty.Faults is [{ Line: > 1, File: "thermograph.yaml", Nearest: "job" }, ..], "a fault says where, and what was meant");

var job = await api.Api.Installs[Install].Verify.PostAsync();
while (job!.State is JobView_state.Queued or JobView_state.Running)
{
    await Task.Delay(100);
    job = await api.Api.Jobs[job.Id].GetAsync();
}

Holds(job.State == JobView_state.Done, $"the install is verified: {job.Message}");
var fit = await api.Api.Installs[Install].Fit.GetAsync();
var verdicts = fit!.Accounts!.SelectMany(a => a.Rights!).Select(r => r.Verdict).ToList();
Holds(verdicts.Count(v => v == JudgementView_verdict.Missing) == fit.Counts!.Missing, "verdicts are counted as they are listed");

var handovers = await api.Api.Installs[Install].Handovers.GetAsync();
await using var bundle = await api.Api.Installs[Install].Handovers[handovers![0].Folder].GetAsync(
    request => request.QueryParameters.Form = GetFormQueryParameterType.Zip);
var head = new byte[2];
await bundle!.ReadExactlyAsync(head);
Holds(head.AsSpan().SequenceEqual("PK"u8), "a bundle is bytes");
return 0;

JustRightClient Client(string? token)
{
    var http = KiotaClientFactory.Create();
    if (token is not null) http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
    return new JustRightClient(
        new HttpClientRequestAdapter(new AnonymousAuthenticationProvider(), httpClient: http) { BaseUrl = address });
}

DocumentOrder Document(string file) =>
    new() { File = Path.GetFileName(file), Text = File.ReadAllText(Path.Combine(demo, file)) };

static async Task<ProblemDetails> RefusalAsync(Func<Task> call)
{
    try
    {
        await call();
    }
    catch (ProblemDetails problem)
    {
        return problem;
    }

    throw new InvalidOperationException("It was not refused.");
}

static void Holds(bool holds, string what)
{
    if (!holds) throw new InvalidOperationException($"It does not hold: {what}.");
    Console.WriteLine($"holds: {what}");
}
