using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Somebody who may change estates tries to draw a secret to a place of their own: nothing arrives there.</summary>
public sealed class SecretUseTests
{
    private const string Secret = "Marker-of-the-host-key";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("ssh")]
    [InlineData("instance")]
    [InlineData("directory")]
    public async Task A_planner_who_names_a_kept_secret_for_a_place_of_their_own_gets_no_connection(string way)
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.SetSecretAsync("host-key", Secret);
        using var place = new TcpListener(IPAddress.Loopback, 0);
        place.Start();
        var port = ((IPEndPoint)place.LocalEndpoint).Port;
        using var planner = await service.ClientAsync("planner", "planner");
        (await AddAsync(planner, Estate(way, port))).EnsureSuccessStatusCode();

        using var started = await planner.PostAsync("/api/estates/fennmoor/survey", null, Cancel);
        var id = (await started.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!.Id;
        var ended = await service.EndOfAsync(id);
        var said = ended.Message + await ReasonsAsync(service, way == "instance" ? "quernstone-sql02" : "wheyline-lines");
        place.Pending().ShouldBeFalse("nothing may connect there, not even to look");
        said = System.Text.RegularExpressions.Regex.Unescape(said);
        said.ShouldContain("'host-key' is not allowed for this use, so nothing was sent");
        said.ShouldContain("justright secret allow 'host-key' ");

        // A planner cannot allow it either; an owner sees it whole.
        var uses = await UsesAsync(service);
        uses.ShouldNotBeEmpty();
        uses.ShouldAllBe(u => u.AllowedAt == null && u.IsAsked && u.Address == $"127.0.0.1:{port}");
        using var refused = await planner.PutAsync($"/api/secrets/host-key/uses/{uses[0].Id}", null, Cancel);
        refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await refused.Content.ReadAsStringAsync(Cancel)).ShouldContain("This needs the role owner; yours is planner.");
    }

    [Fact]
    public async Task What_an_owner_allowed_is_allowed_for_that_and_lapses_with_each_part()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.SetSecretAsync("host-key", Secret);
        (await AddAsync(service.Http, Estate("ssh", 2201))).EnsureSuccessStatusCode();
        await service.AllowAsync("host-key");
        (await UsesAsync(service)).ShouldHaveSingleItem().AllowedBy.ShouldBe("tester");

        foreach (var change in new Func<string, string>[]
        {
            e => e.Replace("port: 2201", "port: 2202", StringComparison.Ordinal),
            e => e.Replace("address: 127.0.0.1", "address: 127.0.0.2", StringComparison.Ordinal),
            e => e.Replace("host-reader", "somebody", StringComparison.Ordinal),
            e => e.Replace("SHA256:AAAA", "SHA256:BBBB", StringComparison.Ordinal),
        })
        {
            (await AddAsync(service.Http, change(Estate("ssh", 2201)))).EnsureSuccessStatusCode();
            var uses = await UsesAsync(service);
            uses.Single(u => u.IsAsked).AllowedAt.ShouldBeNull();
            uses.Single(u => !u.IsAsked).AllowedAt.ShouldNotBeNull();
        }

        // Another value of the same secret changes nothing; an owner ends it.
        (await AddAsync(service.Http, Estate("ssh", 2201))).EnsureSuccessStatusCode();
        await service.SetSecretAsync("host-key", "another value");
        var allowed = (await UsesAsync(service)).ShouldHaveSingleItem();
        allowed.AllowedAt.ShouldNotBeNull();
        var path = $"/api/secrets/host-key/uses/{allowed.Id}";
        (await service.Http.DeleteAsync(path, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await UsesAsync(service)).ShouldHaveSingleItem().AllowedAt.ShouldBeNull();
        (await service.Http.DeleteAsync(path, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        path = "/api/secrets/host-key/uses/0123456789abcdef0123";
        (await service.Http.PutAsync(path, null, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var log = await service.Http.GetStringAsync("/api/log?search=host-key", Cancel);
        log.ShouldContain("allowed: it signs in to the host fm-line01 of fennmoor at 127.0.0.1:2201");
        log.ShouldContain("no longer allowed: it signs in");
    }

    [Fact]
    public async Task Nothing_is_connected_to_that_the_settings_do_not_name()
    {
        using var place = new TcpListener(IPAddress.Loopback, 0);
        place.Start();
        await using var service = await PreparedData.Demo.StartAsync("--JustRight:Outbound:Allow:0", "10.20.0.0/16");
        await service.SetSecretAsync("host-key", Secret);
        (await AddAsync(service.Http, Estate("ssh", ((IPEndPoint)place.LocalEndpoint).Port))).EnsureSuccessStatusCode();
        await service.AllowAsync("host-key");
        await service.RunAsync("estates/fennmoor/survey");
        place.Pending().ShouldBeFalse();
        (await ReasonsAsync(service, "wheyline-lines")).ShouldContain("this service may not connect to 127.0.0.1");
    }

    /// <summary>Why parts of the latest survey are unseen; empty when there is no survey.</summary>
    private static async Task<string> ReasonsAsync(TestedService service, string install)
    {
        using var response = await service.Http.GetAsync($"/api/installs/{install}/fit", Cancel);
        return response.IsSuccessStatusCode ? await response.Content.ReadAsStringAsync(Cancel) : "";
    }

    private static string Estate(string way, int port)
    {
        var text = File.ReadAllText(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"));
        var changed = way switch
        {
            "ssh" => text.Replace(
                "fm-line01: {}",
                $"fm-line01: {{ reach: ssh, address: 127.0.0.1, port: {port}, host-key: \"SHA256:{new string('A', 43)}\", "
                + "sign-in-as: host-reader, secret: host-key }",
                StringComparison.Ordinal),
            "instance" => text.Replace(
                "fm-sql02: { host: fm-sql02, engine: sqlserver, release: \"16.0\" }",
                "fm-sql02: { host: fm-sql02, engine: sqlserver, release: \"16.0\", reach: tls, address: 127.0.0.1, "
                + $"port: {port}, sign-in-as: reader, secret: host-key }}",
                StringComparison.Ordinal),
            _ => text.Replace(
                "directory: { reach: simulation }",
                $"directory: {{ reach: ldaps, controller: 127.0.0.1, port: {port}, ca-folder: /etc/ssl/certs, "
                + "sign-in-as: reader, secret: host-key }",
                StringComparison.Ordinal),
        };
        changed.ShouldNotBe(text);
        return changed;
    }

    private static Task<HttpResponseMessage> AddAsync(HttpClient who, string estate) => who.PostAsync(
        "/api/estates?file=fennmoor.yaml", new StringContent(estate, Encoding.UTF8, "application/yaml"), Cancel);

    private static async Task<IReadOnlyList<SecretUseView>> UsesAsync(TestedService service) =>
        (await service.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView)).Single(s => s.Name == "host-key").Uses;
}
