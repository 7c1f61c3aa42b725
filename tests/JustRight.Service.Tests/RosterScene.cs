using System.DirectoryServices.Protocols;
using System.Text;

namespace JustRight.Service.Tests;

/// <summary>People and their rounds on the real controller, in a branch of their own: eight who may see the roster, one of the rounds who has left, one of no round.</summary>
internal static class RosterScene
{
    public const string Branch = "OU=Rosters", Password = "Aa1-milk at dawn";
    private const string Domain = "DC=fennmoor,DC=example";
    private static readonly string[] Highfield = [
        "a.brandt.r", "b.coyle.r", "c.dunning.r", "d.eames.r", "e.fenwick.r"], Saltmere = [
        "m.northam.r", "n.orchard.r", "o.pendry.r", "p.quill.r"];
    private const string Outsider = "x.zell.r";

    /// <summary>The logon names of those who may see it.</summary>
    public static IEnumerable<string> Found => Highfield.Concat(Saltmere).Where(n => n != "e.fenwick.r");

    /// <summary>The demo's install with the names of this scene: other scenes on the same controller have people and rounds of the demo's names.</summary>
    public static string Install(string demo) =>
        Highfield.Concat(Saltmere).Append(Outsider)
            .Aggregate(
                demo.Replace("rounds-", "roster-", StringComparison.Ordinal),
                (text, name) => text.Replace(name[..^2], name, StringComparison.Ordinal));

    /// <summary>Lays them.</summary>
    public static void Lay(RawClient raw)
    {
        foreach (var branch in new[] { Branch, $"OU=People,{Branch}", $"OU=Service Accounts,{Branch}", $"OU=Application Groups,{Branch}" })
            raw.Do(new AddRequest($"{branch},{Domain}", new DirectoryAttribute("objectClass", "organizationalUnit")));
        foreach (var name in Highfield.Concat(Saltmere).Append(Outsider))
        {
            raw.Do(new AddRequest(
                DnOf(name), new DirectoryAttribute("objectClass", "user"), new DirectoryAttribute(
                    "sAMAccountName", name), new DirectoryAttribute(
                    "userAccountControl", name == "e.fenwick.r" ? "66050" : "66048"),
                new DirectoryAttribute("unicodePwd", Encoding.Unicode.GetBytes($"\"{Password}\"")))); // [MS-ADTS 3.1.1.3.1.5.1]
        }

        foreach (var (name, members) in new[] { ("roster-highfield", Highfield), ("roster-saltmere", Saltmere) })
            raw.Do(new AddRequest(
                $"CN={name},{Branch},{Domain}", new DirectoryAttribute("objectClass", "group"),
                new DirectoryAttribute("sAMAccountName", name), new DirectoryAttribute("member", [.. members.Select(DnOf)])));
    }

    private static string DnOf(string name) => $"CN={name},OU=People,{Branch},{Domain}";
}
