using System.Diagnostics;
using System.Globalization;
using JustRight.Connectors;
using JustRight.Connectors.SqlServer;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.SimulatedInstance.Engine;
using JustRight.SimulatedInstance.Wire;
using JustRight.Tests.Shared;
using Microsoft.Data.SqlClient;

namespace JustRight.Bench;

/// <summary>A survey of a simulated instance of 5,000 logins, 300 roles and 200 databases with 500 users each, against the client library alone asking the same. Each reading is a process of its own.</summary>
internal static class InstanceBench
{
    private const int Logins = 5_000, Databases = 200, Users = 500, RolesAtInstance = 100;
    private const string Login = "reader", Password = "Simulated-Only-1";
    private static readonly Origin Line = new("bench", 1, 1);

    /// <summary>Lays the instance and compares.</summary>
    public static async Task<int> RunAsync()
    {
        using var engine = new SimulatedEngine(new SimulatedBirth("bench", "16.0", false, Principal), Password);
        engine.AddLogin(Login, Password);
        Console.WriteLine("laying the instance …");
        Lay(engine);
        using var certificate = SimulatedCertificate.New();
        var file = Path.GetTempFileName();
        await File.WriteAllTextAsync(file, certificate.ExportCertificatePem());
        using var listener = new SimulatedListener(engine, certificate);
        var seconds = new Dictionary<string, List<double>> { ["plain"] = [], ["survey"] = [] };
        for (var round = 0; round < 4; round++)
        {
            foreach (var what in seconds.Keys)
            {
                var taken = await OwnProcess.MeasureAsync(
                    1, "instance", what, listener.Port.ToString(CultureInfo.InvariantCulture), file);
                if (round > 0) seconds[what].Add(taken); // the first round only warms the server
            }
        }

        File.Delete(file);
        Console.WriteLine($"ratio of the medians: {Median(seconds["survey"]) / Median(seconds["plain"]):0.00} (the mark is 1.5)");
        return 0;
    }

    /// <summary>One reading, in a process of its own.</summary>
    public static async Task<int> MeasureAsync(string what, string port, string certificate)
    {
        var instance = new EstateInstance("bench", "h", "sqlserver", null, Reach.Tls, Line)
        {
            Tls = new InstanceReach(
                "localhost", int.Parse(port, CultureInfo.InvariantCulture), certificate, Login, "s", TimeSpan.FromMinutes(5)),
        };
        var clock = Stopwatch.StartNew();
        var result = what == "survey" ? await SurveyAsync(instance) : await PlainAsync(instance.Tls!);
        Console.WriteLine(string.Create(
            CultureInfo.InvariantCulture,
            $"{what,-7} {clock.Elapsed.TotalSeconds,7:0.000} s {Process.GetCurrentProcess().PeakWorkingSet64 / 1_048_576,5} MB peak, {result}"));
        return 0;
    }

    private static async Task<string> SurveyAsync(EstateInstance instance)
    {
        var estate = new Estate(
            "bench", "Bench", new Domain("fennmoor.example", "FENNMOOR"), new DirectoryReach(
                Reach.None, null, 636, null, null, null, Line), [],
            new Naming(
                "a", "g", "d", "x", "x", new Dictionary<string, string>(), new Dictionary<string, Origin>(),
                Line), [], [instance], new OrganizationRules([], null, []), Line);
        var read = await new SqlServerInstances(estate, new OneSecret(Password), _ => null, TimeProvider.System)
            .ReadAsync(instance, CancellationToken.None);
        return $"{read.Logins.Count} logins, {read.Databases.Sum(d => d.Users.Count)} users";
    }

    private static async Task<string> PlainAsync(InstanceReach reach)
    {
        await using var connection = new SqlConnection(
            $"Data Source=tcp:localhost,{reach.Port};User ID={Login};Password={Password};Encrypt=Mandatory;Server Certificate={reach.Certificate};Pooling=false;Command Timeout=300");
        await connection.OpenAsync();
        var rows = 0;
        await ReadAsync(SqlServerCatalog.Instance);
        var names = new List<string>();
        await ReadAsync(SqlServerCatalog.Principals, (set, row) =>
        {
            if (set == 3) names.Add((string)row[0]);
        });
        foreach (var name in names) await ReadAsync(SqlServerCatalog.Database(name));
        return $"{rows} rows";

        async Task ReadAsync(string batch, Action<int, object[]>? see = null)
        {
#pragma warning disable CA2100 // the very questions that the survey asks
            await using var command = new SqlCommand(batch, connection);
#pragma warning restore CA2100
            await using var reader = await command.ExecuteReaderAsync();
            var set = 0;
            do
            {
                while (await reader.ReadAsync())
                {
                    var values = new object[reader.FieldCount];
                    reader.GetValues(values);
                    rows++;
                    see?.Invoke(set, values);
                }

                set++;
            }
            while (await reader.NextResultAsync());
        }
    }

    private static void Lay(SimulatedEngine engine)
    {
        Batches(engine, Enumerable.Range(0, Logins).Select(i => $"CREATE LOGIN [{Name(i)}] FROM WINDOWS"));
        Batches(
            engine,
            Enumerable.Range(0, RolesAtInstance)
                .SelectMany(r =>
                    new[] { $"CREATE SERVER ROLE [r{r}]" }.Concat(
                        Enumerable.Range(0, 20)
                            .Select(m => $"ALTER SERVER ROLE [r{r}] ADD MEMBER [{Name(((r * 37) + m) % Logins)}]"))));
        Batches(engine, [$"GRANT VIEW ANY DEFINITION TO [{Login}]", $"GRANT CONNECT ANY DATABASE TO [{Login}]"]);
        for (var d = 0; d < Databases; d++)
        {
            var first = d * 13 % Logins;
            if (d % 50 == 0) Console.WriteLine($"{d} databases …");
            engine.Run($"CREATE DATABASE [d{d}]");
            Batches(engine, Enumerable.Range(0, Users).Select(u =>
                $"CREATE USER [{Name((first + u) % Logins)}] FOR LOGIN [{Name((first + u) % Logins)}]").Prepend($"USE [d{d}]").Append("CREATE ROLE [writers]")
                .Concat(Enumerable.Range(0, 50).SelectMany(u =>
                    new[] { $"ALTER ROLE [writers] ADD MEMBER [{Name((first + u) % Logins)}]", $"GRANT EXECUTE TO [{Name((first + u) % Logins)}]" })));
        }
    }

    private static void Batches(SimulatedEngine engine, IEnumerable<string> statements)
    {
        foreach (var batch in statements.Chunk(2_000)) engine.Run(string.Join(";\n", batch));
    }

    private static string Name(int i) => string.Create(CultureInfo.InvariantCulture, $"FENNMOOR\\svc-{i:0000}");

    private static DomainPrincipal? Principal(string name) =>
        new(
            Sid.Parse("S-1-5-21-1-2-3").Append(10_000 + uint.Parse(name.AsSpan(name.Length - 4), CultureInfo.InvariantCulture)),
            false);

    private static double Median(List<double> all) => all.Order().ElementAt(all.Count / 2);
}
