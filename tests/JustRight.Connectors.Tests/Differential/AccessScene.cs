using System.DirectoryServices.Protocols;
using System.Security.Cryptography;
using System.Text;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Connectors.Tests.Differential;

/// <summary>An object of the scene.</summary>
public sealed record SceneObject(string Dn, string Class, Sid Sid);

/// <summary>A tree of four levels with several classes, accounts in groups nested with rings, and each account signed in.</summary>
public sealed class AccessScene : IDisposable
{
    public const string Root = "DC=fennmoor,DC=example";
    private static readonly string[] Leaves = ["user", "group", "computer", "contact"];
    private readonly string _name;

    private AccessScene(Controller controller, string name)
    {
        _name = name;
        Admin = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
    }

    public RawClient Admin { get; }

    public DirectorySchema Schema { get; private set; } = DirectorySchema.Empty;

    /// <summary>Everything below the scene's branch, parents first.</summary>
    public List<SceneObject> Objects { get; } = [];

    /// <summary>The accounts that try, with their tokens as Just Right computes them.</summary>
    public List<(SceneObject Object, RawClient Client, AccessToken Token)> Accounts { get; } = [];

    /// <summary>SIDs for entries to name: accounts, groups, and the well-known ones.</summary>
    public List<Sid> Trustees { get; } = [];

    public Sid AdminGroup { get; private set; }

    /// <summary>The password of every account.</summary>
    public string Password { get; } = "Aa1-" + RandomNumberGenerator.GetHexString(16);

    public static async Task<AccessScene> BuildAsync(Controller controller, string name, CancellationToken cancel)
    {
        var scene = new AccessScene(controller, name);
        var directory = new LdapDirectory(controller.Target, new DirectorySchemas(), TimeProvider.System);
        scene.Schema = await directory.SchemaAsync(cancel);
        var branch = $"OU={name},{Root}";
        scene.Add(branch, "organizationalUnit");
        scene.Fill(branch, 3);

        var people = $"OU={name}-accounts,{Root}";
        scene.Admin.Do(new AddRequest(people, "organizationalUnit"));
        var groups = Enumerable.Range(1, 7).Select(i => $"CN={name}-g{i},{people}").ToList();
        for (var i = 0; i < groups.Count; i++)
            // the sixth carries no rights
            scene.Admin.Do(new AddRequest(
                groups[i],
                [
                    new("objectClass", "group"), new("sAMAccountName", $"{name}-g{i + 1}"),
                    new("groupType", i == 5 ? "8" : "-2147483640")]));
        var accounts = Enumerable.Range(1, 3).Select(i => $"CN={name}-a{i},{people}").ToList();
        for (var i = 0; i < accounts.Count; i++)
        {
            scene.Admin.Do(new AddRequest(
                accounts[i], [
                    new("objectClass", "user"), new("sAMAccountName", $"{name}-a{i + 1}"), new("userAccountControl", "512"),
                    new("userPrincipalName", $"{name}-a{i + 1}@fennmoor.example"),
                    new("unicodePwd", Encoding.Unicode.GetBytes($"\"{scene.Password}\""))]));
        }

        // a1 in g1 in g2 in g3 in g1: a ring. a2 in g4 in g2. a3 in g6, which carries no rights, in g7; and in g5.
        foreach (var (group, member) in new[] { (0, accounts[0]), (1, groups[0]), (2, groups[1]), (0, groups[2]), (3, accounts[1]), (1, groups[3]), (5, accounts[2]), (6, groups[5]), (4, accounts[2]) })
            scene.Admin.Do(new ModifyRequest(groups[group], DirectoryAttributeOperation.Add, "member", member));

        var snapshot = await directory.ReadAsync(new DirectoryScope([people, branch], ["Domain Admins"]), cancel);
        var graph = new MembershipGraph(snapshot);
        scene.AdminGroup = snapshot.Principals.Single(p => p.Name == "Domain Admins").Sid;
        foreach (var dn in accounts)
        {
            var principal = snapshot.Principals.Single(p => p.Dn == dn);
            scene.Accounts.Add((
                new SceneObject(dn, "user", principal.Sid),
                new RawClient(controller.Target, $"{principal.Name}@fennmoor.example", scene.Password),
                AccessTokens.Of(graph, graph.IndexOf(principal.Sid))));
        }

        scene.Trustees.AddRange(accounts.Concat(groups).Select(dn => snapshot.Principals.Single(p => p.Dn == dn).Sid));
        scene.Trustees.AddRange(
            [
                Sid.Everyone, Sid.AuthenticatedUsers, Sid.Self, Sid.Self, Sid.CreatorOwner, Sid.OwnerRights,
                Sid.Parse("S-1-5-21-1-2-3-4")]);
        return scene;
    }

    public SceneObject Add(string dn, string @class)
    {
        var name = dn[(dn.IndexOf('=', StringComparison.Ordinal) + 1)..dn.IndexOf(',', StringComparison.Ordinal)];
        var attributes = new List<DirectoryAttribute> { new("objectClass", @class) };
        if (@class is "user" or "group" or "computer")
            attributes.Add(new DirectoryAttribute("sAMAccountName", @class == "computer" ? name + "$" : name));
        Admin.Do(new AddRequest(dn, [.. attributes]));
        var sid = @class is "user" or "group" or "computer"
            && Sid.TryFromBytes((byte[])Admin.Entry(dn, "objectSid")!.Attributes["objectSid"][0], out var found)
            ? found
            : default;
        var added = new SceneObject(dn, @class, sid);
        Objects.RemoveAll(o => o.Dn == dn);
        Objects.Add(added);
        return added;
    }

    public void Dispose()
    {
        foreach (var (_, client, _) in Accounts) client.Dispose();
        Admin.Dispose();
    }

    private int _next;

    private void Fill(string branch, int levels)
    {
        foreach (var leaf in Leaves) Add($"CN={_name}-{leaf[..2]}{_next++},{branch}", leaf);
        if (levels == 0) return;
        for (var i = 0; i < 2; i++)
        {
            var inner = $"OU={_name}-{levels}-{i},{branch}";
            Add(inner, "organizationalUnit");
            Fill(inner, levels - 1);
        }
    }
}
