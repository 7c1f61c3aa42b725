using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Databases;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests.Databases;

/// <summary>
/// An instance <c>i</c> on the host <c>h1</c>, with a database <c>S</c> (and <c>msdb</c>), written in a few words. Principals: the
/// account <c>a</c>, its group <c>g</c>, the group <c>n</c> that holds <c>g</c>, another account <c>o</c>, and the host's local
/// group <c>L</c>, which holds <c>n</c>. Sentences, parted by <c>;</c> : <c>login a</c>, <c>off a</c> (switched off), <c>mute a</c>
/// (may not connect), <c>role sysadmin: a g</c>, <c>role x: role:y</c>, <c>grant VIEW SERVER STATE: a</c>, <c>hand …: a</c> (and it may grant it on), <c>deny … : role:x</c>; and with
/// <c>S.</c> before them <c>user a</c>, <c>owner a</c>, <c>guest</c>, <c>role</c>, <c>grant</c>, <c>deny</c>. In both:
/// <c>owns SCHEMA::s: a</c>, <c>schema s: a</c>, and principals of the engine's own with what they hold: <c>own boss: sysadmin</c>,
/// <c>own clerk: permission CONTROL SERVER</c>. Of the instance: <c>release 16.0</c>, <c>contained</c> (such databases let their users
/// in), <c>job nightly of boss: S</c> and <c>offjob …</c> (one that is switched off); of a database: <c>contained</c>, <c>trusted</c>, <c>chained</c>, <c>ownedby boss</c>.
/// </summary>
internal sealed class DatabaseScene
{
    /// <summary>The removal that is there in every scene: nothing needs the account's group.</summary>
    public const string LeavesItsGroup = @"remove FENNMOOR\a from FENNMOOR\g";

    private static readonly Sid Domain = Sid.Parse("S-1-5-21-1-2-3");
    private static readonly Origin Line = new("scene", 1, 1);
    private static readonly DateTimeOffset Now = DateTimeOffset.UnixEpoch;
    private static readonly Dictionary<string, Sid> Sids = new(StringComparer.Ordinal)
    {
        ["a"] = Domain.Append(1001),
        ["g"] = Domain.Append(1002),
        ["n"] = Domain.Append(1003),
        ["o"] = Domain.Append(1004),
        ["v"] = Domain.Append(1005), // a group whose members may not be read
        ["u"] = Domain.Append(513), // Domain Users
        ["L"] = Sid.Parse("S-1-5-32-544"),
    };

    private readonly List<InstanceLogin> _logins = [];
    private readonly Dictionary<string, RoleMembers> _roles = [];
    private readonly List<PermissionEntry> _permissions = [];
    private readonly Dictionary<string, DatabaseSnapshot> _databases = new() { ["S"] = Empty("S"), ["msdb"] = Empty("msdb") };

    private readonly List<OwnPrincipal> _own = [];
    private readonly List<OwnedThing> _owned = [];
    private readonly List<AgentJob> _jobs = [];
    private string _release = "";
    private bool _admitsContained;

