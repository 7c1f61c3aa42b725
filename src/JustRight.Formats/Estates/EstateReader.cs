using System.Globalization;
using JustRight.Core.Conditions;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;
using JustRight.Formats.Shapes;
using JustRight.Formats.Sheets;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Estates;

/// <summary>Reads estates from YAML.</summary>
public static class EstateReader
{
    /// <summary>The published JSON Schema.</summary>
    public static string JsonSchema() => JsonSchemaWriter.Write(EstateShape.Root, "Just Right estate, version 1");

    /// <summary>Reads and checks an estate; null with every fault when it is not sound.</summary>
    /// <param name="stored">
    /// Whether it was stored by an earlier release: its words are read on, and what this release does not know is left aside, and
    /// named in the faults beside what was read.
    /// </param>
    public static (Estate? Estate, IReadOnlyList<Fault> Faults) Read(ReadOnlySpan<byte> bytes, string file, bool stored = false)
    {
        var faults = new List<Fault>();
        var remarks = new List<Fault>();
        if (DocumentReader.Read(bytes, file, EstateShape.Root, stored ? remarks : null, faults) is not { } root)
            return (null, faults);
        var estate = Bind(root, faults);
        if (faults.Count == 0) faults.AddRange(EstateRules.Check(estate));
        return faults.Count == 0 ? (estate, remarks) : (null, faults);
    }

    private static Estate Bind(YamlNode.Mapping root, List<Fault> faults)
    {
        var directory = (YamlNode.Mapping)root["directory"]!;
        var naming = (YamlNode.Mapping)root["naming"]!;
        var rules = root["rules"] as YamlNode.Mapping ?? new YamlNode.Mapping([], root.At);
        var reach = ReachOf(directory.Text("reach"));
        var placeReach = reach == Reach.Simulation ? "simulation" : "none";
        return new Estate(
            root.Text("name"),
            root.Text("title"),
            DomainOf(root),
            new DirectoryReach(
                reach, directory.TextOrNull("controller"), directory.NumberOrNull("port")
                    ?? 636, directory.TextOrNull("ca-folder"),
                directory.TextOrNull("sign-in-as"), directory.TextOrNull("secret"), directory.At)
            {
                MoreControllers = directory.List("more-controllers"),
                PolicyFolder = directory.TextOrNull("policy-folder"),
            },
            [.. root.Texts("branches").Select(b => BranchOf(b, faults)).OfType<Branch>()],
            new Naming(
                naming.Text("accounts"), naming.Text("groups"), naming.TextOr(
                    "description", "{purpose} ({title} {release}, install {install})"),
                naming.Text("accounts-in"), naming.Text("groups-in"), naming.Texts("short-names")
                    .ToDictionary(s => s.Key.Text, s => s.Value.Text),
                naming.Entries.ToDictionary(e => e.Key.Text, e => e.Value.At), naming.At)
            {
                BindAccountsIn = naming.TextOr("bind-accounts-in", naming.Text("accounts-in")),
            },
            [.. root.Named("hosts").Select(h =>
                Host(h.Key, h.Value, root["host-access"] as YamlNode.Mapping ?? Empty(root), placeReach))],
            [.. root.Named("instances").Select(i =>
                Instance(i.Key, i.Value, root["instance-access"] as YamlNode.Mapping ?? Empty(root), placeReach))],
            new OrganizationRules(
                [.. rules.Maps("forbidden").Select((b, i) => ForbiddenEntry.Read(b, $"rules.forbidden[{i}]", faults))],
                rules.NumberOrNull("survey-no-older-than-hours") is { } hours ? TimeSpan.FromHours(hours) : null,
                [.. rules.Maps("allowed-sharing").Select(a =>
                    new AllowedSharing(a.Text("install"), a.List("accounts"), a.Text("why"), a.At))])
            {
                Passwords = rules["passwords"] is YamlNode.Mapping passwords ? PasswordsOf(passwords) : PasswordRules.Usual,
                TimeZone = ZoneOf(rules, faults),
                TwoPersonApproval = rules.YesNo("two-person-approval"),
                Reviews = rules["reviews"] is YamlNode.Mapping reviews ? ReviewsOf(reviews) : ReviewRules.Usual,
                Retire = rules["retire"] is YamlNode.Mapping retire
                    ? new RetireRules(TimeSpan.FromDays(retire.NumberOrNull("remove-after-days")!.Value))
                    : RetireRules.Usual,
                NewOwners = NewOwnersOf(root, rules, faults),
                KeptOut = [.. rules.Maps("kept-out").Select(KeptOutOf)],
                Schedule = rules["watch"] is YamlNode.Mapping watch
                    ? new ScheduleRules(TimeSpan.FromHours(watch.NumberOrNull("every-hours")!.Value))
                    : null,
                Notifications = rules["notices"] is YamlNode.Mapping notices
                    ? NotificationsOf(notices, faults)
                    : NotificationRules.Nobody,
                HostFactsNoOlderThan = rules.NumberOrNull("host-facts-no-older-than-hours") is { } most
                    ? TimeSpan.FromHours(most)
                    : null,
            },
            root.At)
        {
            Rehearses = root.TextOrNull("rehearses"),
            PeopleDirectories = [.. root.Named("people-directories").Select(d =>
                PeopleDirectories.Read(d.Key, d.Value, DomainOf(root).Root, placeReach, faults)).OfType<PeopleDirectory>()],
            HostsSideBySide = root["host-access"] is YamlNode.Mapping shared ? shared.NumberOrNull("side-by-side") ?? 16 : 16,
        };
    }

