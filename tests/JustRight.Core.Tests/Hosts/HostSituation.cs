using JustRight.Core.Directory;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Hosts;

/// <summary>
/// A situation of one host in a line: facts with semicolons between. <c>group g: a, h</c>, <c>mail g: a</c> (a distribution
/// group), <c>hidden g</c> (its members could not be read), <c>local L: a</c>, <c>list service: a</c>, <c>deny service: a</c>,
/// <c>list SeX: a</c>, <c>policy P service: a</c>, <c>policy P deny service: a</c> (link number 1 first), <c>needs service</c>,
/// <c>unread rights</c>. <c>a</c> is the account, <c>other</c> somebody else, <c>local L</c> a local group, <c>*S-…</c> a SID.
/// </summary>
internal sealed class HostSituation
{
    private const string Host = "fm-temp01";
    private const string Account = "svc-poller";
    private const StringSplitOptions Bare = StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries;
    private static readonly Sid HouseMade = Sid.Parse("S-1-5-21-7-7-7");
    private readonly FitScene _scene = new();
    private readonly Dictionary<string, (Sid Sid, List<string> Members)> _local = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, List<string>> _lists = new(StringComparer.Ordinal);
    private readonly List<(string Group, string[] Members)> _members = [];
    private readonly List<string> _unread = [];

    private HostSituation(string facts)
    {
        _scene.Account().Account("other", "someone", planned: false).Computer(Host);
        Local("Administrators");
        Local("Users");
        var policies = new List<(string Name, string Constant, string[] Entries)>();
        foreach (var fact in facts.Split(';', Bare))
        {
            var colon = fact.IndexOf(':', StringComparison.Ordinal);
            var head = (colon < 0 ? fact : fact[..colon]).Split(' ', 3);
            var tail = colon < 0 ? [] : fact[(colon + 1)..].Split(',', Bare);
            switch (head[0])
            {
                case "group" or "mail" or "hidden":
                    Group(head[0], head[1], tail);
                    break;
                case "local":
                    Local(fact[6..colon]).AddRange(tail);
                    break;
                case "list" or "deny":
                    _lists[Constant(head[0] == "deny", head[1])] = [.. tail];
                    break;
                case "policy":
                    var denies = head[2].StartsWith("deny ", StringComparison.Ordinal);
                    policies.Add((head[1], Constant(denies, head[2].Split(' ')[^1]), tail));
                    break;
                case "needs":
                    _scene.Need(RightOf(head[1]));
                    break;
                case "unread":
                    _unread.Add(fact[7..]);
                    break;
                default:
                    throw new InvalidOperationException($"'{fact}' is no fact.");
            }
        }

        foreach (var (group, members) in _members)
            _scene.Replace(group, p => p with { Members = [.. members.Select(SidOf)] });
        foreach (var (name, constant, entries) in policies)
            _scene.Policy(name, constant, [.. entries.Select(e => $"*{SidOf(e)}")]);
        _scene.Host(Host, []).Of(Host, h => h with
        {
            LocalGroups = [.. _local.Select(l => new LocalGroup(l.Key, l.Value.Sid, [.. l.Value.Members.Select(SidOf)]))],
            LogonLists = [.. _lists.Select(l => new LogonList(l.Key, [.. l.Value.Select(SidOf)]))],
            UnreadParts = [.. _unread.Select(p => new UnreadPart(p, "access denied"))],
        });
    }

    /// <summary>What is said of a right of the account in a situation.</summary>
    public static string Said(string facts, string asked)
    {
        var situation = new HostSituation(facts);
        var right = RightOf(asked);
        situation._scene.Need(right);
        var said = situation._scene.Judge().Accounts.SelectMany(a => a.Judgements).Last(j => j.Grant?.Right == right);
        var denied = said.Verdict == Verdict.Missing && said.Reason.StartsWith("denied", StringComparison.Ordinal);
        return $"{(denied ? "denied" : said.Verdict.ToString().ToLowerInvariant())}{Ahead(said.Reason)}";
    }

    private static string Ahead(string reason) =>
        reason.Contains("until the next policy refresh", StringComparison.Ordinal) ? " until the refresh"
            : reason.Contains("from the next policy refresh on", StringComparison.Ordinal) ? " until the refresh"
            : "";

    private static Right RightOf(string asked) =>
        asked.StartsWith("local ", StringComparison.Ordinal) ? new LocalGroupRight(Host, asked[6..])
            : asked.StartsWith("Se", StringComparison.Ordinal) ? new PrivilegeRight(Host, asked)
            : new LogonRight(Host, asked);

    private static string Constant(bool denies, string list) =>
        list.StartsWith("Se", StringComparison.Ordinal) ? list
            : denies ? LogonRights.DenyConstant(list)
            : LogonRights.Constant(list);

    private void Group(string kind, string name, string[] members)
    {
        _scene.Group(name);
        if (kind == "mail") _scene.Replace(name, p => p with { IsSecurity = false });
        if (kind == "hidden") _scene.Replace(name, p => p with { MembersUnread = "no answer" });
        _members.Add((name, members));
    }

    private List<string> Local(string name)
    {
        if (_local.TryGetValue(name, out var known)) return known.Members;
        _local[name] = known = (BuiltInGroups.Find(name) ?? HouseMade.Append((uint)(1000 + _local.Count)), []);
        return known.Members;
    }

    private Sid SidOf(string member) =>
        member.StartsWith('*') ? Sid.Parse(member[1..])
            : member.StartsWith("local ", StringComparison.Ordinal) ? _local[member[6..]].Sid
            : _scene.SidOf(member == "a" ? Account : member);
}
