using JustRight.Core.Hosts;
using JustRight.Formats.Shapes;

namespace JustRight.Formats.Hosts;

/// <summary>The shape of host facts, version 1.</summary>
internal static class HostFactsShape
{
    private const string SidPattern = "S-1-[0-9]+(-[0-9]+){1,15}";
    private const string TimePattern = "[0-9]{4}-[0-9]{2}-[0-9]{2}T[0-9]{2}:[0-9]{2}:[0-9]{2}(\\.[0-9]{1,9})?(Z|[+-][0-9]{2}:[0-9]{2})";
    private const string PolicyPattern = "\\{[0-9A-Fa-f]{8}(-[0-9A-Fa-f]{4}){3}-[0-9A-Fa-f]{12}\\}";

    private static readonly Shape.List Entries = new("its members: *SID, or a name", new Shape.Text("*SID, or a name"));

    /// <summary>The whole file.</summary>
    public static readonly Shape.Map Root = new(
        "Facts of one host",
        [
            new("host-facts", new Shape.Number("the version of the format", 1, 1), true),
            new("read-at", Time("when it was read"), true),
            new("read-by", new Shape.Text("who read it, by the host's name for the reader")),
            new("host", new Shape.Map("the host", [
                new("name", new Shape.Text("its short name", Words.HostPattern, Words.HostSays), true),
                new("domain", new Shape.Text("the DNS name of its domain")),
                new("role", new Shape.Text("its role in the domain", null, null, ["member", "controller", "standalone"]), true),
                new("system", new Shape.Text("its operating system and release")),
                new("started-at", Time("when it last started")),
            ]), true),
            new("local-groups", new Shape.List("its local groups; absent on a controller, which has none of its own", new Shape.Map("a local group", [
                new("name", new Shape.Text("its name"), true),
                new("sid", Sid("its SID"), true),
                new("members", new Shape.List("its direct members", new Shape.Map("a member", [
                    new("sid", Sid("its SID"), true),
                    new("name", new Shape.Text("its name, if it has one")),
                ])), true),
            ]))),
            new("rights", new Shape.List("effective log-on rights and privileges", new Shape.Map("one right", [
                new("right", new Shape.Text("its constant", "Se[A-Za-z]{4,60}", "a constant such as SeBatchLogonRight"), true),
                new("entries", Entries, true),
                new(
                    "policy",
                    new Shape.Text(
                        "the policy from which the list comes; absent if it is the host's own list", PolicyPattern,
                        "an identifier in braces")),
            ]))),
            new("services", new Shape.List("its services", new Shape.Map("a service", [
                new("name", new Shape.Text("its short name"), true),
                new("title", new Shape.Text("its title")),
                new("account", new Shape.Text("its account from the next start; absent for LocalSystem")),
                new(
                    "start",
                    new Shape.Text(
                        "when it starts", null, null, [.. Enum.GetValues<Core.Surveys.ServiceStart>().Select(ServiceWords.Of)]),
                    true),
                new("running", new Shape.YesNo("whether it runs now"), true),
                new(
                    "waits-for",
                    new Shape.List(
                        "its dependencies: services by name, groups of services as +name", new Shape.Text("a service"))),
                new("runs-now-as", new Shape.Text("what it runs as now")),
                new("runs-now-as-sid", Sid("the SID of that")),
                new("runs-since", Time("since when it runs")),
            ]))),
            new("tasks", new Shape.List("its scheduled tasks that run as an account", new Shape.Map("a scheduled task", [
                new("name", new Shape.Text("its name with its folder"), true),
                new("account", new Shape.Text("what it runs as"), true),
                new("sid", Sid("the SID of that")),
                new("keeps-password", new Shape.YesNo("whether the host keeps a password with it"), true),
                new("disabled", new Shape.YesNo("whether it is disabled")),
            ]))),
            new("pools", new Shape.List("the application pools of its web server; empty without one", new Shape.Map("a pool", [
                new("name", new Shape.Text("its name"), true),
                new("account", new Shape.Text("what it runs as"), true),
                new("sid", Sid("the SID of that")),
                new("keeps-password", new Shape.YesNo("whether its settings keep a password"), true),
            ]))),
            new("policies", new Shape.List("the policies it has applied, highest precedence first", new Shape.Map("a policy", [
                new("id", new Shape.Text("its identifier", PolicyPattern, "an identifier in braces"), true),
                new("name", new Shape.Text("its name")),
                new("rights", new Shape.List("the lists of rights in its template, if the host could read them", new Shape.Map("one list", [
                    new("right", new Shape.Text("its constant"), true),
                    new("entries", Entries, true),
                ]))),
            ]))),
            new("unread", new Shape.List("parts that could not be read", new Shape.Map("a part", [
                new(
                    "part",
                    new Shape.Text("its name: local groups, rights, services, scheduled tasks, web application pools, policies, the constant of a right, or the name of a group"),
                    true),
                new("reason", new Shape.Text("why"), true),
            ]))),
        ]);

    private static Shape.Text Sid(string summary) => new(summary, SidPattern, "a SID such as S-1-5-32-544");

    private static Shape.Text Time(string summary) =>
        new(summary, TimePattern, "a time with its zone, such as 2026-11-25T09:30:00Z");
}
