namespace JustRight.Core.Directory.Descriptors;

/// <summary>The bits of an access mask, as a directory means them [MS-ADTS 5.1.3.2].</summary>
[Flags]
public enum AccessRights : uint
{
    /// <summary>Nothing.</summary>
    None = 0,

    /// <summary>Create children, of one class where the entry names one.</summary>
    CreateChild = 0x1,

    /// <summary>Delete children, of one class where the entry names one.</summary>
    DeleteChild = 0x2,

    /// <summary>List the children.</summary>
    ListContents = 0x4,

    /// <summary>Write what a validated write allows, such as oneself into a group.</summary>
    ValidatedWrite = 0x8,

    /// <summary>Read attributes.</summary>
    ReadProperty = 0x10,

    /// <summary>Write attributes.</summary>
    WriteProperty = 0x20,

    /// <summary>Delete the object with all that is below it.</summary>
    DeleteTree = 0x40,

    /// <summary>See this one object.</summary>
    ListObject = 0x80,

    /// <summary>Use an extended right, such as resetting a password; read confidential attributes.</summary>
    ControlAccess = 0x100,

    /// <summary>Delete the object.</summary>
    Delete = 0x10000,

    /// <summary>Read the descriptor.</summary>
    ReadControl = 0x20000,

    /// <summary>Change the access list.</summary>
    WriteDacl = 0x40000,

    /// <summary>Change the owner.</summary>
    WriteOwner = 0x80000,

    /// <summary>Unused by directories.</summary>
    Synchronize = 0x100000,

    /// <summary>Read and change the audit list.</summary>
    AccessSystemSecurity = 0x1000000,

    /// <summary>Everything, before mapping.</summary>
    GenericAll = 0x10000000,

    /// <summary>Execute, before mapping.</summary>
    GenericExecute = 0x20000000,

    /// <summary>Write, before mapping.</summary>
    GenericWrite = 0x40000000,

    /// <summary>Read, before mapping.</summary>
    GenericRead = 0x80000000,

    /// <summary>Everything a directory object has.</summary>
    FullControl = 0xF01FF,
}

/// <summary>How generic bits map to those of a directory.</summary>
public static class GenericRights
{
    private const AccessRights All = AccessRights.GenericAll | AccessRights.GenericExecute | AccessRights.GenericWrite | AccessRights.GenericRead;

    /// <summary>Whether a mask holds generic bits.</summary>
    public static bool HasGeneric(this AccessRights mask) => (mask & All) != 0;

    /// <summary>The mask with its generic bits replaced [MS-ADTS 5.1.3.2, table of generic rights].</summary>
    public static AccessRights Mapped(this AccessRights mask)
    {
        if (!mask.HasGeneric()) return mask;
        var mapped = mask & ~All;
        if (mask.HasFlag(AccessRights.GenericRead)) mapped |= (AccessRights)0x20094;
        if (mask.HasFlag(AccessRights.GenericWrite)) mapped |= (AccessRights)0x20028;
        if (mask.HasFlag(AccessRights.GenericExecute)) mapped |= (AccessRights)0x20004;
        if (mask.HasFlag(AccessRights.GenericAll)) mapped |= AccessRights.FullControl;
        return mapped;
    }
}
