using System.Collections.Frozen;

namespace JustRight.Core.Sheets;

/// <summary>What a need of kind <c>directory</c> lets an account do below a branch.</summary>
public enum DirectoryAct
{
    /// <summary>Write the named attributes.</summary>
    WriteAttributes,

    /// <summary>Read the named attributes, confidential ones too.</summary>
    ReadAttributes,

    /// <summary>Add and remove members of groups.</summary>
    ChangeMembership,

    /// <summary>Create objects of a class.</summary>
    Create,

    /// <summary>Delete objects of a class.</summary>
    Delete,

    /// <summary>Move objects of a class from one place below the branch to another, and rename them.</summary>
    Move,

    /// <summary>Set a new password without knowing the old one.</summary>
    ResetPassword,

    /// <summary>Unlock accounts.</summary>
    Unlock,

    /// <summary>Create computer accounts and do to them what joining a computer needs.</summary>
    JoinComputers,

    /// <summary>Do everything to objects of a class.</summary>
    FullControl,
}

/// <summary>What the language knows of one act.</summary>
/// <param name="Words">How a sheet writes it.</param>
/// <param name="NamesAttributes">Whether it goes with <c>attributes</c>.</param>
/// <param name="Class">The class it is about when the sheet does not say <c>of</c>, or null when it must.</param>
/// <param name="Points">How far it reaches, for choosing among alternatives.</param>
public sealed record DirectoryActRow(DirectoryAct Act, string Words, bool NamesAttributes, string? Class, int Points);

/// <summary>The table of directory acts.</summary>
public static class DirectoryActs
{
    /// <summary>Every act, in the order in which the reference lists them.</summary>
    public static IReadOnlyList<DirectoryActRow> All { get; } =
    [
        new(DirectoryAct.WriteAttributes, "write attributes", true, null, 20),
        new(DirectoryAct.ReadAttributes, "read attributes", true, null, 10),
        new(DirectoryAct.ChangeMembership, "change membership", false, "group", 60),
        new(DirectoryAct.Create, "create", false, null, 60),
        new(DirectoryAct.Delete, "delete", false, null, 80),
        new(DirectoryAct.Move, "move", false, null, 100),
        new(DirectoryAct.ResetPassword, "reset password", false, "user", 120),
        new(DirectoryAct.Unlock, "unlock", false, "user", 30),
        new(DirectoryAct.JoinComputers, "join computers", false, "computer", 60),
        new(DirectoryAct.FullControl, "full control", false, null, 200),
    ];

    /// <summary>The rows by act.</summary>
    public static FrozenDictionary<DirectoryAct, DirectoryActRow> ByAct { get; } = All.ToFrozenDictionary(r => r.Act);

    /// <summary>The row of the words of a sheet, or null.</summary>
    public static DirectoryActRow? Of(string words) => All.FirstOrDefault(r => r.Words == words);
}
