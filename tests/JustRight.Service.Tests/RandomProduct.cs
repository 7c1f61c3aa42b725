using System.Globalization;
using System.Text;

namespace JustRight.Service.Tests;

/// <summary>
/// A product made at random for the demo's estate, the same for the same seed: up to three accounts, a group that some of what
/// they need comes through, and needs at hosts, instances, databases, groups and branches that are there.
/// </summary>
internal sealed class RandomProduct
{
    private static readonly string[] Hosts = ["fm-temp01", "fm-temp02", "fm-tally01", "fm-line01", "fm-night01", "fm-rec01"];
    private static readonly string[] Stores = ["fm-sql01/ThermoReports", "fm-sql02/WheyReadings", "fm-sql03/MilkQuality"];

    private static readonly string[] Needs =
    [
        "local-group: Event Log Readers, on: server", "local-group: Performance Log Users, on: server",
        "local-group: Administrators, on: server", "logon: service, on: server", "logon: batch, on: server",
        "privilege: SeAssignPrimaryTokenPrivilege, on: server", "domain-group: fm-log-readers",
        "instance-permission: VIEW SERVER STATE, at: store", "instance-role: dbcreator, at: store",
        "database-role: db_datareader, in: store", "database-role: db_owner, in: store", "database-permission: SELECT, in: store",
        "directory: write attributes, attributes: [description], of: group, below: teams",
        "directory: change membership, below: teams",
    ];

    /// <summary>A database has one owner: those products whose first account owns theirs.</summary>
    private static readonly Dictionary<int, string> Owning = new() { [3] = Stores[0], [6] = Stores[1], [101] = Stores[2] };

    private readonly int _seed;
    private readonly Random _random;
    private readonly List<string> _accounts;

    /// <param name="shares">Another product, one of whose accounts is this one's too; null for none.</param>
    public RandomProduct(int seed, RandomProduct? shares = null)
    {
        (_seed, _random) = (seed, new Random(seed));
        Product = string.Create(CultureInfo.InvariantCulture, $"made{seed}");
        _accounts = [.. new[] { "first", "second", "third" }.Take(1 + _random.Next(3))];
        Sheet = Encoding.UTF8.GetBytes(SheetText());
        Install = Encoding.UTF8.GetBytes(InstallText(shares));
    }

    public string Product { get; }

    /// <summary>The name of its install.</summary>
    public string Name => $"{Product}-here";

    public byte[] Sheet { get; }

    public byte[] Install { get; }

    /// <summary>The logon name of its first account, as the demo's naming pattern makes it.</summary>
    private string FirstAccount => $"svc-{Product}-first";

    public override string ToString() => Encoding.UTF8.GetString(Sheet) + Encoding.UTF8.GetString(Install);

    private string SheetText()
    {
        var group = _random.Next(2) == 0;
        var text = new StringBuilder(
            $$"""
            sheet: 1
            product: {{Product}}
            release: "1.0"
            title: Made at random
            source: nobody's guide
            places:
              server: { kind: host, count: 1 or more }
              store: { kind: database, engine: sqlserver }
              teams: { kind: branch }

            """);
        if (group) text.Append("groups:\n  users: { purpose: Gathers them, members: [first] }\n");
        text.Append("accounts:\n");
        foreach (var account in _accounts)
        {
            text.Append(CultureInfo.InvariantCulture,
                $"  {account}:\n    purpose: Made at random\n    works-as: service\n    needs:\n");
            if (account == "first" && Owning.ContainsKey(_seed)) text.Append("      - { database-owner: yes, in: store }\n");
            foreach (var need in _random.GetItems(Needs, 1 + _random.Next(5)).Distinct())
            {
                if (account == "first" && Owning.ContainsKey(_seed)
                    && need.Contains("in: store", StringComparison.Ordinal)) continue; // an owner is no user
                var through = group && account == "first" && !need.StartsWith("domain-group", StringComparison.Ordinal)
                    && _random.Next(2) == 0;
                text.Append(CultureInfo.InvariantCulture, $"      - {{ {need}{(through ? ", through: users" : "")} }}\n");
            }
        }

        return text.ToString();
    }

    private string InstallText(RandomProduct? shares)
    {
        var hosts = _random.GetItems(Hosts, 1 + _random.Next(2)).Distinct();
        var store = Owning.GetValueOrDefault(_seed, _random.GetItems(Stores, 1)[0]);
        var text = $$"""
            install: 1
            name: {{Name}}
            product: {{Product}}
            release: "1.0"
            estate: fennmoor
            places: { server: [{{string.Join(", ", hosts)}}], store: {{store}}, teams: teams }

            """;
        return shares is null ? text : text + $"accounts: {{ first: {{ existing: {shares.FirstAccount} }} }}\n";
    }
}
