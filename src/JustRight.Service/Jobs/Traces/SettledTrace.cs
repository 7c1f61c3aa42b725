using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;

namespace JustRight.Service.Jobs.Traces;

/// <summary>A trace order with everything found that it left open.</summary>
/// <param name="Account">The logon name.</param>
/// <param name="Right">What it should be able to do; its branch is empty when objects were given.</param>
/// <param name="Objects">The given objects as they were written.</param>
public sealed record SettledTrace(
    string Account, string Act, IReadOnlyList<string> Attributes, string Of, string? Below, IReadOnlyList<string> Objects,
    IReadOnlyList<string> IfMemberOf, IReadOnlyList<string> IfInheriting)
{
    /// <summary>The right over the branch.</summary>
    public BranchAsked Right => BranchAsked.Make(DirectoryActs.Of(Act)!, Attributes, Of, Below ?? "");
}
