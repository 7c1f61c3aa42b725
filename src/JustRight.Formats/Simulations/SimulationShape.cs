using JustRight.Core.Directory;
using JustRight.Core.Hosts;
using JustRight.Core.Surveys;
using JustRight.Formats.Shapes;
using JustRight.Formats.Sheets;

namespace JustRight.Formats.Simulations;

/// <summary>The shape of the state of a simulation, which somebody may write or change by hand.</summary>
internal static class SimulationShape
{
    private static readonly Shape.Text Principal = new("a logon name of the domain, or a SID");
    private static readonly Shape.List Principals = new("logon names of the domain, or SIDs", Principal);

    private static readonly Shape.Named Roles = new(
        "roles with their members", ".+", "the name of a role",
        new Shape.List("its members: logon names, SIDs, or role:NAME for another role", new Shape.Text("a member")));

    private static readonly Shape.Named Permissions = new(
        "who was granted what, or denied it", ".+", "a permission, such as VIEW SERVER STATE or deny EXECUTE on SCHEMA::reports",
        new Shape.List("who: logon names, SIDs, or role:NAME", new Shape.Text("a holder")));

    private static readonly Shape.List Runners = new("each with what it runs as", new Shape.Map("a task or a pool", [
        new("name", new Shape.Text("its name; of a task with its folder"), true),
        new("account", new Shape.Text("what it runs as"), true),
        new("keepsPassword", new Shape.YesNo("whether a password is kept with it")),
    ]));

    /// <summary>The whole file.</summary>
    public static readonly Shape.Map Root = new("The state of a simulation", [
        new("domain", new Shape.Text("the domain's short name"), true),
        new("domainSid", Sid("the domain's SID"), true),
        new("root", new Shape.Text("the distinguished name of the domain"), true),
        new("nextRid", Rid("the relative identifier of the next new principal"), true),
        new("lockedAfter", new Shape.Number("how many wrong passwords lock an account; 0 for never, 5 by default", 0, 999)),
        new("leastPasswordLength", new Shape.Number("how many characters a password has at least; 14 by default", 0, 255)),
        new(
            "passwordPrefix",
            new Shape.Text(
                "what the passwords of those who came with it begin with, before their logon name; simulated- by default")),
        new("laidAt", Time("for a rehearsal: when it was laid")),
        new("surveyedAt", Time("for a rehearsal: when what it was filled with was surveyed")),
        new("remarks", new Shape.List("for a rehearsal: what of the estate is not in it", new Shape.Text("a remark"))),
        new("mistakes", new Shape.List("for a rehearsal: what was laid wrong on purpose", new Shape.Text("a mistake"))),
        new("branches", new Shape.List("OUs and containers, by their distinguished names", new Shape.Text("a DN")), true),
        new("principals", new Shape.List("accounts, computers and groups", PrincipalMap()), true),
        new(
            "accessLists",
            new Shape.Named(
                "what stands on objects themselves; an object not here has what its class starts with", ".+",
                    "a distinguished name",
                new Shape.Text(
                    "an access list as SDDL [MS-DTYP 2.5.1], where {NAME} stands for a principal's SID; or bytes:BASE64"))),
        new("policies", new Shape.List("policies that govern hosts", new Shape.Map("a policy", [
            new(
                "id",
                new Shape.Text("its identifier", "\\{[0-9A-Fa-f]{8}(-[0-9A-Fa-f]{4}){3}-[0-9A-Fa-f]{12}\\}",
                    "an identifier in braces"),
                true),
            new("name", new Shape.Text("its name, by which links name it"), true),
            new(
                "lists",
                new Shape.Named(
                    "its lists of rights", "Se[A-Za-z]{4,60}", "a constant such as SeBatchLogonRight",
                    new Shape.List("who is on it: logon names, SIDs, or *SID", new Shape.Text("an entry")))),
        ]))),
        new("policyLinks", new Shape.List("where policies are linked", new Shape.Map("a container", [
            new("dn", new Shape.Text("its distinguished name"), true),
            new("policies", new Shape.List("the names of the policies, link number 1 first", new Shape.Text("a policy")), true),
            new("blocks", new Shape.YesNo("whether what is linked above is blocked")),
        ]))),
        new("people", new Shape.List("objects of directories beside the domain", new Shape.Map("a person, a group, a branch", [
            new("dn", new Shape.Text("its distinguished name"), true),
            new(
                "values",
                new Shape.Named(
                    "the values of its attributes, without memberOf", "[A-Za-z][A-Za-z0-9;-]*", "an attribute",
                    new Shape.List("values", new Shape.Text("a value"))),
                true),
        ]))),
        new("hosts", new Shape.List("hosts", HostMap()), true),
        new("instances", new Shape.List("database instances of the SQL Server family", InstanceMap()), true),
    ]);

