using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Formats.Shapes;
using JustRight.Formats.SignIn;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Estates;

/// <summary>The directories that people sign in to products with, in an estate.</summary>
internal static class PeopleDirectories
{
    /// <summary>The shape of the section.</summary>
    public static readonly Shape.Named Section = Words.Named("the directories that people sign in to products with, by a key of yours", new Shape.Map("a directory of people", [
        new("family", new Shape.Text("its family", null, null, [.. DirectoryWords.Families.Keys]), true),
        new(
            "host",
            new Shape.Text("the name that products connect to, which its certificate carries", Words.HostPattern, Words.HostSays),
            true),
        new("offers", new Shape.List("how it can be reached", new Shape.Text("a way", null, null, WireSecurityWords.All)), true),
        new("tls-port", new Shape.Number("the port for TLS from the start, 636 unless said otherwise", 1, 65535)),
        new("plain-port", new Shape.Number("the port for start-tls and plain, 389 unless said otherwise", 1, 65535)),
        new("root", new Shape.Text("the name above everything in it; that of the estate's domain unless said otherwise")),
        new(
            "other-hosts",
            new Shape.List(
                "its other servers, in the order in which to ask them",
                new Shape.Text("a name", Words.HostPattern, Words.HostSays), true)),
        new(
            "shared-name",
            new Shape.Text("a name that stands for all of its servers, such as that of a domain", Words.HostPattern, Words.HostSays)),
        new("catalog", new Shape.YesNo("for the family ad-like: whether its servers offer the catalog of the forest")),
        new("catalog-tls-port", new Shape.Number("its port for TLS from the start, 3269 unless said otherwise", 1, 65535)),
        new("catalog-plain-port", new Shape.Number("its port for start-tls and plain, 3268 unless said otherwise", 1, 65535)),
        new(
            "people-in",
            new Shape.List("the branch of people, or several: distinguished names", new Shape.Text("a DN"), true), true),
        new(
            "groups-in",
            new Shape.List("the branch of groups, or several: distinguished names", new Shape.Text("a DN"), true), true),
        new(
            "people-depth",
            new Shape.Text("how far below its branch people are; subtree by default", null, null, SearchDepthWords.All)),
        new(
            "groups-depth",
            new Shape.Text("how far below its branch groups are; subtree by default", null, null, SearchDepthWords.All)),
        new("follow-referrals", new Shape.YesNo("whether products are to follow referrals to other directories")),
        new("connect-seconds", new Shape.Number("how long a product waits for a connection; 5 by default", 1, 600)),
        new("answer-seconds", new Shape.Number("how long a product waits for an answer; 30 by default", 1, 3600)),
        new(
            "attributes",
            new Shape.Map("the attributes in which the organization keeps something, where they are not the usual ones",
                [.. AttributeMap.Keys.Select(k => new Key(
                    k, new Shape.Text(SettingKeys.Says(k), "[A-Za-z][A-Za-z0-9;-]*", "the name of an attribute")))])),
        new(
            "groups",
            new Shape.Text(
                "for the family inetorgperson: how groups keep who is in them; group-of-names unless said otherwise", null, null,
                [.. DirectoryWords.GroupKinds.Keys])),
        new(
            "back-link",
            new Shape.YesNo("for the family inetorgperson: whether people carry the groups they are in, as memberOf")),
        new(
            "most-in-one-answer",
            new Shape.Number(
                "the most objects it gives in one answer; 1000 for the family ad-like unless said otherwise", 1, 10_000_000)),
        new("ca-folder", new Shape.Text("a folder with the certificates of the authorities to trust")),
        new(
            "plain-text-because",
            new Shape.Text("why passwords may go over the wire in plain text here; the settings repeats it")),
        new("reach", new Shape.Text("how we reach it", null, null, ["simulation", "ldap", "none"])),
        new("sign-in-as", new Shape.Text("the account that surveys bind as")),
        new("secret", Words.Key("the secret with its password")),
    ]));

