namespace JustRight.Core.SignIn.Objects;

/// <summary>What a schema says of an attribute, as far as searching goes.</summary>
/// <param name="Name">Its first name.</param>
/// <param name="Rule">How its values are compared.</param>
/// <param name="Ordered">Whether values can be asked to come before or after one.</param>
/// <param name="Parts">Whether parts of values can be asked for.</param>
public sealed record AttributeKind(string Name, ValueRule Rule, bool Ordered, bool Parts)
{
    /// <summary>
    /// The attribute that this one is a kind of: asking for that asks for this one too [RFC 4512 2.5.1]. Null for none.
    /// </summary>
    public string? Above { get; init; }

    /// <summary>The number of its syntax [RFC 4517 3.3]; empty where it is not known.</summary>
    public string Syntax { get; init; } = "";

    /// <summary>Whether values can be asked for at all; without a rule for equality they cannot.</summary>
    public bool Equal { get; init; } = true;
}
