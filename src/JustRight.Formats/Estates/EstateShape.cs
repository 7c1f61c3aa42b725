using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Sheets;
using JustRight.Formats.Shapes;
using JustRight.Formats.Sheets;

namespace JustRight.Formats.Estates;

/// <summary>The shape of an estate, version 1.</summary>
internal static class EstateShape
{
    /// <summary>The whole file.</summary>
    public static readonly Shape.Map Root = new(
        "The administrator's own surroundings",
        [
            new("estate", new Shape.Number("the version of the estate language", 1, 1), true),
            new("name", Words.Key("the estate, as one word"), true),
            new("title", new Shape.Text("the estate's name in full"), true),
            new("rehearses", Words.Key("for a rehearsal, which justright estate rehearse makes: the estate that it is a copy of")),
            new("domain", new Shape.Map("the domain", [
                new(
                    "dns",
                    new Shape.Text("its DNS name", "[A-Za-z0-9-]+(\\.[A-Za-z0-9-]+)+", "a DNS name such as fennmoor.example"),
                    true),
                new(
                    "short", new Shape.Text("its short name", "[A-Za-z0-9-]{1,15}", "a short name of at most 15 characters"),
                    true),
            ]), true),
            new("directory", new Shape.Map("how the directory is reached", [
                new("reach", new Shape.Text("how", null, null, ["simulation", "ldaps", "file", "none"]), true),
                new(
                    "controller",
                    new Shape.Text("the domain controller's host name, as in its certificate; used for reading and writing")),
                new(
                    "more-controllers",
                    new Shape.List(
                        "further domain controllers, used in this order when the first does not answer",
                        new Shape.Text("a controller", "[A-Za-z0-9.-]{1,255}(:[0-9]{1,5})?", "a host name, or host:port"))),
                new("port", new Shape.Number("TCP port; 636 by default", 1, 65535)),
                new("ca-folder", new Shape.Text("a folder with the certificates of the authorities to trust")),
                new("sign-in-as", new Shape.Text("the account to bind as")),
                new("secret", Words.Key("the secret with its password")),
                new(
                    "policy-folder",
                    new Shape.Text("a folder with a copy of the folder Policies from the domain controllers' file share")),
            ]), true),
            new(
                "branches", Words.Named("OUs and other containers, by a key of your own", new Shape.Text("a distinguished name")),
                true),
            new("naming", new Shape.Map("how the organization names things", [
                new("accounts", new Shape.Text("pattern for accounts, with {product} and {account}"), true),
                new("groups", new Shape.Text("pattern for groups, with {product} and {group}"), true),
                new(
                    "description",
                    new Shape.Text("pattern for descriptions, with {purpose} {title} {product} {release} {install}")),
                new("accounts-in", new Shape.Text(OfBranch("accounts")), true),
                new("bind-accounts-in", new Shape.Text($"{OfBranch("bind accounts")}; accounts-in by default")),
                new("groups-in", new Shape.Text(OfBranch("groups")), true),
                new("short-names", Words.Named("shorter names for products, for use in names", Words.Key("a short name"))),
            ]), true),
            new("hosts", new Shape.Named("the hosts", Words.HostPattern, Words.HostSays, new Shape.Map("a host", [
                new("reach", new Shape.Text("how it is reached", null, null, ["simulation", "ssh", "handed-over", "none"])),
                new(
                    "restarts",
                    new Shape.Text(
                        "the daily restart window of its services; any time by default", DailyWindow.Pattern,
                        "two times of day such as 22:00-04:30")),
                new("address", new Shape.Text("for SSH: the name or address to connect to, unless it is the host's name")),
                new("port", new Shape.Number("for SSH: its TCP port; 22 by default", 1, 65535)),
                new(
                    "host-key",
                    new Shape.Text(
                        "for SSH: the fingerprint of its host key", "SHA256:[A-Za-z0-9+/]{43}",
                        "a fingerprint such as SHA256: and 43 characters")),
                new("sign-in-as", new Shape.Text("for SSH: the account to sign in as")),
                new("secret", Words.Key("for SSH: the secret with its private key or its password")),
            ]))),
            new("host-access", new Shape.Map("settings of all hosts over SSH", [
                new("port", new Shape.Number("TCP port; 22 by default", 1, 65535)),
                new("sign-in-as", new Shape.Text("the account to sign in as")),
                new("secret", Words.Key("the secret with its private key or its password")),
                new("timeout-seconds", new Shape.Number("the time limit of a script, in seconds; 120 by default", 1, 3600)),
                new("side-by-side", new Shape.Number("how many hosts are read at the same time; 16 by default", 1, 64)),
            ])),
            new("instances", new Shape.Named("the database instances", Words.HostPattern, Words.HostSays, new Shape.Map("an instance", [
                new("host", new Shape.Text("the host it runs on"), true),
                new("engine", new Shape.Text("the family of database server", null, null, ["sqlserver", "postgresql"]), true),
                new("release", Words.Release("its release")),
                new(
                    "other-names",
                    new Shape.List(
                        "what it is called elsewhere: by instance, by port, by the name of its cluster or listener",
                        new Shape.Text(
                            "a name", "[A-Za-z0-9][A-Za-z0-9._\\\\:,-]{0,127}", "such as sql-prod, fm-sql01\\CURING or fm-sql01,14330"))),
                new("partner", new Shape.Text("its failover partner; naming it on one of the two is enough")),
                new("reach", new Shape.Text("how it is reached", null, null, ["simulation", "tls", "none"])),
                new("address", new Shape.Text("for TLS: the name or address to connect to, unless it is the host's name")),
                new("port", new Shape.Number("for TLS: its TCP port; 1433 or 5432 by default", 1, 65535)),
                new(
                    "certificate",
                    new Shape.Text("for TLS: a PEM file with its exact certificate (SQL Server family) or the authority to trust (PostgreSQL family); without it, what the system trusts")),
                new("sign-in-as", new Shape.Text("for TLS: the login of its own to sign in as")),
                new("secret", Words.Key("for TLS: the secret with its password")),
            ]))),
            new("instance-access", new Shape.Map("what all instances reached over TLS share", [
                new("sign-in-as", new Shape.Text("the login to sign in as")),
                new("secret", Words.Key("the secret with its password")),
                new("timeout-seconds", new Shape.Number("how long one query may take, 60 unless said otherwise", 1, 3600)),
            ])),
            new("people-directories", PeopleDirectories.Section),
            new("rules", new Shape.Map("the organization's own rules", [
                new("forbidden", new Shape.List("what no service account may hold", ForbiddenEntry.ShapeOf(true))),
                new("time-zone", new Shape.Text("the organization's time zone, for times of day: UTC unless said otherwise")),
                new("passwords", new Shape.Map("what holds for passwords that we change", [
                    new(
                        "renew-every-days",
                        new Shape.Number("after how many days a password is due, whatever the directory says", 1, 3650)),
                    new(
                        "warn-days",
                        new Shape.Number("how many days before that it is spoken of, 30 unless said otherwise", 0, 365)),
                    new(
                        "least-length",
                        new Shape.Number(
                            "how long a new one is at least, 32 unless said otherwise; where the directory asks for more, more",
                            14, 120)),
                ])),
                new(
                    "two-person-approval",
                    new Shape.YesNo("whether what changes the estate is proposed by one person and carried out only after another approved it")),
                new("reviews", new Shape.Map("what holds for reviews", [
                    new(
                        "every-days",
                        new Shape.Number(
                            "after how many days an install is reviewed again, unless its last review says when", 1, 3650)),
                    new(
                        "warn-days",
                        new Shape.Number(
                            "how many days before a review, or the end of an exception, it is spoken of, 21 unless said otherwise",
                            0, 365)),
                ])),
                new("retire", new Shape.Map("what holds for accounts and groups of installs that are retired", [
                    new(
                        "remove-after-days",
                        new Shape.Number(
                            "how many days a disabled account waits before it may be removed for good, 30 unless said otherwise",
                            1, 3650),
                        true),
                ])),
                new(
                    "new-owners",
                    Words.Named(
                        "who owns a database after an account that shall not, by instance",
                        new Shape.Text(
                            "a login of the instance, such as sa or FENNMOOR\\svc-dba; of the PostgreSQL family, a role"))),
                new("kept-out", new Shape.List("log-ons that accounts are kept from, on every host of an install", new Shape.Map("a rule", [
                    new(
                        "from",
                        new Shape.List(
                            "the types of log-on", new Shape.Text("a type of log-on", null, null, LogonKind.All), OneWillDo: true),
                        true),
                    new(
                        "works-as",
                        new Shape.List(
                            "the accounts it is about, by how they are used; service, job, pool and bind unless said otherwise",
                            new Shape.Text("a use", null, null, WorksAsWords.All), OneWillDo: true)),
                    new(
                        "through",
                        new Shape.Text(
                            "the domain group, which is there, through which they are denied; each by itself unless this stands")),
                    new("why", new Shape.Text("the reason"), true),
                ]))),
                new("watch", new Shape.Map("how often the estate is looked at without anybody asking; never, unless this stands", [
                    new("every-hours", new Shape.Number("the hours from one look to the next", 1, 744), true),
                ])),
                new("notices", new Shape.Map("who is told of what is due and of what got worse", [
                    new(
                        "mail",
                        new Shape.List(
                            "addresses", new Shape.Text("an address", "[^@\\s<>,;]+@[^@\\s<>,;]+", "a mail address"),
                            OneWillDo: true)),
                    new(
                        "webhook",
                        new Shape.Text(
                            "an address that is called with each notice", "https?://\\S+",
                            "an address that starts with https:// (or http:// for loopback)")),
                    new(
                        "webhook-secret",
                        Words.Key("the name of the secret, kept by the service, that signs what is sent there")),
                    new(
                        "least",
                        new Shape.Text(
                            "what is told of what got worse: this and what weighs more; excess unless said otherwise", null, null,
                            DriftSeverityWords.All)),
                    new(
                        "rest",
                        new Shape.Text(
                            "hours in which nobody is told anything, by the organization's clock",
                            DailyWindow.Pattern, "hours such as 20:00-06:30")),
                    new(
                        "digest",
                        new Shape.Text(
                            "when mail goes out, once a day, by the organization's clock; at once unless said otherwise",
                            "([01][0-9]|2[0-3]):[0-5][0-9]", "a time of day such as 07:00")),
                ])),
                new(
                    "survey-no-older-than-hours",
                    new Shape.Number("the age beyond which a survey proves nothing, in hours", 1, 8760)),
                new(
                    "host-facts-no-older-than-hours",
                    new Shape.Number(
                        "the age beyond which what was read of a host proves nothing, in hours; that of surveys unless said otherwise",
                        1, 8760)),
                new("allowed-sharing", new Shape.List("accounts that a sheet separates and the organization lets be one", new Shape.Map("an allowed sharing", [
                    new("install", new Shape.Text("the install"), true),
                    new("accounts", new Shape.List("the accounts", new Shape.Text("an account")), true),
                    new("why", new Shape.Text("the reason, which every report repeats"), true),
                ]))),
            ])),
        ]);
    private static string OfBranch(string what) => $"key of the branch for {what}, or an OU that each product has to itself, with {{product}}";
}
