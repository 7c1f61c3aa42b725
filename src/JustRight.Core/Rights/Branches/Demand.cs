using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Sheets;

namespace JustRight.Core.Rights.Branches;

/// <summary>One thing a directory right asks of every object of a class, or of every container, below its branch.</summary>
/// <param name="Words">What: <c>write mail</c>.</param>
/// <param name="OfContainers">Whether it is asked of containers, for children to be made there, instead of the objects
/// themselves.</param>
/// <param name="Question">The question put to the object.</param>
/// <param name="OrOfParent">A question to the object's parent that will do as well, or null.</param>
/// <param name="OrWrite">A question to the object that will do as well, or null: who may write an attribute may write it
/// validated too [MS-ADTS 3.1.1.5.3.1.1].</param>
/// <param name="Grant">The bits that give it.</param>
/// <param name="ObjectType">What the giving entry is limited to.</param>
public sealed record Demand(
    string Words, bool OfContainers, AccessQuestion Question, AccessQuestion? OrOfParent, AccessQuestion? OrWrite,
    AccessRights Grant, Guid? ObjectType)
{
    /// <summary>Whether the entry that gives it belongs on containers: for children to be made or deleted there.</summary>
    public bool GivenOnContainers => OfContainers || OrOfParent is not null;

    /// <summary>The smallest entry on a branch that gives it for everything below.</summary>
    public AccessRule RuleFor(string principal, SchemaClass of) => GivenOnContainers
        ? new AccessRule(principal, false, Grant, ObjectType, null, AceFlags.ContainerInherit)
        : new AccessRule(principal, false, Grant, ObjectType, of.Id, AceFlags.ContainerInherit | AceFlags.InheritOnly);

    /// <summary>
    /// The smallest entry on one object that gives it for that object alone: where a parent's would do as well, the object's own
    /// is meant.
    /// </summary>
    public AccessRule RuleForOne(string principal) => OrOfParent is null
        ? new AccessRule(principal, false, Grant, ObjectType, null, AceFlags.None)
        : new AccessRule(principal, false, Question.Rights, Question.Target, null, AceFlags.None);
}

/// <summary>Takes directory rights apart into demands.</summary>
public static class Demands
{
    private const string Reset = "User-Force-Change-Password";

    /// <summary>The demands of a right, in a fixed order; null with the name that the schema lacks.</summary>
    public static (IReadOnlyList<Demand>? Demands, string? Lacking) Of(BranchAsked right, DirectorySchema schema)
    {
        if (schema.Class(right.Of) is not { } of) return (null, $"the class {right.Of}");
        var demands = new List<Demand>();
        string? lacking = null;
        switch (right.Act)
        {
            case DirectoryAct.WriteAttributes:
                foreach (var name in right.Attributes) Write(name);
                break;
            case DirectoryAct.ReadAttributes:
                foreach (var name in right.Attributes)
                    Attribute(
                        name,
                        a => demands.Add(new Demand(
                            $"read {a.Name}", false, AccessQuestion.Read(a, of), null, null, AccessQuestion.Read(a, of).Rights,
                            a.Id)));
                break;
            case DirectoryAct.ChangeMembership:
                Write("member");
                break;
            case DirectoryAct.Create:
                Create();
                break;
            case DirectoryAct.Delete:
                Delete();
                break;
            case DirectoryAct.Move:
                // A move deletes at the old place, creates at the new one, and writes the name [MS-ADTS 3.1.1.5.4.1.3].
                Delete();
                Create();
                Write("name");
                Write(schema.IsA(of.Name, "organizationalUnit") ? "ou" : "cn");
                break;
            case DirectoryAct.ResetPassword:
                Extended(Reset);
                break;
            case DirectoryAct.Unlock:
                Write("lockoutTime");
                break;
            case DirectoryAct.JoinComputers:
                Create();
                Extended(Reset);
                Write("userAccountControl");
                Validated("Validated-DNS-Host-Name", "dNSHostName");
                Validated("Validated-SPN", "servicePrincipalName");
                break;
            case DirectoryAct.FullControl:
                demands.Add(new Demand(
                    "do everything", false, AccessQuestion.Simple(AccessRights.FullControl), null, null,
                    AccessRights.FullControl, null));
                break;
        }

        return lacking is null ? (demands, null) : (null, lacking);

        void Attribute(string name, Action<SchemaAttribute> use)
        {
            if (schema.Attribute(name) is { } attribute) use(attribute);
            else lacking ??= $"the attribute {name}";
        }

        void Write(string name) =>
            Attribute(
                name,
                a => demands.Add(new Demand(
                    $"write {a.Name}", false, AccessQuestion.Write(a, of), null, null, AccessRights.WriteProperty, a.Id)));

        void Create() =>
            demands.Add(new Demand(
                $"create a {of.Name}", true, AccessQuestion.CreateChild(of), null, null, AccessRights.CreateChild, of.Id));

        void Delete() =>
            demands.Add(new Demand(
                "delete", false, AccessQuestion.Simple(AccessRights.Delete), AccessQuestion.DeleteChild(of), null,
                AccessRights.DeleteChild, of.Id));

        void Right(string name, Action<ControlRight> use)
        {
            if (schema.Rights.FirstOrDefault(r => r.Name == name) is { } found) use(found);
            else lacking ??= $"the right {name}";
        }

        void Extended(string name) =>
            Right(
                name,
                r => demands.Add(new Demand(
                    r.Title.ToLowerInvariant(), false, AccessQuestion.Extended(r), null, null, AccessRights.ControlAccess,
                    r.Id)));

        void Validated(string name, string attribute) =>
            Right(
                name,
                r => Attribute(
                    attribute,
                    a => demands.Add(new Demand(
                        $"write its own {a.Name}", false, AccessQuestion.Validated(r.Id), null, AccessQuestion.Write(a, of),
                        AccessRights.ValidatedWrite, r.Id))));
    }
}
