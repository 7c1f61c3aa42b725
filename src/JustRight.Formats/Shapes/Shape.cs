namespace JustRight.Formats.Shapes;

/// <summary>
/// The shape of a part of a file: what may stand there. One description serves the reader, which checks files against it, and
/// the published JSON Schema. A closed hierarchy.
/// </summary>
internal abstract record Shape(string Summary)
{
    /// <summary>A word or a text.</summary>
    /// <param name="Pattern">A regular expression the whole value must match, or null.</param>
    /// <param name="Says">The pattern in words.</param>
    /// <param name="OneOf">The only values, or null for any.</param>
    public sealed record Text(string Summary, string? Pattern = null, string? Says = null, IReadOnlyList<string>? OneOf = null)
        : Shape(Summary)
    {
        /// <summary>Whether it may stand there empty.</summary>
        public bool MayBeEmpty { get; init; }
    }

    /// <summary><c>yes</c> or <c>no</c> (<c>true</c> and <c>false</c> will do).</summary>
    public sealed record YesNo(string Summary) : Shape(Summary);

    /// <summary>A whole number.</summary>
    public sealed record Number(string Summary, int Least, int Most) : Shape(Summary);

    /// <summary>A list.</summary>
    /// <param name="OneWillDo">Whether a single item may stand without the list.</param>
    public sealed record List(string Summary, Shape Item, bool OneWillDo = false) : Shape(Summary);

    /// <summary>A mapping with known keys.</summary>
    public sealed record Map(string Summary, IReadOnlyList<Key> Keys) : Shape(Summary)
    {
        /// <summary>Keys of which exactly one must stand, or empty.</summary>
        public IReadOnlyList<string> ExactlyOneOf { get; init; } = [];
    }

    /// <summary>A mapping whose keys the writer chooses.</summary>
    /// <param name="KeyPattern">What a key looks like.</param>
    /// <param name="KeySays">The pattern in words.</param>
    public sealed record Named(string Summary, string KeyPattern, string KeySays, Shape Value) : Shape(Summary);

    /// <summary>A shape used in several places, or inside itself.</summary>
    public sealed record Ref(string Name, Func<Shape> Target) : Shape("");
}

/// <summary>A key of a mapping.</summary>
internal sealed record Key(string Name, Shape Shape, bool Required = false);