    /// <summary>Reads one.</summary>
    /// <param name="domainRoot">The root of the estate's domain.</param>
    /// <param name="reach">How it is reached unless it says so itself.</param>
    public static PeopleDirectory? Read(
        YamlNode.Scalar key, YamlNode.Mapping map, string domainRoot, string reach, List<Fault> faults)
    {
        var field = $"people-directories.{key.Text}";
        var family = DirectoryWords.Families[map.Text("family")];
        if (family == DirectoryFamily.AdLike)
            foreach (var needless in new[] { "groups", "back-link" })
                if (map[needless] is { } node)
                    faults.Add(new Fault(
                        "needless-key", node.At, $"{field}.{needless}",
                        $"An AD-like directory has groups of its own kind, which people carry: '{needless}' does not go with it.")
                    {
                        Expected = "family: inetorgperson",
                    });
        if (family != DirectoryFamily.AdLike)
            foreach (var needless in new[] { "catalog", "catalog-tls-port", "catalog-plain-port" })
                if (map[needless] is { } node)
                    faults.Add(new Fault(
                        "needless-key", node.At, $"{field}.{needless}", "Only AD-like directories have a catalog of the forest.")
                    { Expected = "family: ad-like" });
        var root = Name("root", domainRoot);
        DistinguishedName[] people = [.. BranchNames.Read(map, "people-in", $"{field}.people-in", faults)];
        DistinguishedName[] groups = [.. BranchNames.Read(map, "groups-in", $"{field}.groups-in", faults)];
        if (root is null || people.Length == 0 || groups.Length == 0) return null;
        foreach (var (name, inner) in people.Select(p => ("people-in", p)).Concat(groups.Select(g => ("groups-in", g))))
            if (!inner.IsAtOrBelow(root))
                faults.Add(new Fault(
                    "branch-outside", map[name]!.At, $"{field}.{name}",
                    "This branch is not in the directory.")
                { Found = inner.Text, Expected = $"a name that ends in {root}" });

        WireSecurity[] ways = [.. map.List("offers").Select(w => DirectoryWords.Securities[w]).Distinct()];
        var offers = ways.ToDictionary(
            s => s, s => map.NumberOrNull(s == WireSecurity.Tls ? "tls-port" : "plain-port") ?? s.CustomaryPort());
        var directory = new PeopleDirectory(
            key.Text, family, map.Text("host"), offers, root, people[0], groups[0],
            family == DirectoryFamily.AdLike
                ? GroupKind.Group
                : DirectoryWords.GroupKinds[map.TextOr("groups", "group-of-names")],
            family == DirectoryFamily.AdLike || map.YesNo("back-link"), key.At)
        {
            IsOfDomain = family == DirectoryFamily.AdLike && root.Equals(DistinguishedName.Parse(domainRoot)),
            OtherHosts = map.List("other-hosts"),
            SharedName = map.TextOrNull("shared-name"),
            Catalog = map.YesNo("catalog") ? ways.ToDictionary(s => s, s => CatalogPort(map, s)) : null,
            MorePeopleIn = people[1..],
            MoreGroupsIn = groups[1..],
            PeopleDepth = SearchDepthWords.Of(map.TextOr("people-depth", SearchDepthWords.All[0])),
            GroupsDepth = SearchDepthWords.Of(map.TextOr("groups-depth", SearchDepthWords.All[0])),
            FollowsReferrals = map.YesNo("follow-referrals"),
            ConnectSeconds = map.NumberOrNull("connect-seconds") ?? 5,
            AnswerSeconds = map.NumberOrNull("answer-seconds") ?? 30,
            Attributes = map.Texts("attributes").ToDictionary(a => a.Key.Text, a => a.Value.Text),
            Reach = map.TextOr("reach", reach) switch { "simulation" => Reach.Simulation, "ldap" => Reach.Ldaps, _ => Reach.None },
            CaFolder = map.TextOrNull("ca-folder"),
            SignInAs = map.TextOrNull("sign-in-as"),
            Secret = map.TextOrNull("secret"),
            MostInOneAnswer = map.NumberOrNull("most-in-one-answer") ?? (family == DirectoryFamily.AdLike ? 1000 : null),
            PlainTextBecause = map.TextOrNull("plain-text-because"),
        };
        if ((directory.SignInAs is null) != (directory.Secret is null))
            faults.Add(new Fault(
                "missing-key", key.At, $"{field}.{(directory.Secret is null ? "secret" : "sign-in-as")}",
                "An account to bind as and the secret with its password go together."));
        if (directory.Reach == Reach.Ldaps && directory.CaFolder is null && offers.Keys.Any(o => o != WireSecurity.Plain))
            faults.Add(new Fault(
                "missing-key", key.At, $"{field}.ca-folder",
                "A directory with TLS needs the authorities to trust.")
            {
                Expected = "ca-folder: a folder with their certificates",
            });
        if (directory.OtherHosts.Append(directory.Host).GroupBy(h => h, StringComparer.OrdinalIgnoreCase)
            .FirstOrDefault(g => g.Count() > 1) is { } twice)
            faults.Add(new Fault(
                "twice", map["other-hosts"]!.At, $"{field}.other-hosts", $"{twice.Key} stands twice among its servers."));
        return directory;

        DistinguishedName? Name(string name, string? otherwise)
        {
            var text = map.TextOrNull(name) ?? otherwise!;
            if (DistinguishedName.TryParse(text, out var parsed)) return parsed;
            faults.Add(new Fault(
                "not-a-dn", (map[name] ?? map).At, $"{field}.{name}",
                "This is not a distinguished name.")
            {
                Found = $"'{text}'",
                Expected = "a name such as ou=People,dc=contractors,dc=example",
            });
            return null;
        }
    }

    private static int CatalogPort(YamlNode.Mapping map, WireSecurity security) => security == WireSecurity.Tls
        ? map.NumberOrNull("catalog-tls-port") ?? 3269
        : map.NumberOrNull("catalog-plain-port") ?? 3268; // [MS-ADTS 3.1.1.3.1.9]
}
