namespace JustRight.Core.Rights;

/// <summary>A right an account holds, with every principal through which it comes.</summary>
public sealed class Held(Right right)
{
    /// <summary>The right.</summary>
    public Right Right { get; } = right;

    /// <summary>The ends of its paths, with the node each hangs on.</summary>
    public List<(int Node, RightTail Tail)> Tails { get; } = [];

    /// <summary>Whether it comes by nothing but what everybody has who gets in at its place.</summary>
    public bool IsEverybodys => Tails.All(t => t.Tail.IsEverybodys);
}
