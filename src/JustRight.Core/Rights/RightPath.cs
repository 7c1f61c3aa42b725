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

/// <summary>One step.</summary>
public sealed record PathStep(StepKind Kind, string Name);

/// <summary>How a right is held: account, group, group, local group, right.</summary>
/// <param name="Nodes">The domain principals of the path as nodes of the membership graph, the account first.</param>
/// <param name="Steps">All steps, the account first and the right last.</param>
public sealed record RightPath(IReadOnlyList<int> Nodes, IReadOnlyList<PathStep> Steps)
{
    /// <summary>The path in one line.</summary>
    public override string ToString() => string.Join(" -> ", Steps.Select(s => s.Name));
}
