using System.DirectoryServices.Protocols;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Service.Tests;

/// <summary>What Roundsman finds at Fennmoor Dairy, laid on a real controller: people at two plants, one branch that does not inherit.</summary>
internal static class RoundsmanScene
{
    public const string Saltmere = "OU=Saltmere," + People;
    private const string Top = "OU=Dairy,DC=fennmoor,DC=example";
    private const string People = "OU=People," + Top;
    private const string Highfield = "OU=Highfield," + People;

    public static void Lay(RawClient raw)
    {
        foreach (var branch in new[] { Top, "OU=Service Accounts," + Top, "OU=Groups," + Top, "OU=Teams," + Top, People, Highfield, Saltmere })
            raw.Do(new AddRequest(branch, "organizationalUnit"));
        User("svc-roundsman", "OU=Service Accounts," + Top);
        foreach (var name in new[] { "a.brandt", "b.coyle", "c.dunning" }) User(name, Highfield);
        foreach (var name in new[] { "m.northam", "n.orchard" }) User(name, Saltmere);
        Group("post-desk", "OU=Groups," + Top);
        Group("rounds-highfield", "OU=Teams," + Top);
        Group("sync-legacy", "OU=Groups," + Top, $"CN=svc-roundsman,OU=Service Accounts,{Top}");

        Sid.TryFromBytes(
            (byte[])raw.Entry("CN=sync-legacy,OU=Groups," + Top, "objectSid")!.Attributes["objectSid"]
                .GetValues(typeof(byte[]))[0],
            out var legacy);
        var list = raw.Descriptor(Highfield);
        Write(
            Highfield,
            list.WithEntries([
                Sddl.ReadAce($"(OA;CIIO;CR;00299570-246d-11d0-a768-00aa006e0529;bf967aba-0de6-11d0-a285-00aa003049e2;{legacy})"),
                .. list.Entries]));
        list = raw.Descriptor(Saltmere);
        Write(Saltmere, list.WithProtection(true).WithEntries([.. list.Entries.Where(e => !e.IsInherited)]));

        // enabled, no password needed, never expires
        void User(string name, string branch) =>
            raw.Do(new AddRequest(
                $"CN={name},{branch}",
                [new("objectClass", "user"), new("sAMAccountName", name), new("userAccountControl", "66080")]));
        void Group(string name, string branch, params string[] members) =>
            raw.Do(new AddRequest(
                $"CN={name},{branch}",
                [
                    new("objectClass", "group"), new("sAMAccountName", name),
                    .. members.Select(m => new DirectoryAttribute("member", m))]));
        void Write(string dn, SecurityDescriptor descriptor) =>
            raw.TryReplace(dn, "nTSecurityDescriptor", DescriptorBytes.Write(descriptor.DaclOnly)).ShouldBe(ResultCode.Success);
    }

    /// <summary>Every access list of the scene, byte for byte.</summary>
    public static Dictionary<string, string> Lists(RawClient raw) =>
        raw.Search(Top, SearchScope.Subtree, "(objectClass=*)", "nTSecurityDescriptor")
        .ToDictionary(e => e.DistinguishedName, e => Convert.ToHexString((byte[])e.Attributes["nTSecurityDescriptor"][0]));
}
