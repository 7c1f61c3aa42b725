namespace JustRight.Core.Estates;

/// <summary>The words of an estate for how something is reached.</summary>
public static class ReachWords
{
    /// <summary>The word.</summary>
    public static string Of(Reach reach) => reach == Reach.HandedOver ? "handed-over" : reach.ToString().ToLowerInvariant();
}
