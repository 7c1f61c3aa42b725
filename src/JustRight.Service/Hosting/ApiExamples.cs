using System.Text.Json;
using System.Text.Json.Nodes;
using JustRight.Contracts;
using JustRight.Service.Data.Secrets;

namespace JustRight.Service.Hosting;

/// <summary>What may be sent, by an example of each. They are made of the types themselves, so that they fit them.</summary>
internal static class ApiExamples
{
    private const string Sheet = """
        sheet: 1
        product: millwheel
        release: "1.0"
        title: Millwheel
        source: Millwheel 1.0 handbook, page 12
        places:
          server: { kind: host, count: 1 }
        accounts:
          engine:
            purpose: runs the wheel
            works-as: service
            needs:
              - { logon: service, on: server, why: the service starts as this account }

        """;

    private const string Estate = """
        estate: 1
        name: creamery
        title: Fennmoor's creamery
        domain: { dns: fennmoor.example, short: FENNMOOR }
        directory: { reach: simulation }
        branches:
          service-accounts: OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example
        naming:
          accounts: svc-{product}-{account}
          groups: app-{product}-{group}
          accounts-in: service-accounts
          groups-in: service-accounts
        hosts:
          fm-temp01: {}

        """;

    private const string Install = """
        install: 1
        name: millwheel-creamery
        product: millwheel
        release: "1.0"
        estate: creamery
        stage: planned
        places:
          server: fm-temp01

        """;

    /// <summary>The documents, by the path that takes them.</summary>
    private static readonly Dictionary<string, DocumentOrder> Documents = new(StringComparer.Ordinal)
    {
        ["api/sheets"] = new("millwheel.yaml", Sheet),
        ["api/sheets/check"] = new("millwheel.yaml", Sheet),
        ["api/documents/{kind}/replacing"] = new("millwheel.yaml", Sheet),
        ["api/estates"] = new("creamery.yaml", Estate),
        ["api/estates/check"] = new("creamery.yaml", Estate),
        ["api/installs"] = new("millwheel-creamery.yaml", Install),
    };

    /// <summary>The bodies, by their types.</summary>
    private static readonly Dictionary<string, JsonNode?> Bodies = new object[]
    {
        new SignInCode("the code of the link"),
        new PersonSignInOrder("m.fenwick", "the person's password"),
        new TokenClaim("the code of the link", "m.fenwick's laptop"),
        new TokenOrder("nightly-reports", "reader", 90) { Person = "m.fenwick" },
        new SecretValue("the secret itself"),
        new SealOrder("-----BEGIN CERTIFICATE-----\n…\n-----END CERTIFICATE-----\n"),
        new LogAnchor("as `justright log anchor` wrote it"),
        new AdoptionOrder("millwheel-creamery", "millwheel", "fennmoor", [new AdoptedAccountOrder("svc-millwheel")]),
        new AdoptionAnswerOrder(["1f0c9a"], "needed", "the wheel stops without it"),
        new BackupOrder { Recipient = "-----BEGIN CERTIFICATE-----\n…\n-----END CERTIFICATE-----\n" },
        new ConfirmationOrder(
            "lookup", "first-administrator", true, "h.marsh", "the gateway refused the name that the book prints"),
        new ProtectionOrder("service-accounts", true),
        new UpgradeOrder(
            "thermograph@5.0", null, null, new Dictionary<string,
                IReadOnlyList<string>> { ["places.web-server"] = ["fm-temp02"] }),
        new StageOrder("installed"), new RehearsalOrder(true, false, ["leftover"]),
        new GrantOrder(false, ["5c1e07", "88ab42"]),
        new FixOrder("1-spot"),
        new ExceptionOrder("9d3b51", "replaced in spring", new DateOnly(2027, 3, 31), "h.marsh"),
        new ReviewOrder(3, "h.marsh", new DateOnly(2027, 6, 30), "looked at with the owner of the product"),
        new SignInTestOrder(null, "the person's password"),
        new FilterOrder("(&(objectClass=user)(department=Dairy))", "OU=People,OU=Fennmoor,DC=fennmoor,DC=example"),
        new StepWord("skip", "the host is being replaced"),
        new PlaceOrder("fm-temp01", "/srv/millwheel/wheel.ini", "wheel/secret", "the wheel stops", null),
        new PasswordTryOrder(null),
        new TraceOrder(
            "svc-roster-sync", null, null, "write attributes", ["telephoneNumber"], "user", "people", null, null, null),
        new AccessOrder([new("svc-roster-sync", "write attributes", ["telephoneNumber"], null, "m.northam", null)]),
        new WholeAccessOrder("svc-roster-sync", "m.northam"),
    }.ToDictionary(e => e.GetType().Name, e => Json(e), StringComparer.Ordinal);

    /// <summary>What stands in a path, by the segment before it.</summary>
    private static readonly Dictionary<string, string> InPaths = new(StringComparer.Ordinal)
    {
        ["estates"] = "fennmoor",
        ["installs"] = "thermograph-dataroom",
        ["sheets"] = "thermograph@4.2",
        ["hosts"] = "fm-temp01",
        ["instances"] = "fm-sql01",
        ["policies"] = "{7C2E5A10-5B0D-4C0B-8E52-1D2F6A9B3C01}",
        ["host-scripts"] = "collect",
        ["people-directories"] = "contractors",
        ["passwords"] = "svc-archive",
        ["secrets"] = "fennmoor-directory",
        ["adoptions"] = "millwheel-creamery",
        ["handovers"] = "thermograph-dataroom-database-fm-sql01",
        ["tokens"] = "nightly-reports",
    };

    /// <summary>A document to send to a path, or null for a path that takes none.</summary>
    public static DocumentOrder? Document(string path) => Documents.GetValueOrDefault(path);

    /// <summary>An example as JSON.</summary>
    public static JsonNode? Json(object example) =>
        JsonSerializer.SerializeToNode(example, ContractsJson.Default.GetTypeInfo(example.GetType())!);

    /// <summary>A body of a type; null when there is none.</summary>
    public static JsonNode? Body(string type) => Bodies.GetValueOrDefault(type)?.DeepClone();

    /// <summary>What may stand in a path where a parameter does, or null.</summary>
    public static JsonNode? InPath(string path, string parameter)
    {
        var parts = path.Split('/');
        return Array.IndexOf(parts, $"{{{parameter}}}") is > 0 and var at && InPaths.GetValueOrDefault(parts[at - 1]) is { } value
            ? JsonValue.Create(value) : null;
    }
}
