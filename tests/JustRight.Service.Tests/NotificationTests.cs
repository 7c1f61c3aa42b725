using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>The watch looks by itself, and tells of what got worse; what is due is reminded of. By real mail, and by a signed call.</summary>
public sealed partial class NotificationTests
{
    private const string Install = "curdhouse-books", Worse = "Event Log Readers", Key = "a key that nobody guesses";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task The_watch_tells_of_what_got_worse_once_and_is_quiet_when_nothing_did()
    {
        await using var scene = new NotificationScene();
        await using var service = await StartAsync(scene);
        for (var i = 0; i < 3; i++) await service.RunAsync("estates/fennmoor/schedule"); // two servers do not answer at first: what is found behind them is news
        var before = (await NotificationsAsync(service)).Count(n => n.Kind == "drift");
        for (var i = 0; i < 2; i++) await service.RunAsync("estates/fennmoor/schedule");
        (await NotificationsAsync(service)).Count(n => n.Kind == "drift").ShouldBe(before, "nothing changed");

        var simulation = Path.Combine(service.Data, "simulation", "fennmoor.json");
        var state = JsonNode.Parse(await File.ReadAllTextAsync(simulation, Cancel))!;
        state["hosts"]!.AsArray().Single(h => (string?)h!["name"] == "fm-book01")!["localGroups"]!.AsArray().Single(g => (string?)g!["name"] == "Event Log Readers")!["members"]!.AsArray().Add("svc-curd-labeller");
        await File.WriteAllTextAsync(simulation, state.ToJsonString(), Cancel);
        var look = await service.RunAsync("estates/fennmoor/schedule");
        look.StartedBy.ShouldBe("the schedule");

        var mail = await NotificationScene.FirstAsync(() => scene.MailsWith(Worse));
        mail.ShouldSatisfyAllConditions(
            m => m.ShouldContain("From: just-right@fennmoor.example"), m => m.ShouldContain("To: service-accounts@fennmoor.example"), m => m.ShouldContain("Auto-Submitted: auto-generated"),
            m => m.ShouldContain("svc-curd-labeller: Event Log Readers on fm-book01: new, and nothing asks for it"), m => m.ShouldContain($"justright drift {Install}"), m => m.ShouldContain("simulated"));
        var (headers, body) = await NotificationScene.FirstAsync(() => scene.CallsWith(Worse));
        Check(headers, body, scene.Webhook);
        JsonSerializer.Deserialize(body, ContractsJson.Default.WebhookNotification).ShouldNotBeNull().ShouldSatisfyAllConditions(n => n.Kind.ShouldBe("drift"), n => n.Subject.ShouldEndWith($"1 got worse at {Install}"));

        await service.RunAsync("estates/fennmoor/schedule"); // it is still so, and no news
        (await NotificationsAsync(service)).Count(n => n.Kind == "drift").ShouldBe(before + 1);
        (scene.MailsWith(Worse).Count(), scene.CallsWith(Worse).Count()).ShouldBe((1, 1));
        service.Output.ShouldNotContain(Key);
        var watch = await service.GetAsync("estates/fennmoor/schedule", ContractsJson.Default.ScheduleView);
        (watch.EveryHours, watch.LastWords, watch.Recipients.Count).ShouldBe((700, "fennmoor was surveyed", 2));
        watch.Next!.Value.ShouldBeInRange(DateTimeOffset.UtcNow, DateTimeOffset.UtcNow.AddHours(701));
    }