    private static Shape.Map PrincipalMap() => new("a principal", [
        new("name", new Shape.Text("its logon name"), true),
        new("kind", new Shape.Text("what it is", null, null, [.. Enum.GetNames<PrincipalKind>()]), true),
        new("rid", Rid("its relative identifier"), true),
        new("dn", new Shape.Text("its distinguished name"), true),
        new("description", Any("its description")),
        new("note", Any("its note: who made it")),
        new("createdAt", Time("when it was made")),
        new("primaryGroupRid", Rid("of an account: the relative identifier of its primary group")),
        new(
            "state",
            new Shape.Number(
                "of an account, the sum of: 1 disabled, 2 expired, 4 locked, 8 password expired, 16 password never expires, "
                + "32 password must change",
                0, 63)),
        new("serviceNames", new Shape.List("of an account: its service principal names", new Shape.Text("a name"))),
        new(
            "delegatesTo",
            new Shape.List(
                "of an account: the services at which it acts as whoever signed in to it", new Shape.Text("a name"))),
        new("isTrustedForDelegation", new Shape.YesNo("of an account: whether it is trusted for delegation to any service")),
        new("passwordSetAt", Time("when its password was last set")),
        new("passwordProof", new Shape.Text("proof of a password that was set in the simulation")),
        new("wrongPasswords", new Shape.Number("how many wrong passwords were given since the last right one", 0, 999)),
        new("wrongPasswordAt", Time("when the last of them was")),
        new("lastLogon", Time("when it last signed in")),
        new("passwordDays", new Shape.Number("for how many days its password holds; 0 for what the domain says", 0, 9999)),
        new("scope", new Shape.Text("of a group: its scope", null, null, [.. Enum.GetNames<GroupScope>()])),
        new("isSecurity", new Shape.YesNo("of a group: whether it carries rights; yes by default")),
        new("members", Principals),
        new("isAdminHeld", new Shape.YesNo("whether it is or was in a protected group (adminCount)")),
        new("membersUnread", new Shape.Text("why its members may not be read")),
    ]);

    private static Shape.Map HostMap() => new("a host", [
        new("name", new Shape.Text("its name, as the estate has it"), true),
        new("unreachable", new Shape.Text("why it does not answer")),
        new("unreachableReadings", new Shape.Number("how many more readings find it so; 0 for all", 0, 999)),
        new("localGroups", new Shape.List("its local groups", new Shape.Map("a local group", [
            new("name", new Shape.Text("its name"), true),
            new("sid", Sid("its SID"), true),
            new("members", Principals),
        ])), true),
        new(
            "logonRights",
            new Shape.Named(
                "who holds log-on rights and privileges", "Se[A-Za-z]{4,60}", "a constant such as SeServiceLogonRight",
                    Principals)),
        new("services", new Shape.List("its services", new Shape.Map("a service", [
            new("name", new Shape.Text("its short name"), true),
            new("title", Any("its title")),
            new("account", new Shape.Text("what it runs as from its next start; LocalSystem by default")),
            new("passwordProof", new Shape.Text("proof of the password that was given with the account")),
            new(
                "start",
                new Shape.Text(
                    "when it starts; automatic by default", null, null,
                        [.. Enum.GetValues<ServiceStart>().Select(ServiceWords.Of)])),
            new("waitsFor", new Shape.List("what must run before it", new Shape.Text("a service"))),
            new("runsNowAs", new Shape.Text("what it runs as now; absent when it does not run")),
            new("runsSince", Time("since when")),
        ]))),
        new("tasks", Runners),
        new("pools", Runners),
    ]);

    private static Shape.Map InstanceMap() => new("an instance", [
        new("name", new Shape.Text("its name, as the estate has it"), true),
        new("unreachable", new Shape.Text("why it does not answer")),
        new("unreachableReadings", new Shape.Number("how many more readings find it so; 0 for all", 0, 999)),
        new("logins", Principals),
        new("roles", Roles),
        new("permissions", Permissions),
        new("databases", new Shape.List("its databases", new Shape.Map("a database", [
            new("name", new Shape.Text("its name"), true),
            new("owner", new Shape.Text("who owns it; absent for sa")),
            new("users", Principals),
            new("roles", Roles),
            new("permissions", Permissions),
        ]))),
    ]);

    /// <summary>A text that may be empty.</summary>
    private static Shape.Text Any(string summary) => new(summary) { MayBeEmpty = true };

    private static Shape.Text Sid(string summary) => new(summary, "S-1-[0-9]+(-[0-9]+){1,15}", "a SID such as S-1-5-32-544");

    private static Shape.Number Rid(string summary) => new(summary, 0, int.MaxValue);

    private static Shape.Text Time(string summary) => new(
        summary, "[0-9]{4}-[0-9]{2}-[0-9]{2}T[0-9]{2}:[0-9]{2}:[0-9]{2}(\\.[0-9]{1,9})?(Z|[+-][0-9]{2}:[0-9]{2})",
        "a time with zone such as 2026-11-24T09:00:00Z");
}
