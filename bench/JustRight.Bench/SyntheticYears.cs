using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using JustRight.Tests.ServiceUnderTest;
using JustRight.Tests.Shared;

namespace JustRight.Bench;

/// <summary>
/// An estate to be lived with for years: installs with three accounts each, on a host of their own; each day a tenth of them is
/// changed behind our back: a member too many in a local group on even turns, gone again on odd ones.
/// </summary>
/// <param name="service">Where it is kept; the simulation is its own file there.</param>
/// <param name="installs">How many.</param>
/// <param name="people">How many people are in the directory besides; a quarter of them can sign in to an instance.</param>
internal sealed class SyntheticYears(TestedService service, int installs, int people = 0)
{
    /// <summary>The estate's name.</summary>
    public const string Estate = "fennmoor-years";

    /// <summary>The instance to which some of the people can sign in.</summary>
    public const string Instance = "fm-sql01";

    private const int ChangedEachDay = 10;
    private static readonly string Demo = Path.Combine(Checkout.Top, "demo-data");
    private readonly JsonObject _simulation =
        JsonNode.Parse(File.ReadAllText(Path.Combine(Demo, "simulation", "fennmoor.json")))!.AsObject();

    /// <summary>Lays the simulation of the first day where the service looks for it.</summary>
    public void Begin(string states)
    {
        Populate();
        AddPeople();
        File.WriteAllText(Path.Combine(states, Estate + ".json"), _simulation.ToJsonString());
    }

    private string StateFile => Path.Combine(service.Data, "simulation", Estate + ".json");

    /// <summary>The name of an install, counted from 0.</summary>
    public static string Install(int number) => $"logger-{Number(number)}";

    /// <summary>Adds the sheet, the estate and its installs.</summary>
    public async Task AddAsync()
    {
        var estate = await File.ReadAllTextAsync(Path.Combine(Demo, "estates", "fennmoor.yaml"));
        var hosts = string.Concat(Enumerable.Range(0, installs).Select(i => $"  {Host(i)}: {{}}\n"));
        estate = estate.Replace("name: fennmoor\n", $"name: {Estate}\n", StringComparison.Ordinal)
            .Replace("\nhosts:\n", "\nhosts:\n" + hosts, StringComparison.Ordinal);
        await AddAsync("sheets", "logger.yaml", Sheet);
        await AddAsync("estates", "years.yaml", estate);
        for (var i = 0; i < installs; i++)
            await AddAsync(
                "installs", $"{Install(i)}.yaml",
                $$"""
                install: 1
                name: {{Install(i)}}
                product: logger
                release: "1.0"
                estate: {{Estate}}
                stage: installed
                places: { logger-server: [{{Host(i)}}] }
                accounts:
                  reader: { existing: svc-log-r{{Number(i)}} }
                  sender: { existing: svc-log-s{{Number(i)}} }
                  keeper: { existing: svc-log-k{{Number(i)}} }
                """);
    }

    /// <summary>Changes what a day changes.</summary>
    public void Change(int day)
    {
        foreach (var i in ChangedOn(day))
        {
            var readers = _simulation["hosts"]!.AsArray().Single(h => (string)h!["name"]! == Host(i))!["localGroups"]!.AsArray()
                .Single(g => (string)g!["name"]! == "Performance Log Users")!["members"]!.AsArray();
            var member = $"svc-log-s{Number(i)}";
            if (readers.FirstOrDefault(m => (string)m! == member) is { } there) readers.Remove(there);
            else readers.Add(member);
        }

        File.WriteAllText(StateFile, _simulation.ToJsonString());
    }

    /// <summary>The installs that a day changes.</summary>
    public IEnumerable<int> ChangedOn(int day) => Enumerable.Range(0, installs)
        .Where(i => i % ChangedEachDay == day % ChangedEachDay);