    [Fact]
    public async Task A_reminder_goes_out_once_and_a_mail_that_was_refused_is_sent_again()
    {
        await using var scene = new NotificationScene();
        await using var service = await StartAsync(scene);
        await service.RunAsync($"installs/{Install}/verify");
        scene.RefuseNext();
        using var first = await service.Http.PostAsync("/api/estates/fennmoor/reminders", null, Cancel);
        var reminders = (await first.Content.ReadFromJsonAsync(ContractsJson.Default.IReadOnlyListNotificationView, Cancel))!;
        var due = reminders.ShouldHaveSingleItem(); // the reader's password, within the time that the organization wants to be told
        due.Subject.ShouldStartWith("Fennmoor Dairy: svc-curd-cards: password due by ");
        using var second = await service.Http.PostAsync("/api/estates/fennmoor/reminders", null, Cancel);
        (await second.Content.ReadFromJsonAsync(ContractsJson.Default.IReadOnlyListNotificationView, Cancel))!.ShouldBeEmpty("it was reminded of");

        var (headers, body) = await NotificationScene.FirstAsync(() => scene.CallsWith("password due by"));
        Check(headers, body, scene.Webhook);
        (await NotificationScene.FirstAsync(() => scene.MailsWith("justright password renew"))).ShouldContain("svc-curd-cards");
        var sent = (await DeliveredAsync(service, 2)).Single(n => n.Id == due.Id).Deliveries.Single(d => d.Channel == "mail");
        (sent.State, sent.Tries).ShouldBe(("sent", 2));
    }

    [Fact]
    public async Task On_a_full_disk_nothing_is_sent_whose_try_cannot_be_kept_and_it_arrives_once_when_there_is_room()
    {
        await using var scene = new NotificationScene();
        await using var service = await ReadyAsync(await PreparedData.Demo.StartProcessAsync(MailOf(scene)), scene);
        await service.RunAsync($"installs/{Install}/verify");
        await service.StopAsync();
        await using var disk = await SmallDisk.UnderAsync(service);
        await service.RestartAsync(MailOf(scene));
        scene.RefuseNext();
        using var asked = await service.Http.PostAsync("/api/estates/fennmoor/reminders", null, Cancel);
        await DeliveredAsync(service, 1); // the call; the mail was refused, and is tried again
        await disk.FillAsync();
        await Waiting.UntilAsync("the delivery meets the full disk", async () =>
        {
            await FillDatabaseAsync(service);
            return service.Output.Contains("Delivery failed; it is tried again", StringComparison.Ordinal);
        });
        scene.Mails.ShouldBeEmpty("a try that cannot be kept is not made");

        disk.MakeRoom();
        await DeliveredAsync(service, 2);
        scene.MailsWith("justright password renew").ShouldHaveSingleItem();
    }

