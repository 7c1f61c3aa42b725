using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;

namespace JustRight.Core.Rights.Access;

/// <summary>
/// What is asked of one object: bits of the mask, and the chain of GUIDs by which an entry may name what they are asked for.
/// For an attribute the chain is class, property set, attribute [MS-ADTS 5.1.3.3.3]; for a right it is the right alone.
/// </summary>
/// <param name="Rights">The bits, all of which must be allowed.</param>
/// <param name="Class">The class at the head of the chain, or null.</param>
/// <param name="PropertySet">The property set, or null.</param>
/// <param name="Target">The attribute, validated write, extended right or child class, or null for a simple question.</param>
public readonly record struct AccessQuestion(AccessRights Rights, Guid? Class, Guid? PropertySet, Guid? Target)
{
    /// <summary>Whether an entry that names this GUID speaks of what is asked for.</summary>
    public bool Names(Guid id) => id == Target || id == PropertySet || id == Class;

    /// <summary>Asks for bits that no GUID limits: delete, write the access list [MS-ADTS 5.1.3.3.2].</summary>
    public static AccessQuestion Simple(AccessRights rights) => new(rights, null, null, null);

    /// <summary>Asks to write an attribute of an object of a class.</summary>
    public static AccessQuestion Write(SchemaAttribute attribute, SchemaClass @class) =>
        new(AccessRights.WriteProperty, @class.Id, attribute.PropertySet, attribute.Id);

    /// <summary>Asks to read an attribute; a confidential one needs control access as well [MS-ADTS 3.1.1.4.4].</summary>
    public static AccessQuestion Read(SchemaAttribute attribute, SchemaClass @class) =>
        new(
            attribute.IsConfidential ? AccessRights.ReadProperty | AccessRights.ControlAccess : AccessRights.ReadProperty,
            @class.Id, attribute.PropertySet, attribute.Id);

    /// <summary>
    /// Asks for an extended right [MS-ADTS 5.1.3.3.4]; a right that does not apply to the class is nobody's, which the caller
    /// checks.
    /// </summary>
    public static AccessQuestion Extended(ControlRight right) => new(AccessRights.ControlAccess, null, null, right.Id);

    /// <summary>Asks for a validated write [MS-ADTS 5.1.3.3.5].</summary>
    public static AccessQuestion Validated(Guid validatedWrite) => new(AccessRights.ValidatedWrite, null, null, validatedWrite);

    /// <summary>Asks a parent to let a child of a class be created.</summary>
    public static AccessQuestion CreateChild(SchemaClass child) => new(AccessRights.CreateChild, null, null, child.Id);

    /// <summary>Asks a parent to let a child of a class be deleted.</summary>
    public static AccessQuestion DeleteChild(SchemaClass child) => new(AccessRights.DeleteChild, null, null, child.Id);
}
