using System.Net.Http.Json;
using System.Security.Cryptography.X509Certificates;
using System.Text;
using JustRight.Contracts;
using JustRight.SimulatedInstance;
using JustRight.SimulatedInstance.Engine;
using JustRight.SimulatedInstance.Wire;
using JustRight.Simulation;

namespace JustRight.Databases.Tests.SqlServer;

/// <summary>
/// The service, end to end, with one instance of the demo's estate over the wire: Quernstone is given its small set there.
/// </summary>
public sealed class ServiceOverTheWireTests : IAsyncLifetime
{
    private const string Instance = "fm-sql02", Install = "quernstone-sql02", Login = "justright", Password = "Simulated-Only-1";
    private readonly X509Certificate2 _certificate = SimulatedCertificate.New();
    private readonly string _certificateFile = Path.GetTempFileName();
    private SimulatedEngine _engine = null!;
    private SimulatedListener _listener = null!;
    private TestedService _service = null!;

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        var simulation = SimulationFile.Open(
            Path.Combine(Checkout.Top, "demo-data", "simulation", "fennmoor.json"),
            Path.Combine(Checkout.Top, "demo-data", "simulation", "fennmoor.json"));
        _engine = new SimulatedEngine(new SimulatedBirth(Instance, "16.0", false, DomainNames.Of(simulation)), Password);
        SimulationSeed.Fill(_engine, simulation);
        _engine.AddLogin(Login, Password);
        _engine.Run($"ALTER SERVER ROLE [sysadmin] ADD MEMBER [{Login}]");
        await File.WriteAllTextAsync(_certificateFile, _certificate.ExportCertificatePem(), Stop);
        _listener = new SimulatedListener(_engine, _certificate);
        _service = await PreparedData.Demo.StartAsync();
        var estate = await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), Stop);
        var reached = estate.Replace(
            $"{Instance}: {{ host: {Instance}, engine: sqlserver, release: \"16.0\" }}",
            $"{Instance}: {{ host: {Instance}, engine: sqlserver, release: \"16.0\", reach: tls, address: localhost, port: {_listener.Port}, certificate: {_certificateFile}, sign-in-as: {Login}, secret: wire }}",
            StringComparison.Ordinal);
        reached.ShouldNotBe(estate);
        (await _service.AddAsync("estates", "fennmoor.yaml", Encoding.UTF8.GetBytes(reached))).EnsureSuccessStatusCode();
        await _service.SetSecretAsync("wire", Password);
        await _service.AllowAsync("wire");
    }

    [Fact]
    public async Task A_step_whose_connection_broke_after_it_was_made_is_looked_at_again_and_recorded_as_made()
    {
        var cuts = 0;
        _listener.TroubleAt = sql =>
            sql.StartsWith("COMMIT", StringComparison.Ordinal) && Interlocked.Increment(ref cuts) == 2
                ? Trouble.CutAfter
                : Trouble.None;
        var granted = await _service.GrantAllAsync(Install);
        cuts.ShouldBeGreaterThan(2, "the second step was cut off, and the job went on");
        granted.State.ShouldBe("done", granted.Message);
        granted.Steps.ShouldAllBe(s => s.State == "made");
        granted.Message!.ShouldStartWith("6 made", customMessage: granted.Message);
    }

    [Fact]
    public async Task A_step_that_can_be_neither_made_nor_looked_at_again_says_so_and_is_settled_by_the_next_grant()
    {
        _listener.TroubleAt = sql => sql.StartsWith("COMMIT", StringComparison.Ordinal) ? Down() : Trouble.None;
        var granted = await _service.GrantAllAsync(Install);
        var broken = granted.Steps.Single(s => s.State == "failed");
        broken.After!.ShouldContain("Whether it was made is not known");
        _listener = new SimulatedListener(_engine, _certificate, _listener.Port);
        var rest = await _service.GrantAllAsync(Install);
        rest.Steps.ShouldAllBe(s => s.State == "made" || s.State == "already-so");
        (await _service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give.ShouldBeEmpty();

        // The commit is carried out, its answer never arrives, and nothing listens any more.
        Trouble Down()
        {
            _ = Task.Run(_listener.Dispose);
            return Trouble.CutAfter;
        }
    }

    public async ValueTask DisposeAsync()
    {
        await _service.DisposeAsync();
        _listener.Dispose();
        _engine.Dispose();
        _certificate.Dispose();
        File.Delete(_certificateFile);
    }
}
