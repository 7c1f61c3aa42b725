using System.DirectoryServices.Protocols;

namespace JustRight.SignIn.Tests;

/// <summary>Servers of the inetOrgPerson family, each set up in its own way and started when a row first asks for it.</summary>
public sealed class BrokenContractors : IAsyncDisposable
{
    private static readonly Dictionary<string, SlapdSettings> Settings = new()
    {
        ["as usual"] = new(),
        ["showing"] = new(),
        ["the keeper"] = new(),
        ["with rules for passwords"] = new() { PasswordPolicy = true },
        ["without TLS"] = new() { Tls = false },
        ["encrypted alone"] = new() { Everywhere = "security simple_bind=128" },
        ["no simple bind"] = new() { Shut = "disallow bind_simple" },
        ["old versions of TLS alone"] = new() { Everywhere = "TLSCipherSuite NORMAL:-VERS-ALL:+VERS-TLS1.1:%COMPAT" },
        ["no memberOf"] = new() { MemberOf = false },
        ["three at most"] = new() { SizeLimit = "size.soft=3 size.hard=3 size.pr=2000 size.prtotal=unlimited" },
        ["no paging"] = new() { SizeLimit = "size.soft=500 size.hard=500 size.prtotal=disabled" },
        ["small pages"] = new() { SizeLimit = "size.soft=500 size.hard=500 size.pr=2 size.prtotal=unlimited" },
        ["hidden people"] = new()
        {
            Access = """
                access to dn.subtree="ou=People,dc=contractors,dc=fennmoor,dc=example" by * none
                access to * by users read by * none
                """,
        },
        ["shut people"] = new()
        {
            Access = """
                access to dn.subtree="ou=People,dc=contractors,dc=fennmoor,dc=example" by * disclose
                access to * by users read by * none
                """,
        },
        ["no anonymous bind"] = new() { Everywhere = "disallow bind_anon" },
        ["open to all"] = new() { Access = "access to * by * read" },
    };

    private readonly Dictionary<string, (SignInTestScene Scene, ContractorsServer Server)> _started = [];

    /// <summary>A server that is set up in a way, with the scene on it.</summary>
    public async Task<(SignInTestScene Scene, ContractorsServer Server)> OnAsync(string way)
    {
        if (_started.TryGetValue(way, out var there)) return there;
        var server = new ContractorsServer(Settings[way]);
        await server.InitializeAsync();
        var scene = new SignInTestScene(server);
        using (var connection = server.Write())
        {
            scene.Write(connection);
            if (Settings[way].PasswordPolicy) Rules(connection, scene, server);
        }

        if (Settings[way].Shut.Length > 0) await server.ShutAsync();
        return _started[way] = (scene, server);
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var (_, server) in _started.Values) await server.DisposeAsync();
    }

    private static void Rules(LdapConnection connection, SignInTestScene scene, ContractorsServer server)
    {
        foreach (var (name, more) in new[]
        {
            ("usual", new (string, string[])[] { ("pwdMustChange", ["TRUE"]) }),
            ("short", [("pwdMaxAge", ["1"])]),
            ("grace", [("pwdMaxAge", ["1"]), ("pwdGraceAuthnLimit", ["5"])]),
        })
            connection.Add(
                $"cn={name},ou=Services,{server.Directory.Root}",
                [
                    ("objectClass", ["device", "pwdPolicy"]), ("pwdAttribute", ["userPassword"]),
                    ("pwdLockout", ["TRUE"]), ("pwdMaxFailure", ["50"]), .. more]);
        foreach (var name in new[] { "locked", "reset", "old", "grace" })
            connection.Add(
                scene.DnOf(name), ("objectClass", ["inetOrgPerson"]), ("uid", [name]), ("cn", [name]), ("sn", [name]),
                ("userPassword", [SignInTestScene.PersonPassword]));
    }
}
