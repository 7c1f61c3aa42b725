namespace JustRight.Core.Rights;

/// <summary>A right that an account can come to beyond what it was granted, and how.</summary>
/// <param name="Steps">The steps on the way, in words.</param>
public sealed record WayToMore(Right Right, IReadOnlyList<string> Steps)
{
    /// <summary>The steps in one line.</summary>
    public string Words => string.Join("; ", Steps);
}
