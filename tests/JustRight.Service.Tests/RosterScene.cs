using System.DirectoryServices.Protocols;
using System.Text;
using JustRight.Connectors.Tests.Differential;

namespace JustRight.Service.Tests;

/// <summary>People and their rounds on the real controller, in a branch of their own: eight who may see the roster, one of the rounds who has left, one of no round.</summary>
internal static class RosterScene
{
    public const string Branch = "OU=Rosters", Password = "Aa1-milk at dawn";
    private const string Domain = "DC=fennmoor,DC=example";
    private static readonly string[] Highfield = ["a.brandt", "b.coyle", "c.dunning", "d.eames", "e.fenwick"], Saltmere = ["m.northam", "n.orchard", "o.pendry", "p.quill"];

    /// <summary>The logon names of those who may see it.</summary>
    public static IEnumerable<string> Found => Highfield.Concat(Saltmere).Where(n => n != "e.fenwick");

    /// <summary>Lays them.</summary>
    public static void Lay(RawClient raw)
    {
        foreach (var branch in new[] { Branch, $"OU=People,{Branch}", $"OU=Service Accounts,{Branch}", $"OU=Application Groups,{Branch}" }) raw.Do(new AddRequest($"{branch},{Domain}", new DirectoryAttribute("objectClass", "organizationalUnit")));
        foreach (var name in Highfield.Concat(Saltmere).Append("x.zell"))
        {
            raw.Do(new AddRequest(
                DnOf(name), new DirectoryAttribute("objectClass", "user"), new DirectoryAttribute("sAMAccountName", name), new DirectoryAttribute("userAccountControl", name == "e.fenwick" ? "66050" : "66048"),
                new DirectoryAttribute("unicodePwd", Encoding.Unicode.GetBytes($"\"{Password}\"")))); // [MS-ADTS 3.1.1.3.1.5.1]
        }

        foreach (var (name, members) in new[] { ("rounds-highfield", Highfield), ("rounds-saltmere", Saltmere) })
            raw.Do(new AddRequest($"CN={name},{Branch},{Domain}", new DirectoryAttribute("objectClass", "group"), new DirectoryAttribute("sAMAccountName", name), new DirectoryAttribute("member", [.. members.Select(DnOf)])));
    }

    private static string DnOf(string name) => $"CN={name},OU=People,{Branch},{Domain}";
}
