using JustRight.Core.Faults;

namespace JustRight.Core.Installs;

/// <summary>How far an install has come.</summary>
public enum Stage
{
    /// <summary>Setup has not run.</summary>
    Planned,

    /// <summary>Setup has run: what it gives must be there, and what was only for it must be gone.</summary>
    Installed,

    /// <summary>The product is gone or goes: what only it needed is to be taken away.</summary>
    Retiring,
}

/// <summary>One product in one estate.</summary>
public sealed record Install(
    string Name,
    string Product,
    string Release,
    string Estate,
    Stage Stage,
    IReadOnlyDictionary<string, PlaceBinding> Places,
    IReadOnlyDictionary<string, NameChoice> Accounts,
    IReadOnlyDictionary<string, NameChoice> Groups,
    IReadOnlyDictionary<string, Answer> Answers,
    IReadOnlyDictionary<string, AlternativeChoice> Choices,
    Origin At)
{
    /// <summary>Accounts whose password never expires, by key, and why.</summary>
    public IReadOnlyDictionary<string, NeverExpires> NeverExpires { get; init; } = new Dictionary<string, NeverExpires>();

    /// <summary>With which directory people sign in; null when that is not said.</summary>
    public InstallSignIn? SignIn { get; init; }

    /// <summary>
    /// The install of a later release that took its place: this one keeps what the former release needs, until it is retired.
    /// Null for every other.
    /// </summary>
    public string? SucceededBy { get; init; }

    /// <summary>The name under which it was set up, and under which rules and descriptions know it.</summary>
    public string KnownAs => SucceededBy ?? Name;

    /// <summary>The name of the sheet it follows.</summary>
    public string Sheet => $"{Product}@{Release}";
}

/// <summary>The hosts, instances or databases that are one place of the sheet.</summary>
public sealed record PlaceBinding(IReadOnlyList<string> Values, Origin At);

/// <summary>A name chosen by the install. <paramref name="Existing"/> means that the object was there before us.</summary>
public sealed record NameChoice(string Name, bool Existing, Origin At);

/// <summary>An answer to a question of the sheet.</summary>
public sealed record Answer(string Text, Origin At);

/// <summary>A choice among alternatives, with its reason and who chose.</summary>
/// <param name="Take">The alternative's name (<c>called</c>).</param>
public sealed record AlternativeChoice(string Take, string Why, string By, Origin At);
