using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Signing in to the console with an account of the simulated directory: who gets which role, who gets none, and who loses it again.</summary>
public sealed class DirectorySignInTests
{
    private const string Groups = ",OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example";

    private static readonly string[] Settings =
    [
        "--JustRight:Demo", "true", "--JustRight:DirectorySignIn:Simulation", "fennmoor/staff",
        "--JustRight:DirectorySignIn:AskAgainMinutes", "0",
        "--JustRight:DirectorySignIn:Roles:reader:0", "CN=vpn-drivers" + Groups, "--JustRight:DirectorySignIn:Roles:granter:0",
        "cn=vpn-keepers" + Groups,
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_person_has_the_role_of_their_groups_and_loses_it_with_them()
    {
        await using var service = await PreparedData.Demo.StartAsync(Settings);
        using var driver = Browser(service);
        (await driver.GetFromJsonAsync(
            "/api/sign-in/ways", ContractsJson.Default.SignInWaysView, Cancel))!.Directory.ShouldBe("staff");
        (await EnterAsync(driver, "a.brandt", "simulated-b.coyle"))
            .ShouldBe((HttpStatusCode.Unauthorized, "Wrong name or password, or the account is disabled."));
        (await EnterAsync(driver, "nobody", "simulated-nobody"))
            .ShouldBe((HttpStatusCode.Unauthorized, "Wrong name or password, or the account is disabled."));
        (await EnterAsync(driver, "a.brandt", "")).Code.ShouldBe(HttpStatusCode.Unauthorized);
        (await EnterAsync(driver, "*", "simulated-a.brandt")).Code.ShouldBe(HttpStatusCode.Unauthorized);
        using (var before = await driver.GetAsync("/api/me", Cancel)) before.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);

        // a driver through a team
        (await EnterAsync(driver, " A.Brandt ", "simulated-a.brandt")).Code.ShouldBe(HttpStatusCode.OK);
        (await driver.GetFromJsonAsync("/api/me", ContractsJson.Default.WhoView, Cancel))!.ShouldSatisfyAllConditions(
            w => w.Name.ShouldBe(@"FENNMOOR\a.brandt"), w => w.Role.ShouldBe("reader"));
        using (var secrets = await driver.GetAsync("/api/secrets", Cancel)) secrets.StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        using var keeper = Browser(service);
        (await EnterAsync(keeper, "v.wick", "simulated-v.wick")).Code.ShouldBe(HttpStatusCode.OK);
        (await keeper.GetFromJsonAsync("/api/me", ContractsJson.Default.WhoView, Cancel))!.Role.ShouldBe("granter");
        using var other = Browser(service);
        (await EnterAsync(other, "f.garrow", "simulated-f.garrow")).Code.ShouldBe(HttpStatusCode.Forbidden);

        // Somebody takes the keeper out of the group: signed out at the next call, and the cookie is no good any more.
        await MembersAsync(service, "vpn-keepers", m => m.Remove(m.First(x => (string?)x == "v.wick")!));
        using (var after = await keeper.GetAsync("/api/me", Cancel)) after.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await EnterAsync(keeper, "v.wick", "simulated-v.wick"))
            .ShouldBe((HttpStatusCode.Forbidden, "Your directory account is valid, but none of your groups has a role here."));
        await MembersAsync(service, "vpn-keepers", m => m.Add("a.brandt"));
        // another role counts at once, and the strongest
        (await driver.GetFromJsonAsync("/api/me", ContractsJson.Default.WhoView, Cancel))!.Role.ShouldBe("granter");

        // What was typed is nowhere: not in the log, the service's own log, or the database.
        var log = await service.Http.GetStringAsync("/api/log?take=100", Cancel);
        log.ShouldContain(@"FENNMOOR\\a.brandt");
        log.ShouldContain("refused, by the directory staff");
        foreach (var text in new[] { log, service.Output }.Concat(Directory.GetFiles(Path.Combine(
            service.Data, "logs")).Select(Read)))
            text.ShouldNotContain("simulated-");
    }

    [Fact]
    public async Task Attempts_under_one_name_end_before_the_directory_locks_it()
    {
        await using var service = await PreparedData.Demo.StartAsync(Settings);
        using var browser = Browser(service);
        for (var i = 0; i < 4; i++)
            (await EnterAsync(browser, i % 2 == 0 ? "a.brandt" : "A.BRANDT", "wrong")).Code.ShouldBe(HttpStatusCode.Unauthorized);
        (await EnterAsync(browser, "a.brandt", "simulated-a.brandt"))
            .ShouldBe((HttpStatusCode.TooManyRequests, "Too many attempts under this name."));
        (await EnterAsync(browser, "b.coyle", "simulated-b.coyle")).Code.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Without_a_directory_nobody_gets_in_that_way_and_a_slip_of_the_pen_stops_the_start()
    {
        await using var service = await TestedService.StartAsync();
        using var browser = Browser(service);
        (await browser.GetFromJsonAsync(
            "/api/sign-in/ways", ContractsJson.Default.SignInWaysView, Cancel))!.Directory.ShouldBeNull();
        (await EnterAsync(browser, "a.brandt", "simulated-a.brandt")).Code.ShouldBe(HttpStatusCode.NotFound);
        (await Should.ThrowAsync<InvalidOperationException>(() => TestedService.StartAsync(
            "--JustRight:Demo", "true", "--JustRight:DirectorySignIn:Simulation", "fennmoor/staff",
            "--JustRight:DirectorySignIn:Roles:boss:0",
            "CN=x"))).Message.ShouldContain("Roles:boss is no role: reader, planner, granter, owner");
    }

    [Fact]
    public async Task Simulated_people_sign_in_to_a_demo_only()
    {
        var settings = Settings.Skip(2).ToArray();
        (await Should.ThrowAsync<InvalidOperationException>(() =>
            TestedService.StartAsync(settings))).Message.ShouldContain("for demos only");
    }

    private static HttpClient Browser(TestedService service) =>
        new(new HttpClientHandler { CookieContainer = new CookieContainer() })
        {
            BaseAddress = new Uri(service.Address),
        };

    private static async Task<(HttpStatusCode Code, string? Says)> EnterAsync(HttpClient browser, string name, string password)
    {
        using var response = await browser.PostAsJsonAsync(
            "/api/sign-in/person", new PersonSignInOrder(name, password), ContractsJson.Default.PersonSignInOrder, Cancel);
        return (
            response.StatusCode,
            response.IsSuccessStatusCode
                ? null
                : (string?)JsonNode.Parse(await response.Content.ReadAsStringAsync(Cancel))!["title"]);
    }

    private static async Task MembersAsync(TestedService service, string group, Action<JsonArray> change)
    {
        var simulation = Path.Combine(service.Data, "simulation", "fennmoor.json");
        var state = JsonNode.Parse(await File.ReadAllTextAsync(simulation, Cancel))!;
        change(state["principals"]!.AsArray().Single(p => (string?)p!["name"] == group)!["members"]!.AsArray());
        await File.WriteAllTextAsync(simulation, state.ToJsonString(), Cancel);
    }

    private static string Read(string file)
    {
        using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
