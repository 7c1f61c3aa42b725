using System.Globalization;
using JustRight.Connectors;
using JustRight.Lab;
using JustRight.PretendInstance;
using JustRight.PretendInstance.Engine;
using JustRight.PretendInstance.Wire;

const string passwordVariable = "JUSTRIGHT_PRETEND_PASSWORD";
if (args is not [var lab, var name, var release, var portText, var certificateFile, ..] || !int.TryParse(portText, NumberStyles.None, CultureInfo.InvariantCulture, out var port))
{
    Console.Error.WriteLine(
        $"""
        A pretend database instance of the lab: speaks the wire protocol of the SQL Server family over TLS on the loopback address.
        There is no real engine behind it, and no rows in its tables: logins, roles, permissions and databases alone.

        Usage: JustRight.PretendInstance LAB-FILE INSTANCE RELEASE PORT CERTIFICATE.PEM
        Example: {passwordVariable}=… JustRight.PretendInstance demo-data/lab/fennmoor.json fm-sql02 16.0 14330 fm-sql02.pem

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
    var file = LabFile.Open(lab, lab);
    using var engine = new PretendEngine(new PretendBirth(name, release, false, DomainNames.Of(file)), password);
    LabSeed.Fill(engine, file);
    engine.AddLogin("justright", password);
    engine.Run("ALTER SERVER ROLE [sysadmin] ADD MEMBER [justright]");
    using var certificate = PretendCertificate.New();
    File.WriteAllText(certificateFile, certificate.ExportCertificatePem());
    using var listener = new PretendListener(engine, certificate, port);
    Console.WriteLine($"Pretend instance {name} listens on localhost:{listener.Port} (no real engine).");
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
    Console.Error.WriteLine($"The pretend instance does not start: {e.Message}");
    return 1;
}
