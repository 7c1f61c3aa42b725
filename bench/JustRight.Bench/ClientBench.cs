using System.Diagnostics;
using System.Globalization;
using JustRight.Tests.ServiceUnderTest;
using JustRight.Tests.Shared;

namespace JustRight.Bench;

/// <summary>
/// How long the client takes to ask and to print, against a plain HTTP client that asks the same of the same service and throws
/// the answer away: each is started anew, in turn.
/// </summary>
internal static class ClientBench
{
    private const int Times = 100;
    private static readonly string Client = Path.Combine(Checkout.Top, ".build", "client", "justright");

    public static async Task<int> RunAsync()
    {
        await using var service = await PreparedData.Demo.StartProcessAsync();
        var plain = () => TimedAsync(
            service, "curl", "-s", "-o", "/dev/null", "-H", $"Authorization: Bearer {service.Token}",
            $"{service.Address}/api/installs?take=100");
        var text = () => TimedAsync(service, Client, "install", "list");
        var json = () => TimedAsync(service, Client, "install", "list", "--json");
        var (plainly, texts, jsons) = (new List<double>(), new List<double>(), new List<double>());
        for (var i = 0; i <= Times; i++)
        {
            plainly.Add(await plain());
            texts.Add(await text());
            jsons.Add(await json());
        }

        Say($"plain {Median(plainly):0.0} ms; client {Median(texts):0.0} ms, with --json {Median(jsons):0.0} ms");
        Say($"ratio {Median(texts) / Median(plainly):0.00}, {Median(jsons) / Median(plainly):0.00} (the mark is 1.4)");
        return 0;
    }

    private static async Task<double> TimedAsync(TestedService service, string program, params string[] arguments)
    {
        var start = new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true };
        start.Environment["JUSTRIGHT_ADDRESS"] = service.Address;
        start.Environment["JUSTRIGHT_TOKEN"] = service.Token;
        var clock = Stopwatch.StartNew();
        using var running = Process.Start(start)!;
        await running.StandardOutput.ReadToEndAsync();
        await running.WaitForExitAsync();
        return running.ExitCode == 0 ? clock.Elapsed.TotalMilliseconds
            : throw new InvalidOperationException($"{program} ended with {running.ExitCode}.");
    }

    private static double Median(List<double> times) => times.Skip(1).Order().ElementAt((times.Count - 1) / 2);

    private static void Say(FormattableString words) => Console.WriteLine(words.ToString(CultureInfo.InvariantCulture));
}
