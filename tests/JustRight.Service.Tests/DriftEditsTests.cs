using System.Text.Json.Nodes;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// What people do behind our back, one thing at a time, and what is said of it: to who asks for the drift, and in the
/// notification.
/// Taken back, it is said to be better, or that it is as before; and nothing is said twice.
/// </summary>
public sealed class DriftEditsTests
{
    private const string Install = "curdhouse-books";

    private static readonly (string What, Action<JsonObject> Edit, string Way, string Says)[] Edits =
    [
        ("somebody is put into a local group", s => Group(s, "fm-book01", "Event Log Readers").Add("svc-curd-labeller"),
            "worse", "svc-curd-labeller: Event Log Readers on fm-book01: new, and nothing asks for it"),
        ("a log-on right is taken", s => Take(List(s, "fm-book02", "SeServiceLogonRight"), "svc-curd-book"),
            "worse", "svc-curd-book: log on as a service on fm-book02: no longer so: "),
        ("a log-on right is denied", s =>
            Host(s, "fm-book01")["logonRights"]!["SeDenyServiceLogonRight"] = new JsonArray("svc-curd-book"),
            "worse", "svc-curd-book: log on as a service on fm-book01: no longer so: denied by a direct entry"),
        ("a service runs as another account", s => Service(s, "fm-book01", "CurdBook")["account"] = @"FENNMOOR\svc-curd-labeller",
            "worse", "svc-curd-book: CurdBook runs as it on fm-book01: no longer so: "),
        ("a service is disabled", s => Service(s, "fm-book01", "CurdLabels")["start"] = "disabled",
            "worse", "svc-curd-labeller: CurdLabels starts automatic on fm-book01: no longer so: "),
        ("an account is disabled", s => Principal(s, "svc-curd-book")["state"] = 16 + 1,
            "worse", "svc-curd-book: usable on FENNMOOR: no longer so: "),
        ("an account is locked", s => Principal(s, "svc-curd-labeller")["state"] = 16 + 4,
            "worse", "svc-curd-labeller: usable on FENNMOOR: no longer so: "),
        ("an account is moved", s =>
            Principal(s,
            "svc-curd-book")["dn"] = "CN=svc-curd-book,OU=Sign-in,OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example",
            "other",
            "svc-curd-book: moved from CN=svc-curd-book,OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example "
            + "to CN=svc-curd-book,OU=Sign-in,"),
        ("a password is changed", s => Principal(s, "svc-curd-cards")["passwordSetAt"] = "2026-11-30T22:15:00Z",
            "worse", "svc-curd-cards: its password was set at 2026-11-30 22:15 UTC, and not from here: "),
        ("a member is taken from a database role", s =>
            Take(Database(s, "CurdRecipes")["roles"]!["db_datareader"]!.AsArray(), "svc-curd-labeller"),
            "worse", "svc-curd-labeller: db_datareader on fm-sql03/CurdRecipes: no longer so: "),
        ("a server role is given", s => Instance(s, "fm-sql03")["roles"]!["sysadmin"]!.AsArray().Add("svc-curd-book"),
            "worse", "svc-curd-book: sysadmin on fm-sql03: new, and nothing asks for it"),
        ("an account is put into a forbidden group", s => Principal(s, "Domain Admins")["members"]!.AsArray()
            .Add("svc-curd-cards"),
            "worse", "svc-curd-cards: Domain Admins on FENNMOOR: new, and forbidden"),
        ("a login is dropped", s => Take(Instance(s, "fm-sql03")["logins"]!.AsArray(), "svc-curd-labeller"),
            "worse", "svc-curd-labeller: db_datareader on fm-sql03/CurdRecipes: no longer so: "),
        ("a database changes hands", s => Database(s, "CurdRecipes")["owner"] = "svc-curd-book",
            "better", "svc-curd-book: owner on fm-sql03/CurdRecipes: as needed now"),
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_is_done_behind_our_back_is_said_once_in_words_of_the_trade()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        for (var i = 0; i < 4; i++) await service.RunAsync("estates/fennmoor/survey"); // two servers do not answer at first
        var file = Path.Combine(service.Data, "simulation", "fennmoor.json");
        var untouched = await File.ReadAllTextAsync(file, Cancel);
        foreach (var (what, edit, way, says) in Edits)
        {
            var state = JsonNode.Parse(untouched)!.AsObject();
            edit(state);
            var told = (await NotificationsAsync(service)).Count;
            await File.WriteAllTextAsync(file, state.ToJsonString(), Cancel);
            await service.RunAsync("estates/fennmoor/survey");
            var lines = await LinesAsync(service);
            lines.ShouldContain(l => l.Way == way && l.Words.StartsWith(says, StringComparison.Ordinal) && l.MadeHere == null,
                $"{what}: {Words(lines)}");
            var notices = await NotificationsAsync(service);
            notices.Count.ShouldBe(told + (lines.Any(l => l.Way == "worse") ? 1 : 0), what);
            if (way == "worse") notices[0].Text.ShouldContain(says, customMessage: what);

            await service.RunAsync("estates/fennmoor/survey"); // it is still so, and no news
            (await LinesAsync(service)).ShouldBe(lines, what);
            await File.WriteAllTextAsync(file, untouched, Cancel);
            await service.RunAsync("estates/fennmoor/survey");
            var back = await LinesAsync(service);
            back.ShouldNotBeEmpty(what);
            back.ShouldNotBe(lines, what);
        }
    }

    private static string Words(IReadOnlyList<DriftLineView> lines) =>
        string.Join("\n", lines.Select(l => $"{l.Way}: {l.Words}"));

    private static async Task<IReadOnlyList<DriftLineView>> LinesAsync(TestedService service) =>
        (await service.GetAsync($"installs/{Install}/drift", ContractsJson.Default.DriftView)).Lines;

    private static Task<IReadOnlyList<NotificationView>> NotificationsAsync(TestedService service) =>
        service.NotificationsAsync("fennmoor");

    private static JsonObject Host(JsonObject state, string host) => state["hosts"].Named(host);

    private static JsonArray Group(JsonObject state, string host, string group) =>
        Host(state, host)["localGroups"].Named(group)["members"]!.AsArray();

    private static JsonArray List(JsonObject state, string host, string constant) =>
        Host(state, host)["logonRights"]![constant]!.AsArray();

    private static JsonObject Service(JsonObject state, string host, string service) =>
        Host(state, host)["services"].Named(service);

    private static JsonObject Principal(JsonObject state, string name) => state["principals"].Named(name);

    private static JsonObject Instance(JsonObject state, string name) => state["instances"].Named(name);

    private static JsonObject Database(JsonObject state, string name) => Instance(state, "fm-sql03")["databases"].Named(name);

    private static void Take(JsonArray list, string name) => list.Remove(list.Single(n => (string?)n == name));
}
