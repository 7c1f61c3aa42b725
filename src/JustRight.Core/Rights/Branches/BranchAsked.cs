using JustRight.Core.Estates;
using JustRight.Core.Sheets;

namespace JustRight.Core.Rights.Branches;

/// <summary>Something that an account must be able to do to all objects of a class below a branch of the directory.</summary>
/// <param name="Attributes">The attributes, for acts that name them.</param>
/// <param name="Of">The class of object.</param>
/// <param name="Branch">The distinguished name of the branch.</param>
public sealed record BranchAsked(DirectoryAct Act, IReadOnlyList<string> Attributes, string Of, string Branch)
{
    /// <summary>An act, its attributes in order and each once.</summary>
    /// <param name="of">The class, or null for the act's own.</param>
    public static BranchAsked Make(DirectoryActRow act, IReadOnlyList<string> attributes, string? of, string branch) => new(
        act.Act,
        [.. attributes.Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.OrdinalIgnoreCase)],
        of ?? act.Class!,
        branch);

    /// <summary>A few words, without the branch.</summary>
    public string Words => Act == DirectoryAct.JoinComputers ? What : $"{What} of {Of}";

    /// <summary>A few words, without the class.</summary>
    public string What => Act switch
    {
        DirectoryAct.WriteAttributes => $"write {string.Join(", ", Attributes)}",
        DirectoryAct.ReadAttributes => $"read {string.Join(", ", Attributes)}",
        DirectoryAct.JoinComputers or DirectoryAct.ChangeMembership or DirectoryAct.Create or DirectoryAct.Delete
            or DirectoryAct.Move or DirectoryAct.ResetPassword or DirectoryAct.Unlock or DirectoryAct.FullControl =>
            DirectoryActs.ByAct[Act].Words,
    };
}
