using System.Globalization;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Files;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Engines;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Formats.Ldif;

namespace JustRight.Connectors.Tests.Differential;

/// <summary>
/// Readers who see little of a random tree, over a connection and by a file they exported: whatever is said to be met or missing
/// is what the administrator finds; where something that could decide it is hidden, it is unseen.
/// </summary>
public sealed class LittleSeenTests(Controller controller, ITestOutputHelper output)
{
    private static readonly string[] Classes = ["user", "group", "computer", "contact"];
    private readonly Random _random = new(
        int.Parse(Environment.GetEnvironmentVariable("JUSTRIGHT_SEED") ?? "11", CultureInfo.InvariantCulture));
    private readonly DirectorySchemas _schemas = new();
    private readonly Dictionary<(Sid Agent, string Right), Said> _whole = [];
    private readonly Dictionary<Said, int> _said = [];
    private readonly List<string> _wrong = [];

    private enum Said
    {
        Met,
        Missing,
        Unseen,
    }

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_is_said_of_a_tree_seen_in_part_is_what_the_whole_tree_says()
    {
        var wanted = int.Parse(
            Environment.GetEnvironmentVariable("JUSTRIGHT_ANSWERS") ?? "20000", CultureInfo.InvariantCulture);
        using var scene = await AccessScene.BuildAsync(controller, "little", Cancel);
        var lists = new RandomDescriptors(_random, scene);
        while (_said.Values.Sum() < wanted)
        {
            foreach (var at in scene.Objects) scene.Admin.Protect(at.Dn, Hidden(scene, lists.Next(inheritable: true)));
            _whole.Clear();
            Ask(scene, await ReadAsync(controller.Target, scene), (agent, right, said) => _whole[(agent, right.Key)] = said);
            foreach (var (reader, _, _) in scene.Accounts)
            {
                var name = $"{reader.Dn[3..reader.Dn.IndexOf(',', StringComparison.Ordinal)]}@fennmoor.example";
                var target = controller.Target with { SignInAs = name, Password = new NewPassword(scene.Password) };
                Compare(scene, await ReadAsync(target, scene), $"{name} over LDAPS");
                Compare(scene, await ReadFileAsync(name, scene), $"{name} from a file");
            }
        }

        output.WriteLine(string.Join(", ", _said.OrderBy(s => s.Key).Select(s => $"{s.Value} {s.Key}")));
        _wrong.ShouldBeEmpty();
        foreach (var said in Enum.GetValues<Said>()) // each was met, often
            _said.GetValueOrDefault(said).ShouldBeGreaterThan(wanted / 200, said.ToString());
    }

    /// <summary>Readable for everybody but for some of what readers need, for some of them, here or below.</summary>
    private SecurityDescriptor Hidden(AccessScene scene, SecurityDescriptor list)
    {
        List<Ace> entries = [list.Entries[0]];
        if (_random.Next(3) == 0) entries.Add(NextDenial(scene));
        entries.Add(Ace.Allow(
            Sid.Everyone, AccessRights.ReadProperty | AccessRights.ListContents | AccessRights.ReadControl,
            flags: AceFlags.ContainerInherit));
        return list.WithEntries([.. entries, .. list.Entries.Skip(1)]);
    }

    private Ace NextDenial(AccessScene scene)
    {
        var who = _random.Next(4) == 0 ? Sid.Everyone : scene.Accounts[_random.Next(scene.Accounts.Count)].Object.Sid;
        var flags = _random.Next(3) == 0 ? AceFlags.ContainerInherit : AceFlags.None;
        return _random.Next(4) switch
        {
            0 => new Ace(AceType.Deny, flags, AccessRights.ListContents, who),
            1 => new Ace(AceType.Deny, flags, AccessRights.ReadControl, who),
            2 => new Ace(AceType.DenyObject, flags, AccessRights.ReadProperty, who)
            {
                ObjectType = scene.Schema.Attribute("objectClass")!.Id,
            },
            _ => new Ace(AceType.Deny, flags, AccessRights.ReadProperty, who),
        };
    }

    private async Task<DirectorySnapshot> ReadAsync(LdapTarget target, AccessScene scene) =>
        await new LdapDirectory(target, _schemas, TimeProvider.System).ReadAsync(Scope(scene), Cancel);

    private async Task<DirectorySnapshot> ReadFileAsync(string reader, AccessScene scene)
    {
        using var lines = new StringReader(await DirectoryExport.RunAsync(controller, reader, scene.Password, Cancel));
        var (entries, faults) = LdifReader.Read(lines, "little.ldif", DirectoryFile.Attributes.Contains);
        faults.ShouldBeEmpty();
        var file = new DirectoryFile("little.ldif", AccessScene.Root, entries);
        return await new FileDirectory(file, Controller.Domain, _schemas, DateTimeOffset.UtcNow).ReadAsync(Scope(scene), Cancel);
    }

    private static DirectoryScope Scope(AccessScene scene) =>
        new([$"OU=little-accounts,{AccessScene.Root}"], []) { Access = new AccessScope([scene.Objects[0].Dn], [], false) };

    private void Compare(AccessScene scene, DirectorySnapshot seen, string how) =>
        Ask(scene, seen, (agent, right, said) =>
        {
            _said[said] = _said.GetValueOrDefault(said) + 1;
            var whole = _whole[(agent, right.Key)];
            if (said != Said.Unseen && said != whole) _wrong.Add($"{how}: {agent}: {right}: said {said}, and it is {whole}");
        });

    private static void Ask(AccessScene scene, DirectorySnapshot directory, Action<Sid, DirectoryRight, Said> told)
    {
        var view = AllEngines.View(new Survey("little", DateTimeOffset.UtcNow, false, directory, [], []));
        var branches = scene.Objects.Where(o => o.Class == "organizationalUnit").Select(o => o.Dn).ToList();
        foreach (var (agent, _, _) in scene.Accounts)
        {
            var node = view.Graph.IndexOf(agent.Sid);
            node.ShouldBeGreaterThanOrEqualTo(0);
            var holdings = view.HoldingsOf(node);
            foreach (var asked in branches.SelectMany(Rights))
            {
                var right = new DirectoryRight(asked);
                told(agent.Sid, right, SaidOf(right.BranchIn(holdings).Facts));
            }
        }
    }

    private static IEnumerable<BranchAsked> Rights(string branch)
    {
        foreach (var of in Classes)
        {
            yield return new BranchAsked(DirectoryAct.WriteAttributes, ["description"], of, branch);
            yield return new BranchAsked(DirectoryAct.ReadAttributes, ["displayName"], of, branch);
            yield return new BranchAsked(DirectoryAct.Create, [], of, branch);
            yield return new BranchAsked(DirectoryAct.Delete, [], of, branch);
        }

        yield return new BranchAsked(DirectoryAct.ChangeMembership, [], "group", branch);
        yield return new BranchAsked(DirectoryAct.ResetPassword, [], "user", branch);
        yield return new BranchAsked(DirectoryAct.JoinComputers, [], "computer", branch);
        yield return new BranchAsked(DirectoryAct.FullControl, [], "organizationalUnit", branch);
    }

    /// <summary>As a verdict has it.</summary>
    private static Said SaidOf(BranchFacts? facts) => facts switch
    {
        null => Said.Unseen,
        { Cannot: 0, Unseen: 0 } => facts.Can > 0 || facts.Uncovered.Count == 0 ? Said.Met : Said.Missing,
        { Cannot: 0 } => Said.Unseen,
        _ => Said.Missing,
    };
}