    private static Domain DomainOf(YamlNode.Mapping root) =>
        new(((YamlNode.Mapping)root["domain"]!).Text("dns"), ((YamlNode.Mapping)root["domain"]!).Text("short"));

    private static Branch? BranchOf((YamlNode.Scalar Key, YamlNode.Scalar Value) entry, List<Fault> faults)
    {
        if (DistinguishedName.TryParse(entry.Value.Text, out var name)) return new Branch(entry.Key.Text, name, entry.Value.At);
        faults.Add(new Fault(
            "not-a-dn", entry.Value.At, $"branches.{entry.Key.Text}",
            "This is not a distinguished name.")
        {
            Found = $"'{entry.Value.Text}'",
            Expected = "a name such as OU=Service Accounts,DC=fennmoor,DC=example",
        });
        return null;
    }

    private static KeptOutRule KeptOutOf(YamlNode.Mapping map) => new(
        [.. map.List("from").Distinct()],
        map["works-as"] is null ? KeptOutRule.Usual : [.. map.List("works-as").Distinct().Select(WorksAsWords.Read)],
        map.TextOrNull("through"), map.Text("why"), map.At);

    private static PasswordRules PasswordsOf(YamlNode.Mapping map) => new(
        map.NumberOrNull("renew-every-days") is { } every ? TimeSpan.FromDays(every) : null,
        TimeSpan.FromDays(map.NumberOrNull("warn-days") ?? (int)PasswordRules.Usual.Warn.TotalDays),
        map.NumberOrNull("least-length") ?? PasswordRules.Usual.LeastLength);

    private static Dictionary<string, string> NewOwnersOf(YamlNode.Mapping root, YamlNode.Mapping rules, List<Fault> faults)
    {
        var instances = root.Named("instances").Select(i => i.Key.Text).ToList();
        var owners = rules.Texts("new-owners");
        foreach (var (instance, owner) in owners.Where(o => !instances.Contains(o.Key.Text, StringComparer.Ordinal)))
            faults.Add(new Fault(
                "unknown-instance", instance.At, $"rules.new-owners.{instance.Text}",
                    $"The estate has no instance {instance.Text}.")
            {
                Expected = string.Join(", ", instances),
                Nearest = Spelling.Nearest(instance.Text, instances),
            });
        return owners.ToDictionary(o => o.Key.Text, o => o.Value.Text, StringComparer.OrdinalIgnoreCase);
    }

    private static ReviewRules ReviewsOf(YamlNode.Mapping map) => new(
        map.NumberOrNull("every-days") is { } every
            ? TimeSpan.FromDays(every)
            : null, TimeSpan.FromDays(map.NumberOrNull("warn-days") ?? (int)ReviewRules.Usual.Warn.TotalDays));

    /// <summary>What is sent beyond this machine must be signed, and not be readable on its way.</summary>
    private static NotificationRules NotificationsOf(YamlNode.Mapping map, List<Fault> faults)
    {
        var webhook = map.TextOrNull("webhook") is { } text && Uri.TryCreate(text, UriKind.Absolute, out var address)
            ? address
            : null;
        if (map["webhook"] is { } at)
        {
            if (webhook is null || webhook.UserInfo.Length > 0)
                faults.Add(new Fault(
                    "wrong-value", at.At, "rules.notices.webhook",
                    "This is not a valid address.")
                {
                    Found = $"'{map.TextOrNull("webhook")}'",
                    Expected = "an address such as https://notifications.fennmoor.example/just-right, without a name or password in it",
                });
            else if (webhook.Scheme != Uri.UriSchemeHttps && !webhook.IsLoopback)
                faults.Add(new Fault(
                    "wrong-value", at.At, "rules.notices.webhook",
                    "Notifications would cross the network unencrypted.")
                { Found = webhook.Scheme, Expected = "https" });
            if (map.TextOrNull("webhook-secret") is null)
                faults.Add(new Fault(
                    "missing-key", map.At, "rules.notices.webhook-secret",
                    "Webhook calls are signed: name the secret for the signature.")
                {
                    Expected = "webhook-secret: NAME, with the secret under that name: justright secret set NAME",
                });
        }

        return new NotificationRules(map.List("mail"), webhook, map.TextOrNull("webhook-secret"))
        {
            Least = DriftSeverityWords.Of(map.TextOr("least", DriftSeverityWords.All[^1])),
            Digest = map.TextOrNull("digest") is { } digest
                ? TimeOnly.ParseExact(digest, "HH:mm", CultureInfo.InvariantCulture)
                : null,
            Rest = map.TextOrNull("rest") is { } rest ? RestOf(rest, map["rest"]!.At, faults) : null,
        };
    }

