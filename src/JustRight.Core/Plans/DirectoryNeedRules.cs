using JustRight.Core.Directory.Schema;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>Directory needs held against the schema of the directory they are planned for.</summary>
public static class DirectoryNeedRules
{
    /// <summary>
    /// What is wrong with a need by the schema: unknown classes and attributes, attributes the class does not hold, ones that
    /// nobody may write.
    /// </summary>
    public static IEnumerable<Fault> Check(Need need, DirectorySchema schema) =>
        Check(DirectoryActs.Of(need.Value)!, need.Attributes, need.Of, schema, need.At);

    /// <summary>What is wrong with an act by the schema.</summary>
    /// <param name="class">The class, or null for the act's own.</param>
    /// <param name="at">Where it was written.</param>
    public static IEnumerable<Fault> Check(
        DirectoryActRow act, IReadOnlyList<string> attributes, string? @class, DirectorySchema schema, Origin at)
    {
        var of = @class ?? act.Class!;
        if (schema.Class(of) is null)
        {
            yield return new Fault("unknown-class", at, "of", $"The directory's schema has no class '{of}'.")
            {
                Found = $"'{of}'",
                Expected = "a class of the schema",
                Nearest = Spelling.Nearest(of, schema.Classes.Select(c => c.Name)),
            };
            yield break;
        }

        foreach (var name in attributes)
        {
            if (schema.Attribute(name) is not { } attribute)
            {
                yield return new Fault(
                    "unknown-attribute", at, "attributes", $"The directory's schema has no attribute '{name}'.")
                {
                    Found = $"'{name}'",
                    Expected = "an attribute of the schema",
                    Nearest = Spelling.Nearest(name, schema.Attributes.Select(a => a.Name)),
                };
            }
            else if (!schema.Holds(of, name))
            {
                yield return new Fault(
                    "attribute-not-held", at, "attributes",
                    $"Objects of class {of} do not hold the attribute '{attribute.Name}'.")
                {
                    Found = $"'{name}'",
                    Expected = $"an attribute of {of}",
                };
            }
            else if (act.Act == DirectoryAct.WriteAttributes && attribute.IsSystemOnly)
            {
                yield return new Fault("system-only", at, "attributes", $"Only the directory itself writes '{attribute.Name}'.")
                {
                    Found = $"'{name}'",
                    Expected = "an attribute that accounts can write",
                };
            }
        }

        if (act.Act == DirectoryAct.ChangeMembership && !schema.Holds(of, "member"))
            yield return new Fault("attribute-not-held", at, "of", $"Objects of class {of} have no members.")
            {
                Found = $"'{of}'",
                Expected = "group",
            };
        if (act.Act is DirectoryAct.ResetPassword or DirectoryAct.Unlock && !schema.IsA(of, "user"))
            yield return new Fault("not-an-account", at, "of", $"Objects of class {of} have no password.")
            {
                Found = $"'{of}'",
                Expected = "user, inetOrgPerson or computer",
            };
    }
}
