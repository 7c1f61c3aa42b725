using System.Globalization;
using JustRight.Connectors;
using JustRight.SimulatedInstance;
using JustRight.SimulatedInstance.Engine;
using JustRight.SimulatedInstance.Wire;
using JustRight.Simulation;

const string passwordVariable = "JUSTRIGHT_SIMULATED_PASSWORD";
if (args is not [var simulation, var name, var release, var portText, var certificateFile, ..] || !int.TryParse(portText, NumberStyles.None, CultureInfo.InvariantCulture, out var port))
{
    Console.Error.WriteLine(
        $"""
        A simulated database instance of the simulation: speaks the wire protocol of the SQL Server family over TLS on the loopback address.
        There is no real engine behind it, and no rows in its tables: logins, roles, permissions and databases alone.

        Usage: JustRight.SimulatedInstance LAB-FILE INSTANCE RELEASE PORT CERTIFICATE.PEM
        Example: {passwordVariable}=… JustRight.SimulatedInstance demo-data/simulation/fennmoor.json fm-sql02 16.0 14330 fm-sql02.pem

        The login justright, whose password {passwordVariable} holds, may do everything. A certificate is made for it and written to
        CERTIFICATE.PEM without its key. What is changed there is forgotten when it ends.
        """);
    return 2;
}

if (Environment.GetEnvironmentVariable(passwordVariable) is not { Length: > 0 } password)
{
    Console.Error.WriteLine($"{passwordVariable} is not set: it holds the password of the login justright.");
    return 2;
}

try
{
    var file = SimulationFile.Open(simulation, simulation);
    using var engine = new SimulatedEngine(new SimulatedBirth(name, release, false, DomainNames.Of(file)), password);
    SimulationSeed.Fill(engine, file);
    engine.AddLogin("justright", password);
    engine.Run("ALTER SERVER ROLE [sysadmin] ADD MEMBER [justright]");
    using var certificate = SimulatedCertificate.New();
    File.WriteAllText(certificateFile, certificate.ExportCertificatePem());
    using var listener = new SimulatedListener(engine, certificate, port);
    Console.WriteLine($"Simulated instance {name} listens on localhost:{listener.Port} (no real engine).");
    var stop = new TaskCompletionSource();
    Console.CancelKeyPress += (_, e) =>
    {
        e.Cancel = true;
        stop.TrySetResult();
    };
    AppDomain.CurrentDomain.ProcessExit += (_, _) => stop.TrySetResult();
    await stop.Task;
    return 0;
}
catch (Exception e) when (e is IOException or ConnectorException or EngineException or System.Net.Sockets.SocketException)
{
    Console.Error.WriteLine($"The simulated instance does not start: {e.Message}");
    return 1;
}
