namespace JustRight.Core.Estates;

/// <summary>The organization's rules for what is retired.</summary>
/// <param name="RemoveAfter">How long a disabled account stays before it may be removed for good; until then, undoing brings
/// everything back.</param>
public sealed record RetireRules(TimeSpan RemoveAfter)
{
    /// <summary>What holds when the organization says nothing.</summary>
    public static RetireRules Usual { get; } = new(TimeSpan.FromDays(30));
}
