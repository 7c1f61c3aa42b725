using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Files;
using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;
using JustRight.Formats.Ldif;

namespace JustRight.Connectors.Tests;

/// <summary>
/// Members from elsewhere count by the SID in their name where the object that stands for them may not be read.
/// </summary>
public sealed class ForeignMemberTests
{
    private const string Root = "DC=fennmoor,DC=example";
    private const string Agents = "CN=agents,OU=Groups," + Root;

    [Theory]
    [InlineData("S-1-5-11", true, "CN=S-1-5-11,CN=ForeignSecurityPrincipals,DC=fennmoor,DC=example")]
    [InlineData("S-1-5-21-7-8-9-1105", true, "CN=S-1-5-21-7-8-9-1105,CN=ForeignSecurityPrincipals,DC=fennmoor,DC=example")]
    [InlineData("S-1-5-21-7-8-9-1105", false, "CN=S-1-5-21-7-8-9-1105,OU=Groups,DC=fennmoor,DC=example")]
    [InlineData("S-1-5-21-7-8-9-1105", false, "CN=somebody,CN=ForeignSecurityPrincipals,DC=fennmoor,DC=example")]
    public async Task A_foreign_member_that_may_not_be_read_is_a_member(string sid, bool isMember, string member)
    {
        var file = new DirectoryFile("directory.ldif", Root,
        [
            Entry(Root, ("objectClass", Bytes("domainDNS")), ("objectSid", Raw("S-1-5-21-1-2-3"))),
            Entry("OU=Groups," + Root, ("objectClass", Bytes("organizationalUnit"))),
            Entry(
                Agents, ("objectClass", Bytes("group")), ("objectSid", Raw("S-1-5-21-1-2-3-1200")),
                ("sAMAccountName", Bytes("agents")), ("groupType", Bytes("-2147483644")), ("member", Bytes(member))),
        ]);
        var read = await new FileDirectory(file, Controller.Domain, new DirectorySchemas(), DateTimeOffset.UtcNow)
            .ReadAsync(new DirectoryScope(["OU=Groups," + Root], []), TestContext.Current.CancellationToken);
        var graph = new MembershipGraph(read);
        var node = graph.IndexOf(Sid.Parse(sid));
        (node >= 0 && graph.Closure(node).Contains(graph.IndexOf("agents"))).ShouldBe(isMember);
    }

    private static LdifEntry Entry(string dn, params (string Name, byte[] Value)[] values) => new(
        dn, values.ToDictionary(
            v => v.Name, v => (IReadOnlyList<byte[]>)[v.Value], StringComparer.OrdinalIgnoreCase), new Origin("x.ldif", 1, 1));

    private static byte[] Bytes(string text) => System.Text.Encoding.UTF8.GetBytes(text);

    private static byte[] Raw(string sid) => Sid.Parse(sid).ToBytes();
}
