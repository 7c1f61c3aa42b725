namespace JustRight.Core.SignIn.Objects;

/// <summary>A person, a group or another object of a directory, as somebody who searched it saw it.</summary>
/// <param name="Dn">Its distinguished name as the directory spells it.</param>
/// <param name="Values">The values of each attribute as text. Attribute names go without regard to case.</param>
public sealed record PeopleObject(string Dn, IReadOnlyDictionary<string, IReadOnlyList<string>> Values)
{
    /// <summary>All values of an attribute; none when it has none or it was not read.</summary>
    public IReadOnlyList<string> All(string attribute) => Values.GetValueOrDefault(attribute) ?? [];

    /// <summary>The first value of an attribute, or null.</summary>
    public string? First(string attribute) => All(attribute) is [var first, ..] ? first : null;
}
