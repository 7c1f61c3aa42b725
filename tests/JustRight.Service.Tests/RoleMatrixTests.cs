using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using JustRight.Contracts;
using Microsoft.Data.Sqlite;

namespace JustRight.Service.Tests;

/// <summary>
/// Every call of the API with every role, and with every token that is none: who may, may; who may not is told so before anything
/// else. None is left out, since the calls come from the API's own description.
/// </summary>
public sealed class RoleMatrixTests(TokenFixture tokens) : IClassFixture<TokenFixture>
{
    private static readonly string[] Roles = ["reader", "planner", "granter", "owner"];

    /// <summary>
    /// Calls that need more than a reader, said here once more: a call that is new and not listed must be a reading one.
    /// </summary>
    private static readonly Dictionary<string, string[]> Needs = new()
    {
        ["anybody"] = ["SignIn", "SignOut", "ClaimToken", "ShowSignInWays", "SignInPerson"],
        ["planner"] =
        [
            "AddSheet", "AddEstate", "AddInstall", "UpgradeInstall", "SetStage", "BeginAdoption", "AnswerAdoption",
                "FinishAdoption",
            "AddDirectoryFile", "AddHostFacts", "Survey", "Verify", "Trace", "CompareControllers", "Confirm", "ShowProtection",
            "TrySignIn", "AskFilter", "AnswerAccess", "TellWholeAccess", "TellPasswordPlace",
            "ForgetPasswordPlace", "Review", "Remind", "SurveyNow", "WithdrawProposal",
            "RemoveSheet", "RemoveEstate", "RemoveInstall", "RemoveAdoption", "LayRehearsal", "EndRehearsal",
        ],
        ["granter"] = [
            "Grant", "Continue", "Fix", "Undo", "ShowUndo", "ChangeProtection", "TryPassword", "SealAccountPassword",
                "ShowPasswordOnce",
            "BeginRenewal", "SayOfStep", "Stop", "AllowException", "EndException", "ApproveProposal",
            "CarryOutProposal", "PlaySetup"],
        ["owner"] =
        [
            "ListTokens", "MakeToken", "RevokeToken", "ListSecrets", "SetSecret", "RemoveSecret", "AllowSecretUse",
            "EndSecretUse", "EraseProof",
            "ListSessions", "EndSession", "MakeBackup",
        ],
    };

    /// <summary>Calls that send something and change nothing, which a reader may make.</summary>
    private static readonly string[] OnlyAsking =
        ["CheckSheet", "CheckEstate", "DraftSheet", "TellReplacing", "TellUpgrade", "TryFilter", "CheckLogAgainstAnchor"];

    public static TheoryData<string, string, string, string, string?> Calls
    {
        get
        {
            var calls = new TheoryData<string, string, string, string, string?>();
            using var description = JsonDocument.Parse(
                File.ReadAllText(Path.Combine(Checkout.Top, "docs", "api", "openapi.json")));
            foreach (var path in description.RootElement.GetProperty("paths").EnumerateObject())
                foreach (var call in path.Value.EnumerateObject())
                    calls.Add(
                        call.Name.ToUpperInvariant(), path.Name, call.Value.GetProperty("operationId").GetString()!,
                        call.Value.GetProperty("x-justright-role").GetString()!, Sends(call.Value));
            return calls;
        }
    }

    /// <summary>The media type that a call takes, or null when it takes nothing.</summary>
    private static string? Sends(JsonElement call) =>
        call.TryGetProperty("requestBody", out var body) ? body.GetProperty("content").EnumerateObject().First().Name : null;

    [Theory]
    [MemberData(nameof(Calls))]
    public async Task Who_may_may_and_nobody_else(string method, string path, string name, string described, string? sends)
    {
        var role = Needs.FirstOrDefault(n => n.Value.Contains(name)).Key ?? "reader";
        described.ShouldBe(role, "the description of the API says otherwise");
        if (role == "reader" && method != "GET")
            OnlyAsking.ShouldContain(name, "a call that is not a reading one needs more than a reader, or a word here");
        foreach (var (who, token) in tokens.All)
        {
            var status = await CallAsync(method, path, sends, token);
            var may = role == "anybody" || Array.IndexOf(Roles, who) >= Array.IndexOf(Roles, role);
            if (may && Roles.Contains(who))
                status.ShouldNotBeOneOf(
                    HttpStatusCode.Forbidden, role == "anybody" ? HttpStatusCode.Forbidden : HttpStatusCode.Unauthorized);
            else if (role != "anybody")
                status.ShouldBe(Roles.Contains(who) ? HttpStatusCode.Forbidden : HttpStatusCode.Unauthorized, $"{who} at {name}");
        }
    }

