using System.Text.RegularExpressions;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Simulation;

/// <summary>
/// Access lists of the simulated directory. The file keeps what stands on an object itself; what it inherits is worked out, as the
/// directory does it. An object without a list of its own has what its class starts with.
/// </summary>
internal static partial class SimulationAccessLists
{
    private static readonly Dictionary<PrincipalKind, string> Classes = new()
    {
        [PrincipalKind.User] = "user",
        [PrincipalKind.Computer] = "computer",
        [PrincipalKind.Group] = "group",
    };

    /// <summary>Every object with the list that counts.</summary>
    public static AccessTree Tree(SimulationState state)
    {
        var schema = BuiltInSchema.Schema;
        var objects = new List<(
            string Dn, string Class, Sid Sid, bool IsAdminHeld)> { (state.Root, "domainDNS", Sid.Parse(state.DomainSid), false) };
        objects.AddRange(Containers(state).Select(dn =>
            (
                dn, dn.StartsWith("OU=", StringComparison.OrdinalIgnoreCase) ? "organizationalUnit" : "container", default(Sid),
                false)));
        objects.AddRange(state.Principals.Where(p => Classes.ContainsKey(p.Kind)).Select(p =>
            (p.Dn, Classes[p.Kind], state.SidOf(p.Name), p.IsAdminHeld)));
        var asTheyStart = new Dictionary<string, SecurityDescriptor>(StringComparer.OrdinalIgnoreCase);
        var lists = objects.Select(o => Own(state, o.Dn, schema.Class(o.Class)!, asTheyStart)).ToList();
        var snapshot = new AccessSnapshot(
            schema, lists, [.. objects.Select((o, i) => new DirectoryObject(o.Dn, o.Class, o.Sid, i, o.IsAdminHeld))],
            [state.Root], []);
        return new AccessTree(snapshot).With(lists.Select((list, i) => (list, i)).ToDictionary(l => l.i, l => l.list));
    }

    /// <summary>What stands on an object itself.</summary>
    /// <param name="asTheyStart">What objects of each class start with, as far as that was made already.</param>
    private static SecurityDescriptor Own(
        SimulationState state, string dn, SchemaClass @class, Dictionary<string, SecurityDescriptor> asTheyStart)
    {
        var domain = Sid.Parse(state.DomainSid);
        if (state.AccessLists.TryGetValue(dn, out var text))
            return text.StartsWith("bytes:", StringComparison.Ordinal)
                ? DescriptorText.Read(text)
                : Sddl.Read(Braces().Replace(text, m => state.SidOf(m.Groups[1].Value).ToString()), domain);
        if (!asTheyStart.TryGetValue(@class.Name, out var start))
            asTheyStart[@class.Name] = start = Start(@class, domain);
        return start;
    }

    /// <summary>What an object of a class starts with, as the directory makes it.</summary>
    public static SecurityDescriptor Start(SchemaClass @class, Sid domain) =>
        Sddl.Read(@class.DefaultDescriptor ?? "D:", domain) with
        {
            Owner = domain.Append(512),
            Group = domain.Append(512),
        };

    /// <summary>Every container below the domain's head, outermost first.</summary>
    public static IEnumerable<string> Containers(SimulationState state) => state.Branches
        .Concat(state.Principals.Select(p => AccessTree.ParentDn(p.Dn)!))
        .SelectMany(dn => Above(dn, state.Root))
        .Distinct(StringComparer.OrdinalIgnoreCase)
        .OrderBy(dn => dn.Length).ThenBy(dn => dn, StringComparer.Ordinal);

    private static IEnumerable<string> Above(string dn, string root)
    {
        for (var at = dn; at is not null && !string.Equals(at, root, StringComparison.OrdinalIgnoreCase)
            && DistinguishedName.IsAtOrBelow(at, root); at = AccessTree.ParentDn(at))
            yield return at;
    }

    [GeneratedRegex("{(.+?)}")]
    private static partial Regex Braces();
}
