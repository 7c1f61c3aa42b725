using System.Net;
using System.Net.Http.Json;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Cryptography.X509Certificates;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>The service beyond its machine: behind a proxy that ends TLS, and with a certificate of its own.</summary>
public sealed class TlsTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Behind_a_proxy_the_public_address_decides()
    {
        await using var service = await TestedService.StartAsync(
            "--JustRight:PublicAddress", Proxy.Address, "--JustRight:Tls:Proxies:0", "127.0.0.1");
        await using var proxy = await Proxy.StartAsync(service.Address);
        service.Links.ShouldAllBe(l => l.StartsWith(Proxy.Address + "/enter#", StringComparison.Ordinal));
        using var client = proxy.Client();

        using var foreign = await SignInAsync(client, "made-up", "https://elsewhere.example");
        foreign.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        using var listening = await SignInAsync(client, "made-up", service.Address);
        listening.StatusCode.ShouldBe(HttpStatusCode.Forbidden, "where it listens is not where its pages are");
        using var signedIn = await SignInAsync(client, TestedService.CodeOf(service.Links[1]), Proxy.Address);
        signedIn.StatusCode.ShouldBe(HttpStatusCode.OK, await signedIn.Content.ReadAsStringAsync(Cancel));
        var cookie = signedIn.Headers.GetValues("Set-Cookie").ShouldHaveSingleItem();
        cookie.ShouldSatisfyAllConditions(
            c => c.ShouldContain("; secure", Case.Insensitive), c => c.ShouldContain("; httponly", Case.Insensitive),
            c => c.ShouldContain("; samesite=strict", Case.Insensitive));

        // A change with the cookie, as a page makes it: a POST through the proxy.
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/sign-out");
        request.Headers.Add("Origin", Proxy.Address);
        request.Headers.Add("Cookie", cookie.Split(';')[0]);
        using var signedOut = await client.SendAsync(request, Cancel);
        signedOut.StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task Who_tries_too_often_is_told_by_the_proxy_and_not_by_the_one_who_tries()
    {
        await using var service = await TestedService.StartAsync(
            "--JustRight:PublicAddress", Proxy.Address, "--JustRight:Tls:Proxies:0", "127.0.0.1");
        await using var proxy = await Proxy.StartAsync(service.Address);
        using var one = proxy.Client("127.0.0.21");
        using var other = proxy.Client("127.0.0.22");
        (await TriesAsync(one, "198.51.100.1")).ShouldBe(HttpStatusCode.TooManyRequests, "what it says is not believed");
        using var first = await SignInAsync(other, "made-up", Proxy.Address);
        first.StatusCode.ShouldBe(HttpStatusCode.Unauthorized, "another client has tries of its own");
    }

    [Fact]
    public async Task Nobody_is_a_proxy_who_is_not_set_as_one()
    {
        await using var service = await TestedService.StartAsync();
        (await TriesAsync(service.Http, "198.51.100.1")).ShouldBe(HttpStatusCode.TooManyRequests);
    }

    [Theory]
    [InlineData("--JustRight:PublicAddress", "justright.fennmoor.example", "such as https://justright.fennmoor.example")]
    [InlineData("--JustRight:PublicAddress", "https://justright.fennmoor.example/below", "without a path")]
    [InlineData("--JustRight:Tls:Proxies:0", "the proxy", "such as 127.0.0.1 or 10.20.0.0/16")]
    public async Task A_setting_that_cannot_be_is_named_at_the_start(string setting, string value, string says)
    {
        var failure = await Should.ThrowAsync<InvalidOperationException>(() => TestedService.StartAsync(setting, value));
        failure.Message.ShouldContain(setting[2..].TrimEnd('0').TrimEnd(':'));
        failure.Message.ShouldContain(says);
    }

    [Fact]
    public async Task A_renewed_certificate_is_used_and_a_broken_one_is_not()
    {
        var folder = Directory.CreateTempSubdirectory("justright-tls-").FullName;
        var (certificate, key) = (Path.Combine(folder, "own.pem"), Path.Combine(folder, "own.key"));
        using var authority = new TestAuthority("Fennmoor Dairy test authority");
        authority.WriteTo(folder);
        authority.Issue(certificate, key, ["localhost"], 30);
        var port = Loopback.FreePort();
        await using var service = await TestedService.StartListeningAlsoAsync(
            $"https://127.0.0.1:{port}", "--JustRight:Tls:Certificate", certificate, "--JustRight:Tls:Key", key);
        using var ca = X509CertificateLoader.LoadCertificateFromFile(Path.Combine(folder, "ca.pem"));
        var first = await SerialAsync(port, ca);
        using (var client = Proxy.ClientOf("localhost", port, ca))
            (await client.GetAsync("/health", Cancel)).StatusCode.ShouldBe(HttpStatusCode.OK);

        authority.Issue(certificate, key, ["localhost"], 60);
        await Waiting.UntilAsync("the renewed certificate is shown", async () => await SerialAsync(port, ca) != first);
        var second = await SerialAsync(port, ca);

        await File.WriteAllTextAsync(certificate, "half a certifi", Cancel);
        await Waiting.UntilAsync("the log tells of the broken one", async () =>
        {
            (await SerialAsync(port, ca)).ShouldBe(second); // each connection looks, and none is broken by it
            return service.Output.Contains("is not used", StringComparison.Ordinal);
        });
        (await SerialAsync(port, ca)).ShouldBe(second);
        Directory.Delete(folder, true);
    }

    private static async Task<HttpResponseMessage> SignInAsync(HttpClient client, string code, string origin)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/sign-in")
        {
            Content = JsonContent.Create(new SignInCode(code), ContractsJson.Default.SignInCode),
        };
        request.Headers.Add("Origin", origin);
        return await client.SendAsync(request, Cancel);
    }

    /// <summary>Tries codes, each time as if from another address; returns what the last try of many was answered.</summary>
    private static async Task<HttpStatusCode> TriesAsync(HttpClient client, string forwarded)
    {
        var last = HttpStatusCode.OK;
        for (var i = 0; i < 12; i++)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, "/api/sign-in")
            {
                Content = JsonContent.Create(new SignInCode("made-up"), ContractsJson.Default.SignInCode),
            };
            request.Headers.Add("X-Forwarded-For", $"{forwarded}{i}");
            using var answer = await client.SendAsync(request, Cancel);
            last = answer.StatusCode;
        }

        return last;
    }

    private static async Task<string> SerialAsync(int port, X509Certificate2 authority)
    {
        using var socket = new TcpClient();
        await socket.ConnectAsync(IPAddress.Loopback, port, Cancel);
        await using var tls = new SslStream(socket.GetStream());
        var policy = new X509ChainPolicy { TrustMode = X509ChainTrustMode.CustomRootTrust, CustomTrustStore = { authority } };
        policy.RevocationMode = X509RevocationMode.NoCheck;
        var options = new SslClientAuthenticationOptions { TargetHost = "localhost", CertificateChainPolicy = policy };
        await tls.AuthenticateAsClientAsync(options, Cancel);
        return ((X509Certificate2)tls.RemoteCertificate!).SerialNumber;
    }
}