    [Fact]
    public void Nothing_is_listed_that_is_no_call()
    {
        var known = Calls.Select(c => c.Data.Item3).ToHashSet();
        Needs.Values.SelectMany(n => n).Concat(OnlyAsking).ShouldAllBe(n => known.Contains(n));
        known.Count.ShouldBeGreaterThan(60);
    }

    /// <summary>
    /// Nothing in the path is there, and the body is empty: whoever may make the call is told so, and nothing changes.
    /// </summary>
    private async Task<HttpStatusCode> CallAsync(string method, string path, string? sends, string? token)
    {
        using var request = new HttpRequestMessage(
            new HttpMethod(method),
            System.Text.RegularExpressions.Regex.Replace(
                path, @"\{(\w+)\}", m => m.Groups[1].Value == "number" ? "999" : "no-such"));
        if (sends is not null) request.Content = new StringContent("{}", Encoding.UTF8, sends);
        if (token is not null) request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", token);
        using var response = await tokens.Http.SendAsync(request, TestContext.Current.CancellationToken);
        return response.StatusCode;
    }
}

/// <summary>
/// A service with a token of each role, one that has expired, one that was revoked, one of another service, and one that is made
/// up.
/// </summary>
public sealed class TokenFixture : IAsyncLifetime
{
    private TestedService _service = null!;
    private TestedService _other = null!;

    /// <summary>Without a token of its own.</summary>
    public HttpClient Http { get; private set; } = null!;

    /// <summary>By whom they are; null for none.</summary>
    public Dictionary<string, string?> All { get; } = [];

    public async ValueTask InitializeAsync()
    {
        _service = await TestedService.StartAsync();
        _other = await TestedService.StartAsync();
        Http = new HttpClient { BaseAddress = new Uri(_service.Address) };
        foreach (var role in new[] { "reader", "planner", "granter", "owner" }) All[role] = await MakeAsync(_service, role, role);
        All["nobody"] = null;
        All["made up"] = "jr_made-up";
        All["another service's"] = await MakeAsync(_other, "elsewhere", "owner");
        All["revoked"] = await MakeAsync(_service, "revoked", "owner");
        (await _service.Http.DeleteAsync("/api/tokens/revoked")).EnsureSuccessStatusCode();
        All["expired"] = await MakeAsync(_service, "expired", "owner");
        await ExpireAsync("expired");
    }

    public async ValueTask DisposeAsync()
    {
        Http.Dispose();
        await _service.DisposeAsync();
        await _other.DisposeAsync();
    }

    private static async Task<string> MakeAsync(TestedService service, string name, string role)
    {
        using var response = await service.Http.PostAsJsonAsync(
            "/api/tokens", new TokenOrder(name, role, 1), ContractsJson.Default.TokenOrder);
        return (await response.Content.ReadFromJsonAsync(ContractsJson.Default.NewTokenView))!.Token;
    }

    /// <summary>Its end is moved to a minute ago: nobody waits a day for it.</summary>
    private async Task ExpireAsync(string name)
    {
        await using var database = new SqliteConnection(
            $"Data Source={Directory.GetFiles(_service.Data, "*.db").Single()};Pooling=False");
        await database.OpenAsync();
        await using var command = database.CreateCommand();
        command.CommandText = "UPDATE Tokens SET ExpiresAt = $past WHERE Name = $name";
        command.Parameters.AddWithValue(
            "$past",
            DateTimeOffset.UtcNow.AddMinutes(-1)
                .ToString("yyyy-MM-dd HH:mm:ss.FFFFFFFzzz", System.Globalization.CultureInfo.InvariantCulture));
        command.Parameters.AddWithValue("$name", name);
        (await command.ExecuteNonQueryAsync()).ShouldBe(1);
    }
}
