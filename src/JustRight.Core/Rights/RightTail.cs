using JustRight.Core.Directory;

namespace JustRight.Core.Rights;

/// <summary>The end of a path: a right that a principal is given directly at a place.</summary>
/// <param name="Holder">The domain principal.</param>
/// <param name="Steps">What lies between the principal and the right at the place: local group, login, roles.</param>
/// <param name="Via">The right at the same place that brings this right along, or null.</param>
public sealed record RightTail(Sid Holder, Right Right, IReadOnlyList<PathStep> Steps, Right? Via)
{
    /// <summary>Whether everybody comes to it who gets in at its place.</summary>
    public bool IsEverybodys => Steps.Any(s => s.Meaning is StepMeaning.Everybody or StepMeaning.Guest);

    /// <summary>Whether it is for those who come as guest.</summary>
    public bool IsGuests => Steps.Any(s => s.Meaning == StepMeaning.Guest);
}