    /// <summary>The same time twice is the whole day, in which nobody would ever be told anything.</summary>
    private static DailyWindow? RestOf(string text, Origin at, List<Fault> faults)
    {
        var rest = DailyWindow.Parse(text);
        if (rest.From != rest.To) return rest;
        faults.Add(new Fault(
            "wrong-value", at, "rules.notices.rest", "This is the whole day: nobody would ever be told anything.")
        {
            Found = text,
            Expected = "two different times such as 20:00-06:30",
        });
        return null;
    }

    private static TimeZoneInfo ZoneOf(YamlNode.Mapping rules, List<Fault> faults)
    {
        if (rules.TextOrNull("time-zone") is not { } text) return TimeZoneInfo.Utc;
        if (TimeZoneInfo.TryFindSystemTimeZoneById(text, out var zone)) return zone;
        faults.Add(new Fault("wrong-value", rules["time-zone"]!.At, "rules.time-zone", "There is no such time zone.")
        {
            Found = $"'{text}'",
            Expected = "a name of the time zone database, such as Europe/London",
            Nearest = Spelling.Nearest(text, TimeZoneInfo.GetSystemTimeZones().Select(z => z.Id)),
        });
        return TimeZoneInfo.Utc;
    }

    private static YamlNode.Mapping Empty(YamlNode.Mapping root) => new([], root.At);

    /// <summary>What a host does not say of its own, the estate's <c>host-access</c> says for all.</summary>
    private static EstateHost Host(YamlNode.Scalar key, YamlNode.Mapping map, YamlNode.Mapping access, string placeReach)
    {
        var host = new EstateHost(key.Text, ReachOf(map.TextOr("reach", placeReach)), key.At)
        {
            Restarts = map.TextOrNull("restarts") is { } window ? DailyWindow.Parse(window) : null,
        };
        return host.Reach != Reach.Ssh ? host : host with
        {
            Ssh = new SshReach(
                map.TextOr("address", key.Text), map.NumberOrNull("port") ?? access.NumberOrNull("port")
                    ?? 22, map.TextOr("host-key", ""), map.TextOrNull("sign-in-as") ?? access.TextOr("sign-in-as", ""),
                map.TextOrNull("secret")
                    ?? access.TextOr("secret", ""), TimeSpan.FromSeconds(access.NumberOrNull("timeout-seconds") ?? 120)),
        };
    }

    /// <summary>What an instance does not say of its own, the estate's <c>instance-access</c> says for all.</summary>
    private static EstateInstance Instance(YamlNode.Scalar key, YamlNode.Mapping map, YamlNode.Mapping access, string placeReach)
    {
        var instance = new EstateInstance(
            key.Text, map.Text("host"), map.Text("engine"), DottedNumber.TryParse(map.TextOrNull("release"), out var release)
                ? release
                : null, ReachOf(map.TextOr("reach", placeReach)), key.At)
        {
            Partner = map.TextOrNull("partner"),
            OtherNames = map.List("other-names"),
        };
        return instance.Reach != Reach.Tls ? instance : instance with
        {
            Tls = new InstanceReach(
                map.TextOr("address", instance.Host), map.NumberOrNull("port")
                    ?? EstateInstance.UsualPort(instance.Engine), map.TextOrNull("certificate"),
                map.TextOrNull("sign-in-as") ?? access.TextOr("sign-in-as", ""), map.TextOrNull("secret")
                    ?? access.TextOr("secret", ""), TimeSpan.FromSeconds(access.NumberOrNull("timeout-seconds") ?? 60)),
        };
    }

    private static Reach ReachOf(string word) => word switch
    {
        "simulation" => Reach.Simulation,
        "ldaps" => Reach.Ldaps,
        "file" => Reach.File,
        "ssh" => Reach.Ssh,
        "handed-over" => Reach.HandedOver,
        "tls" => Reach.Tls,
        _ => Reach.None,
    };
}
