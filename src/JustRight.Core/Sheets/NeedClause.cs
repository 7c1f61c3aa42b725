using JustRight.Core.Conditions;
using JustRight.Core.Faults;

namespace JustRight.Core.Sheets;

/// <summary>Who gives a right.</summary>
public enum GivenBy
{
    /// <summary>We, or a team on our behalf.</summary>
    Us,

    /// <summary>The product's own setup.</summary>
    Setup,
}

/// <summary>How long a right is needed.</summary>
public enum Until
{
    /// <summary>For as long as the product runs.</summary>
    Always,

    /// <summary>Only until setup has run.</summary>
    Installed,
}

/// <summary>A need, or a combination of needs. A closed hierarchy.</summary>
/// <param name="When">The condition under which it applies, or null for always.</param>
/// <param name="Called">A short name by which an install can choose it.</param>
/// <param name="At">Where it stands in the sheet.</param>
public abstract record NeedClause(Condition? When, string? Called, Origin At)
{
    /// <summary>The needs in it, those of alternatives and of combinations too, each with its field.</summary>
    /// <param name="field">Where the clause itself stands.</param>
    public IEnumerable<(Need Need, string Field)> Needs(string field = "") => this switch
    {
        Need need => [(need, field)],
        AllOf all => all.Parts.SelectMany((p, i) => p.Needs($"{field}.all-of[{i}]")),
        AnyOf any => any.Alternatives.SelectMany((a, i) => a.Needs($"{field}.any-of[{i}]")),
        _ => throw new InvalidOperationException($"Unknown clause {GetType().Name}."),
    };
}

/// <summary>One right at one place.</summary>
/// <param name="Kind">What kind of right.</param>
/// <param name="Value">The right itself: a group, a role, a log-on type.</param>
/// <param name="Place">The key of the place, or null for kinds without one.</param>
/// <param name="Database">A database other than the place's own (<c>reporting-store/msdb</c>), or null.</param>
/// <param name="Through">The sheet's group through which it should be held, or null.</param>
public sealed record Need(
    NeedKind Kind, string Value, string? Place, string? Database, string? Through,
    GivenBy GivenBy, Until Until, string? Why, Condition? When, string? Called, Origin At) : NeedClause(When, Called, At)
{
    /// <summary>For groups: whether the product's setup creates the group.</summary>
    public bool MadeBySetup { get; init; }

    /// <summary>For directory needs: the attributes.</summary>
    public IReadOnlyList<string> Attributes { get; init; } = [];

    /// <summary>For directory needs: the class of object, or null for the act's own.</summary>
    public string? Of { get; init; }

    /// <summary>For identities inside a product: the operations that one must allow, and no others.</summary>
    public IReadOnlyList<string> Lets { get; init; } = [];

    /// <summary>For tasks: what is to be done; null for other kinds.</summary>
    public TaskNeed? Task { get; init; }

    /// <summary>For what only a person sees: for how many days a person's confirmation counts.</summary>
    public int ConfirmedForDays { get; init; } = DefaultConfirmedForDays;

    /// <summary>How many days a confirmation counts unless the sheet says otherwise.</summary>
    public const int DefaultConfirmedForDays = 365;
}

/// <summary>What a sheet says of a task, beside its key and its place.</summary>
/// <param name="Work">What is to be done.</param>
/// <param name="DoneWhen">How one sees that it is done.</param>
/// <param name="Team">Who does it.</param>
/// <param name="WaitsFor">What must be so before: keys of other tasks, <c>installed</c>, <c>account</c>.</param>
public sealed record TaskNeed(string Work, string DoneWhen, Team Team, IReadOnlyList<string> WaitsFor)
{
    /// <summary>In what a task waits for: that the product's setup has run.</summary>
    public const string Installed = "installed";

    /// <summary>In what a task waits for: that its account is there.</summary>
    public const string Account = "account";
}

/// <summary>Alternatives, one of which will do.</summary>
/// <param name="Decision">The name by which an install chooses among them.</param>
public sealed record AnyOf(string? Decision, IReadOnlyList<NeedClause> Alternatives, Condition? When, string? Called, Origin At)
    : NeedClause(When, Called, At);

/// <summary>Needs that belong together.</summary>
public sealed record AllOf(IReadOnlyList<NeedClause> Parts, Condition? When, string? Called, Origin At)
    : NeedClause(When, Called, At);
