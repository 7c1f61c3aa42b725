using JustRight.Core.Directory.Schema;
using JustRight.Core.Faults;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>Directory needs held against the schema of the directory they are planned for.</summary>
public static class DirectoryNeedRules
{
    /// <summary>
    /// What is wrong with a need by the schema: unknown classes and attributes, attributes the class does not hold, ones that
    /// nobody may write.
    /// </summary>
    public static IEnumerable<Fault> Check(Need need, DirectorySchema schema)
    {
        var act = DirectoryActs.Of(need.Value)!;
        return Check(act, need.Attributes, need.Of ?? act.Class!, schema, need.At);
    }

    /// <summary>What is wrong with an act by the schema.</summary>
    /// <param name="of">The class, or empty where any will do.</param>
    /// <param name="at">Where it was written.</param>
    public static IEnumerable<Fault> Check(
        DirectoryActRow act, IReadOnlyList<string> attributes, string of, DirectorySchema schema, Origin at)
    {
        if (of.Length > 0 && schema.Class(of) is null)
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
            else if (of.Length > 0 && !schema.Holds(of, name))
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

        if (of.Length == 0) yield break;
        if (ActOnClass.WhyNot(act.Act, of, schema) is { } why)
        {
            var (code, expected) = act.Act == DirectoryAct.ChangeMembership ? ("attribute-not-held", "group")
                : act.Act == DirectoryAct.JoinComputers ? ("not-a-computer", "computer")
                : ("not-an-account", "user, inetOrgPerson or computer");
            yield return new Fault(code, at, "of", $"O{why[1..]}.") { Found = $"'{of}'", Expected = expected };
        }
    }
}
