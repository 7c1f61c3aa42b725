using JustRight.Core.Rights;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>
/// What an account holds when it signs in as one role: as another it is another user of the engine, and the rights of the two
/// never count together.
/// </summary>
internal sealed class AsRole(Holdings holdings, string name)
{
    /// <summary>The role.</summary>
    public string Name => name;

    /// <summary>The roles through which it holds a right, or one that would bring it along.</summary>
    public static IEnumerable<AsRole> With(Holdings holdings, Right right) =>
        right.Above.Prepend(right).SelectMany(r => holdings.Of(r)?.Tails ?? []).Select(t => NameOf(t.Tail)).OfType<string>()
            .Distinct(StringComparer.Ordinal).Select(n => new AsRole(holdings, n)).Where(r => r.Holds(right) || r.IsGiven(right));

    /// <summary>Whether it holds a right itself.</summary>
    public bool Holds(Right right) => Of(right) is not null;

    /// <summary>Whether something that it holds opens a door without more ado.</summary>
    public bool Opens(Right door) => IsGiven(door) || (Of(door) is { } held && door.HandsOn(held));

    /// <summary>What it holds of a right, or null.</summary>
    public Held? Of(Right right)
    {
        if (holdings.Of(right) is not { } held) return null;
        var own = new Held(right);
        own.Tails.AddRange(held.Tails.Where(t => NameOf(t.Tail) == name));
        return own.Tails.Count == 0 ? null : own;
    }

    private bool IsGiven(Right right) => right.Above.Any(a => Of(a) is { } held && a.HandsOn(held));

    private static string? NameOf(RightTail tail) => tail.Steps.FirstOrDefault(s => s.Kind == StepKind.Login)?.Role;
}
