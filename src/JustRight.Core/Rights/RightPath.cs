using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>What a step of a path is.</summary>
public enum StepKind
{
    /// <summary>The account itself.</summary>
    Account,

    /// <summary>A domain group.</summary>
    DomainGroup,

    /// <summary>A local group of a host.</summary>
    LocalGroup,

    /// <summary>A login of an instance, or a user of a database.</summary>
    Login,

    /// <summary>A role on the way to another role.</summary>
    Role,

    /// <summary>A kind of log-on, which brings a group with it.</summary>
    Logon,

    /// <summary>An entry of an access list of the directory.</summary>
    Entry,

    /// <summary>The right at the end.</summary>
    Right,
}

/// <summary>What a step means besides its kind.</summary>
public enum StepMeaning
{
    /// <summary>Nothing more.</summary>
    Plain,

    /// <summary>The role in which everybody is who gets in.</summary>
    Everybody,

    /// <summary>A role whose rights count only for whoever takes it on: by <c>SET ROLE</c>.</summary>
    TakenOn,

    /// <summary>Ownership, which brings a role along.</summary>
    Ownership,

    /// <summary>A login that is switched off: it keeps its holder out.</summary>
    SwitchedOff,

    /// <summary>Guest, as whom everybody comes who has no user of a database.</summary>
    Guest,
}

/// <summary>One step.</summary>
/// <param name="Name">What it is called, in words.</param>
public sealed record PathStep(StepKind Kind, string Name)
{
    /// <summary>What it means besides.</summary>
    public StepMeaning Meaning { get; init; }

    /// <summary>The bare name of the role or of the login that the step goes through; null for any other step.</summary>
    public string? Role { get; init; }

    /// <summary>Through a role.</summary>
    public static PathStep Through(string role) => new(StepKind.Role, role) { Role = role };

    /// <summary>Through the role in which everybody is who gets in.</summary>
    public static PathStep ThroughEverybodys(string role) => Through(role) with { Meaning = StepMeaning.Everybody };
}

/// <summary>How a right is held: account, group, group, local group, right.</summary>
/// <param name="Nodes">The domain principals of the path as nodes of the membership graph, the account first.</param>
/// <param name="Steps">All steps, the account first and the right last.</param>
public sealed record RightPath(IReadOnlyList<int> Nodes, IReadOnlyList<PathStep> Steps)
{
    /// <summary>Whether it goes through a step that means this.</summary>
    public bool Has(StepMeaning meaning) => Steps.Any(s => s.Meaning == meaning);

    /// <summary>Whether it goes through a step of this kind.</summary>
    public bool Has(StepKind kind) => Steps.Any(s => s.Kind == kind);

    /// <summary>The path in one line.</summary>
    public override string ToString() => string.Join(" -> ", Steps.Select(s => s.Name));
}