    [Fact]
    public async Task Without_a_mail_server_or_the_secret_it_is_said_and_kept()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await AddEstateAsync(service, "http://127.0.0.1:9/told/");
        await service.RunAsync($"installs/{Install}/verify");
        using var asked = await service.Http.PostAsync("/api/estates/fennmoor/reminders", null, Cancel);
        await Waiting.UntilAsync("all deliveries were tried", async () =>
            (await NotificationsAsync(service)) is { Count: > 0 } told && told.All(n => n.Deliveries.All(d => d.Error is not null)));
        var deliveries = (await NotificationsAsync(service)).ShouldHaveSingleItem().Deliveries;
        deliveries.Select(d => d.State).ShouldAllBe(s => s == "waiting");
        deliveries[0].Error.ShouldNotBeNull().ShouldContain("--JustRight:Mail:Host");
        deliveries[1].Error.ShouldNotBeNull().ShouldContain("justright secret set notices");
    }

    [Fact]
    public async Task A_webhook_that_a_planner_names_is_signed_with_no_secret_that_was_not_allowed_for_it()
    {
        await using var scene = new NotificationScene();
        await using var service = await StartAsync(scene); // which allows the secret for the address of the scene
        await AddEstateAsync(service, scene.Webhook + "elsewhere/");
        await service.RunAsync($"installs/{Install}/verify");
        using var asked = await service.Http.PostAsync("/api/estates/fennmoor/reminders", null, Cancel);
        await Waiting.UntilAsync("the delivery was tried", async () =>
            (await NotificationsAsync(service)).SelectMany(n => n.Deliveries).Any(d => d is { Channel: "webhook", Error: not null }));
        var delivery = (await NotificationsAsync(service)).SelectMany(n => n.Deliveries).First(d => d.Channel == "webhook");
        delivery.Error.ShouldNotBeNull().ShouldContain("'notices' is not allowed for this use, so nothing was sent");
        scene.Calls.ShouldBeEmpty();
    }

    /// <summary>Checks a call as its receiver would, from what came alone [RFC 9421, 3.2].</summary>
    private static void Check(WebHeaderCollection headers, byte[] body, string address)
    {
        headers["Content-Digest"].ShouldBe($"sha-256=:{Convert.ToBase64String(SHA256.HashData(body))}:");
        var how = Input().Match(headers["Signature-Input"]!);
        how.Success.ShouldBeTrue(headers["Signature-Input"]);
        var parts = how.Groups["parts"].Value.Split(' ').Select(p => p.Trim('"')).Select(p => $"\"{p}\": {p switch { "@method" => "POST", "@target-uri" => address, _ => headers[p] }}");
        var signed = string.Join('\n', [.. parts, $"\"@signature-params\": {how.Groups["params"].Value}"]);
        headers["Signature"].ShouldBe($"{how.Groups["label"].Value}=:{Convert.ToBase64String(HMACSHA256.HashData(Encoding.UTF8.GetBytes(Key), Encoding.UTF8.GetBytes(signed)))}:");
        how.Groups["key"].Value.ShouldBe("notices");
        DateTimeOffset.FromUnixTimeSeconds(long.Parse(how.Groups["created"].Value, System.Globalization.CultureInfo.InvariantCulture)).ShouldBe(DateTimeOffset.UtcNow, TimeSpan.FromMinutes(2));
    }

    [GeneratedRegex("""^(?<label>\w+)=(?<params>\((?<parts>[^)]*)\);created=(?<created>\d+);keyid="(?<key>[^"]*)";alg="hmac-sha256")$""")]
    private static partial Regex Input();

    private static async Task<TestedService> StartAsync(NotificationScene scene) =>
        await ReadyAsync(await PreparedData.Demo.StartAsync(MailOf(scene)), scene);

    private static async Task<TestedService> ReadyAsync(TestedService service, NotificationScene scene)
    {
        await AddEstateAsync(service, scene.Webhook);
        await service.SetSecretAsync("notices", Key);
        await service.AllowAsync("notices");
        return service;
    }

    private static string[] MailOf(NotificationScene scene) =>
    [
        "--JustRight:Mail:Host", "127.0.0.1", "--JustRight:Mail:Port", $"{scene.MailPort}",
        "--JustRight:Mail:From", "just-right@fennmoor.example",
    ];

    /// <summary>Takes what room is left within the database's own files.</summary>
    private static async Task FillDatabaseAsync(TestedService service)
    {
        var secret = new SecretValue(new string('x', 900));
        using var set = await service.Http.PutAsJsonAsync(
            $"/api/secrets/filler-{Guid.NewGuid():N}", secret, ContractsJson.Default.SecretValue, Cancel);
    }

    private static async Task AddEstateAsync(TestedService service, string webhook)
    {
        var text = await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"));
        text = text.Replace("notices: { mail: service-accounts@fennmoor.example }", $"notices: {{ mail: service-accounts@fennmoor.example, webhook: \"{webhook}\", webhook-secret: notices }}\n  watch: {{ every-hours: 700 }}", StringComparison.Ordinal);
        (await service.AddAsync("estates", "fennmoor.yaml", Encoding.UTF8.GetBytes(text))).EnsureSuccessStatusCode();
    }

    private static Task<IReadOnlyList<NotificationView>> NotificationsAsync(TestedService service) => service.NotificationsAsync("fennmoor");

    /// <summary>The notices, once as many deliveries as that arrived.</summary>
    private static Task<IReadOnlyList<NotificationView>> DeliveredAsync(TestedService service, int count) => Waiting.ForAsync($"{count} arrived", async () =>
        await NotificationsAsync(service) is var notices && notices.SelectMany(n => n.Deliveries).Count(d => d.State == "sent") >= count ? notices : null);
}
