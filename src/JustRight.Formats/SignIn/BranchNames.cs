using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.SignIn;

/// <summary>Distinguished names of branches as values of our files: one, or a list.</summary>
internal static class BranchNames
{
    /// <summary>The names, as far as they are some.</summary>
    public static IEnumerable<DistinguishedName> Read(YamlNode.Mapping map, string key, string field, List<Fault> faults)
    {
        foreach (var text in map.List(key))
        {
            if (DistinguishedName.TryParse(text, out var name)) yield return name;
            else
                faults.Add(new Fault("not-a-dn", map[key]!.At, field, "This is not a distinguished name.")
                {
                    Found = $"'{text}'",
                    Expected = "a name such as ou=People,dc=contractors,dc=example",
                });
        }
    }
}
