using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;

namespace JustRight.Core.Surveys;

/// <summary>
/// What was read of the access lists of a directory: every container, and every object below the branches that matter.
/// </summary>
/// <param name="Schema">The schema.</param>
/// <param name="Descriptors">The distinct descriptors; many objects share one.</param>
/// <param name="Objects">The objects, in no particular order.</param>
/// <param name="WholeBranches">Distinguished names of the branches below which every object was read.</param>
/// <param name="Unread">Branches that could not be read whole, with the reason.</param>
public sealed record AccessSnapshot(
    DirectorySchema Schema, IReadOnlyList<SecurityDescriptor> Descriptors, IReadOnlyList<DirectoryObject> Objects,
    IReadOnlyList<string> WholeBranches, IReadOnlyList<UnreadPart> Unread);

/// <summary>An object of the directory, as far as access to it goes.</summary>
/// <param name="Dn">Its distinguished name as the directory spells it.</param>
/// <param name="Class">Its most specific structural class.</param>
/// <param name="Sid">Its SID, or empty.</param>
/// <param name="Descriptor">The index of its descriptor, or -1 when that could not be read.</param>
/// <param name="IsAdminHeld">Whether <c>adminCount</c> is 1: it is or was in a protected group [MS-ADTS 3.1.1.6.1].</param>
public readonly record struct DirectoryObject(string Dn, string Class, Sid Sid, int Descriptor, bool IsAdminHeld);