    private DatabaseScene(string text)
    {
        foreach (var sentence in text.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
            Add(sentence);
    }

    /// <summary>Whether the host of the instance could be read.</summary>
    public bool HostUnread { get; init; }

    /// <summary>What could not be read of the instance.</summary>
    public UnreadPart[] UnreadParts { get; init; } = [];

    public static DatabaseScene Of(string text, bool hostUnread = false, params UnreadPart[] unread) => new(text)
    {
        HostUnread = hostUnread,
        UnreadParts = unread,
    };

    /// <summary>A question of the account: <c>VIEW SERVER STATE</c>, <c>role sysadmin</c>, <c>S. SELECT on SCHEMA::x</c>, <c>S. role db_owner</c>, <c>S. owner</c>.</summary>
    public static Right Right(string question)
    {
        var dot = question.IndexOf(". ", StringComparison.Ordinal);
        var (database, rest) = dot < 0 ? (null, question) : (question[..dot], question[(dot + 2)..]);
        var role = rest.StartsWith("role ", StringComparison.Ordinal) ? rest[5..] : null;
        return (database, role) switch
        {
            (null, null) => InstancePermissionRight.Parse("i", rest),
            (null, _) => new InstanceRoleRight("i", role),
            (_, null) when rest == "owner" => new DatabaseOwnerRight("i", database),
            (_, null) => DatabasePermissionRight.Parse("i", database, rest),
            _ => new DatabaseRoleRight("i", database, role),
        };
    }

    /// <summary>The answer in a word or two: <c>held</c>, <c>by X</c> (a stronger right), <c>denied</c>, <c>no way in</c>, <c>lacks</c>, <c>unseen</c>.</summary>
    public string Ask(string question)
    {
        var judged = Fit(Right(question)).Single(j => j.Grant is not null);
        return judged.Verdict switch
        {
            Verdict.Met =>
                judged.Reason.StartsWith("implied by ", StringComparison.Ordinal)
                    ? $"by {judged.Reason["implied by ".Length..].Split(" on i")[0]}"
                    : "held",
            Verdict.Unseen => "unseen",
            _ => judged.DeniedBy.Count > 0 ? "denied"
                : judged.Reason.StartsWith("it holds the right, and has no ", StringComparison.Ordinal) ? "no way in"
                : "lacks",
        };
    }

    /// <summary>What is too much at the instance, given what is needed.</summary>
    public IReadOnlyList<string> Excess(params string[] needed) =>
        [.. Fit([.. needed.Select(Right)]).Where(j => j.Verdict == Verdict.Excess && j.Right.AtInstance is not null).Select(j =>
            j.Right.ToString())];

    /// <summary>Who can do what at the instance, each with why it does not count, where it does not.</summary>
    public IReadOnlyList<string> Holders(int most = 100)
    {
        var view = AllEngines.View(Survey());
        var (holders, more) = InstanceHolders.Of(view, view.Instance("i")!, most);
        return [
            .. holders.Select(h =>
                $"{view.Graph.NameOf(h.Holder).Split('\\')[^1]}: {h.Right}{(h.WhyNot is null ? "" : $" ({h.WhyNot})")}"),
            .. more > 0 ? [$"{more} more"] : Array.Empty<string>()];
    }

    /// <summary>Who can do anything at the instance, by name.</summary>
    public IReadOnlyList<string> Rulers()
    {
        var view = AllEngines.View(Survey());
        return [.. new SqlServerEngine().RulersOf(view.Instance("i")!, view)!.Select(n => n.Split('\\')[^1])];
    }

    /// <summary>What the account can come to beyond what it holds: the right, with its database where it is in one.</summary>
    public IReadOnlyList<string> WaysToMore()
    {
        var view = AllEngines.View(Survey());
        return [
            .. AllEngines.WaysToMore(view.Instance("i")!, view.HoldingsOf(view.Graph.IndexOf("a")))
                .Select(w => w.Right is DatabaseRight inside
                    ? w.Right is DatabaseOwnerRight ? $"owner of {inside.Database}" : $"{w.Right.Words} in {inside.Database}"
                    : w.Right.Words)
                .Order(StringComparer.Ordinal)];
    }

    /// <summary>How the account comes to something beyond what it holds, in words.</summary>
    public string WayTo(string words)
    {
        var view = AllEngines.View(Survey());
        return Core.Engines.SqlServer.WaysToMore.Of("i", view.HoldingsOf(view.Graph.IndexOf("a")))
            .Single(w => w.Right.Words == words).Words;
    }

    /// <summary>What is told beside a right that is held.</summary>
    public IReadOnlyList<string> Notes(string question) => Fit(Right(question)).Single(j => j.Grant is not null).Notes;

    /// <summary>Why a right is not held, or cannot be judged.</summary>
    public string Reason(string question) => Fit(Right(question)).Single(j => j.Grant is not null).Reason;

    /// <summary>The first path by which a right is held.</summary>
    public string Path(string question) => Fit(Right(question)).Single(j => j.Grant is not null).Paths[0].ToString();

    /// <summary>The steps that take away what is excess, and why others are not offered.</summary>
    public IReadOnlyList<string> Removal(params string[] needed)
    {
        var (fit, view, needs) = Judge([.. needed.Select(Right)]);
        var list = WorklistMaker.Make(fit, view, needs);
        return [
            .. list.Remove.Select(s => s.Change.Words),
            .. list.NotOffered.Select(n => $"not {n.For.Split('/')[^1]}: {n.Reason}")];
    }

    /// <summary>The steps that give what is needed.</summary>
    public IReadOnlyList<string> Giving(params string[] needed)
    {
        var (fit, view, needs) = Judge([.. needed.Select(Right)]);
        return [.. WorklistMaker.Make(fit, view, needs).Give.Select(s =>
            s.Blocked is null ? s.Change.Words : $"{s.Change.Words} ({s.Blocked})")];
    }

    private IReadOnlyList<Judgement> Fit(params Right[] needed) => Judge(needed).Fit.Accounts[0].Judgements;

    private (InstallFit Fit, SurveyView View, NeedsIndex Needs) Judge(Right[] needed)
    {
        var plan = new Plan(
            "x", "s@1", "S", "e", "FENNMOOR", "fennmoor.example", Stage.Installed, [], [], [new PlannedAccount(
                "a", "a", null, "", "", WorksAs.Service, true, true, Line)],
            [.. needed.Select(r =>
                new PlannedGrant(
                    $"a/{r.Key}", "a", r, null, null, GivenBy.Us, Until.Always, Team.Database, null, null, Line))], [], [], []);
        var (view, needs) = (AllEngines.View(Survey()), new NeedsIndex([plan]));
        return (new FitJudge(view, needs, new OrganizationRules([], null, []), new Present(Now)).Judge(plan), view, needs);
    }

    private Survey Survey()
    {
        var directory = new DirectorySnapshot("FENNMOOR", Domain, "dc", Now, [
            new DirectoryPrincipal(Sids["a"], PrincipalKind.User, "a", "CN=a,DC=x"), new DirectoryPrincipal(
                Sids["o"], PrincipalKind.User, "o", "CN=o,DC=x"),
            new DirectoryPrincipal(
                Sids["g"], PrincipalKind.Group, "g", "CN=g,DC=x") { Members = [Sids["a"]] }, new DirectoryPrincipal(
                Sids["n"], PrincipalKind.Group, "n", "CN=n,DC=x")
            {
                Members = [Sids["g"]],
            },
            new DirectoryPrincipal(Sids["v"], PrincipalKind.Group, "v", "CN=v,DC=x") { MembersUnread = "they may not be read" },
            new DirectoryPrincipal(Sids["u"], PrincipalKind.Group, "Domain Users", "CN=Domain Users,DC=x"),
        ], [], null);
        var host = HostUnread
            ? HostSnapshot.NotRead("h1", Now, "it does not answer")
            : new HostSnapshot("h1", Now, null, [new LocalGroup("Administrators", Sids["L"], [Sids["n"]])], [], []);
        var instance = new InstanceSnapshot("i", "sqlserver", Now, null, _logins, [.. _roles.Values], [.. _databases.Values])
        {
            Host = "h1",
            Permissions = _permissions,
            OwnLogins = _own,
            Owned = _owned,
            Agent = new AgentJobs(null, _jobs),
            Release = _release,
            AdmitsContained = _admitsContained,
            UnreadParts = UnreadParts,
        };
        return new Survey("e", Now, true, directory, [host], [instance]);
    }

    private void Add(string sentence)
    {
        var dot = sentence.IndexOf('.', StringComparison.Ordinal);
        var database = dot > 0 && _databases.ContainsKey(sentence[..dot]) ? sentence[..dot] : null;
        var rest = database is null ? sentence : sentence[(dot + 1)..];
        var verb = rest.Split(' ')[0];
        var (what, who) = rest.LastIndexOf(": ", StringComparison.Ordinal) is > 0 and var colon
            ? (rest[(verb.Length + 1)..colon], rest[(colon + 2)..].Split(' '))
            : ("", rest.Split(' ')[1..]);
        switch (verb)
        {
            case "login" or "off" or "mute":
                _logins.AddRange(who.Select(w =>
                    new InstanceLogin(Sids[w], w) { Disabled = verb == "off", MayConnect = verb != "mute" }));
                break;
            case "release":
                _release = who[0];
                break;
            case "contained" when database is null:
                _admitsContained = true;
                break;
            case "contained" or "trusted" or "chained":
                Change(database!, d => d with
                {
                    IsContained = d.IsContained || verb == "contained",
                    IsTrusted = d.IsTrusted || verb == "trusted",
                    IsChained = d.IsChained || verb == "chained",
                });
                break;
            case "ownedby":
                Change(database!, d => d with { OwnerName = who[0] });
                break;
            case "job" or "offjob" when what.Split(" of ") is [var name, var owner]:
                _jobs.Add(new AgentJob(name, Sids.GetValueOrDefault(owner), owner, verb == "job", who));
                break;
            case "own" when database is null:
                _own.Add(Own(what, rest));
                break;
            case "own":
                Change(database!, d => d with { OwnUsers = [.. d.OwnUsers, Own(what, rest)] });
                break;
            case "owns" or "schema" when database is null:
                _owned.Add(Owned(verb, what, who[0]));
                break;
            case "owns" or "schema":
                Change(database!, d => who[0] == "role:dbo" ? d : d with { Owned = [.. d.Owned, Owned(verb, what, who[0])] });
                break;
            case "user":
                Change(database!, d => d with { Users = [.. d.Users, .. who.Select(w => new InstanceLogin(Sids[w], w))] });
                break;
            case "owner":
                Change(database!, d => d with { Owner = Sids[who[0]], OwnerName = who[0] });
                break;
            case "guest":
                Change(database!, d => d with { AdmitsGuests = true });
                break;
            case "role" when database is null:
                _roles[what] = Members(what, who);
                break;
            case "role":
                Change(database!, d => d with { Roles = [.. d.Roles, Members(what, who)] });
                break;
            case "grant" or "hand" or "deny" when database is null:
                _permissions.AddRange(Entries(verb, what, who));
                break;
            case "grant" or "hand" or "deny":
                Change(database!, d => d with { Permissions = [.. d.Permissions, .. Entries(verb, what, who)] });
                break;
            default:
                throw new ArgumentException($"'{sentence}' is not understood.", nameof(sentence));
        }
    }

    private static OwnedThing Owned(string verb, string what, string who)
    {
        var on = verb == "schema" ? $"SCHEMA::{what}" : what;
        return who.StartsWith("role:", StringComparison.Ordinal)
            ? new OwnedThing(on, default, who[5..])
            : new OwnedThing(on, Sids[who], null);
    }

    private static OwnPrincipal Own(string name, string sentence)
    {
        const string permission = "permission ";
        var holds = sentence[(sentence.LastIndexOf(": ", StringComparison.Ordinal) + 2)..].Split(", ")
            .ToLookup(h => h.StartsWith(permission, StringComparison.Ordinal));
        return new OwnPrincipal(name, [.. holds[false]], [.. holds[true].Select(h => h[permission.Length..])]);
    }

    private void Change(string database, Func<DatabaseSnapshot, DatabaseSnapshot> change) =>
        _databases[database] = change(_databases[database]);

    private static DatabaseSnapshot Empty(string name) => new(name, default, null, [], []);

    private static RoleMembers Members(string role, string[] who) =>
        new(
            role, [.. who.Where(w => !w.StartsWith("role:", StringComparison.Ordinal)).Select(w => Sids[w])],
            [.. who.Where(w => w.StartsWith("role:", StringComparison.Ordinal)).Select(w => w[5..])]);

    private static IEnumerable<PermissionEntry> Entries(string verb, string permission, string[] who)
    {
        var words = permission.Split(" on ", 2);
        return who.Select(w => w.StartsWith("role:", StringComparison.Ordinal)
            ? new PermissionEntry(words[0], State(verb), default, w[5..]) { On = words.ElementAtOrDefault(1) }
            : new PermissionEntry(words[0], State(verb), Sids[w], null) { On = words.ElementAtOrDefault(1) });
    }

    private static PermissionState State(string verb) =>
        verb switch { "deny" => PermissionState.Deny, "hand" => PermissionState.GrantOn, _ => PermissionState.Grant };
}
