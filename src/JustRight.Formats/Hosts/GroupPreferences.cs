using System.Xml;
using System.Xml.Linq;
using JustRight.Core.Surveys;

namespace JustRight.Formats.Hosts;

/// <summary>
/// The items for local groups among a policy's preferences, <c>Groups.xml</c> [MS-GPPREF, Local Users and Groups]. Written from
/// knowledge, and not checked against the text.
/// </summary>
public static class GroupPreferences
{
    private const string BuiltIn = " (built-in)";
    private static readonly XmlReaderSettings Safe = new() { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null };

    /// <summary>Reads the items for groups, in order; those that are switched off are left out, and items for users.</summary>
    /// <exception cref="InvalidDataException">It is no such file, or an item says what is not known here.</exception>
    public static IReadOnlyList<PolicyGroupRule> Read(ReadOnlySpan<byte> bytes)
    {
        try
        {
            using var reader = XmlReader.Create(new MemoryStream(bytes.ToArray()), Safe);
            var root = XDocument.Load(reader).Root!;
            if (root.Name.LocalName != "Groups")
                throw new InvalidDataException($"this is no file of groups but of {root.Name.LocalName}");
            return [.. root.Elements("Group").Where(g => !IsOn(g, "disabled")).Select(Rule)];
        }
        catch (XmlException e)
        {
            throw new InvalidDataException($"this is no XML that can be read: {e.Message}", e);
        }
    }

    private static PolicyGroupRule Rule(XElement item)
    {
        var properties = item.Element("Properties")
            ?? throw new InvalidDataException($"the item {Text(item, "name")} has no properties");
        var members = properties.Element("Members")?.Elements("Member").ToLookup(m => Text(m, "action").ToUpperInvariant());
        return new PolicyGroupRule(ActOf(Text(properties, "action")), NameOf(properties), Named("ADD"))
        {
            Removed = Named("REMOVE"),
            ClearsUsers = IsOn(properties, "deleteAllUsers"),
            ClearsGroups = IsOn(properties, "deleteAllGroups"),
            IsTargeted = item.Element("Filters")?.HasElements == true,
        };

        IReadOnlyList<string> Named(string action) =>
            [.. (members?[action] ?? []).Select(m => Text(m, "sid") is { Length: > 0 } sid ? $"*{sid}" : Text(m, "name"))];
    }

    /// <summary>An item that says nothing of it updates.</summary>
    private static PolicyGroupAct ActOf(string letter) => letter.ToUpperInvariant() switch
    {
        "C" => PolicyGroupAct.Create,
        "U" or "" => PolicyGroupAct.Update,
        "R" => PolicyGroupAct.Replace,
        "D" => PolicyGroupAct.Delete,
        var other => throw new InvalidDataException($"an item does {other}, which is not known here"),
    };

    private static string NameOf(XElement properties)
    {
        if (Text(properties, "groupSid") is { Length: > 0 } sid) return $"*{sid}";
        var name = Text(properties, "groupName");
        return name.EndsWith(BuiltIn, StringComparison.OrdinalIgnoreCase) ? name[..^BuiltIn.Length] : name;
    }

    private static bool IsOn(XElement of, string attribute) => Text(of, attribute) == "1";

    private static string Text(XElement of, string attribute) => of.Attribute(attribute)?.Value.Trim() ?? "";
}