    private void Populate()
    {
        var (principals, hosts) = (_simulation["principals"]!.AsArray(), _simulation["hosts"]!.AsArray());
        var pattern = hosts.Single(h => (string)h!["name"]! == "fm-temp01")!.AsObject();
        for (var i = 0; i < installs; i++)
        {
            foreach (var letter in "rsk")
                principals.Add(new JsonObject
                {
                    ["name"] = $"svc-log-{letter}{Number(i)}",
                    ["kind"] = "User",
                    ["rid"] = 10_000 + (i * 3) + "rsk".IndexOf(letter, StringComparison.Ordinal),
                    ["dn"] = $"CN=svc-log-{letter}{Number(i)},OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example",
                    ["description"] = "",
                    ["primaryGroupRid"] = 513,
                    ["state"] = 16,
                    ["passwordSetAt"] = "2026-11-01T03:00:00Z",
                });
            var host = pattern.DeepClone().AsObject();
            host["name"] = Host(i);
            host["localGroups"]!.AsArray().Single(g => (string)g!["name"]! == "Event Log Readers")!["members"] =
                new JsonArray($"svc-log-r{Number(i)}");
            host["logonRights"]!["SeServiceLogonRight"] =
                new JsonArray("S-1-5-80-0", $"svc-log-r{Number(i)}", $"svc-log-s{Number(i)}", $"svc-log-k{Number(i)}");
            host["services"] = new JsonArray(
            [
                .. "rsk".Select(letter => new JsonObject
                {
                    ["name"] = $"Log{letter}",
                    ["title"] = $"Logger {letter}",
                    ["account"] = $@"FENNMOOR\svc-log-{letter}{Number(i)}",
                    ["start"] = "automatic",
                    ["waitsFor"] = new JsonArray(),
                    ["runsNowAs"] = $@"FENNMOOR\svc-log-{letter}{Number(i)}",
                    ["runsSince"] = "2026-11-01T04:10:00Z",
                }),
            ]);
            hosts.Add(host);
        }
    }

    private void AddPeople()
    {
        var principals = _simulation["principals"]!.AsArray();
        var instance = _simulation["instances"]!.AsArray().Single(i => (string)i!["name"]! == Instance)!;
        var logins = instance["logins"]!.AsArray();
        var creators = instance["roles"]!["dbcreator"]!.AsArray();
        for (var i = 0; i < people; i++)
        {
            var name = string.Create(CultureInfo.InvariantCulture, $"person{i:00000}");
            principals.Add(new JsonObject
            {
                ["name"] = name,
                ["kind"] = "User",
                ["rid"] = 100_000 + i,
                ["dn"] = $"CN={name},OU=People,OU=Fennmoor,DC=fennmoor,DC=example",
                ["description"] = "",
                ["primaryGroupRid"] = 513,
                ["state"] = 0,
            });
            if (i % 4 != 0) continue;
            logins.Add(name);
            creators.Add(name);
        }
    }

    private async Task AddAsync(string collection, string file, string text) =>
        (await service.AddAsync(collection, file, Encoding.UTF8.GetBytes(text))).EnsureSuccessStatusCode();

    private static string Number(int number) => number.ToString("000", CultureInfo.InvariantCulture);

    private static string Host(int number) => $"fm-log{Number(number)}";

    private const string Sheet = """
        sheet: 1
        product: logger
        release: "1.0"
        title: Cold store logger
        source: Made up for measuring
        places:
          logger-server: { kind: host }
        accounts:
          reader:
            purpose: Reads the loggers
            works-as: service
            needs:
              - { logon: service, on: logger-server, given-by: setup, why: runs the reader }
              - { local-group: Event Log Readers, on: logger-server, why: reads the alarms }
          sender:
            purpose: Sends the alarms
            works-as: service
            needs:
              - { logon: service, on: logger-server, given-by: setup, why: runs the sender }
          keeper:
            purpose: Keeps the readings
            works-as: service
            needs:
              - { logon: service, on: logger-server, given-by: setup, why: runs the keeper }
        services:
          - { name: Logr, on: logger-server, as: reader, start: automatic }
          - { name: Logs, on: logger-server, as: sender, start: automatic }
          - { name: Logk, on: logger-server, as: keeper, start: automatic }
        """;
}
