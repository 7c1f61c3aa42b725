using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Estates;

namespace JustRight.Core.Rights;

/// <summary>What the kind of a right is told when it is to be taken away where a path of it ends.</summary>
/// <param name="Domain">The domain's short name.</param>
/// <param name="Path">The path.</param>
/// <param name="Node">The node of the principal at the end of the path, whose entry it is.</param>
/// <param name="Holder">That principal's logon name.</param>
/// <param name="Earlier">The changes that are made before.</param>
/// <param name="HasAnotherHolder">Whether the plan gives it to another account.</param>
/// <param name="NewOwners">Who owns a database after the holder, by instance, as the organization says.</param>
public sealed record Taking(
    SurveyView View, string Domain, RightPath Path, int Node, string Holder, IReadOnlyList<Change> Earlier, bool HasAnotherHolder,
    IReadOnlyDictionary<string, string> NewOwners)
{
    /// <summary>The holder as <c>DOMAIN\name</c>.</summary>
    public string Principal => $"{Domain}\\{Holder}";

    /// <summary>The holder's SID.</summary>
    public Sid Sid => View.Graph.SidOf(Node);
}

/// <summary>
/// Where a removal stands among the others. A user goes after what it holds, and a login after its users: dropped first, they
/// would take the rest along unseen, and nobody could put that back.
/// </summary>
public enum TakenOrder
{
    /// <summary>What alone ends the use of an account, and is the quickest to take back.</summary>
    Use,

    /// <summary>A list that a policy gives to hosts: taken off a host first, it would come back with the next refresh.</summary>
    List,

    /// <summary>A right.</summary>
    Right,

    /// <summary>The user of a database.</summary>
    User,

    /// <summary>The login of an instance.</summary>
    Login,
}

/// <summary>The step that takes a right away, or why there is none.</summary>
public readonly record struct Taken(Change? Change, string WhyNot, TakenOrder Order)
{
    /// <summary>What is taken before, or it would come back; null for nothing.</summary>
    public TakenBefore? Before { get; init; }

    /// <summary>There is none, and nothing more is known.</summary>
    public static Taken NoStep { get; } = Not("Just Right has no step that removes it");

    /// <summary>
    /// Its holder may hand it on: taking it away takes from others too what was handed on, or is refused.
    /// </summary>
    public static Taken HandedOn { get; } = Not("held WITH GRANT OPTION: revoking it would cascade; ask the DBA");

    /// <summary>The ownership of a database ends only with another owner, whom the organization names.</summary>
    /// <param name="whyNot">Why one that it names cannot own the database; null when it can.</param>
    public static Taken OfOwner(Taking taking, string instance, string database, string owner, Func<string, string?> whyNot) =>
        taking.HasAnotherHolder ? Not("it ends when the new owner is set")
        : !taking.NewOwners.TryGetValue(instance, out var next)
            ? Not($"only the organization can choose another owner: name one under rules: new-owners: {{ {instance}: … }}")
        : whyNot(next) is { } why ? Not($"{next} cannot own {instance}/{database}: {why}")
        : By(new ChangeDatabaseOwner(instance, database, next, owner));

    /// <summary>A step.</summary>
    public static Taken By(Change change, TakenOrder order = TakenOrder.Right) => new(change, "", order);

    /// <summary>There is none, and why.</summary>
    public static Taken Not(string why) => new(null, why, TakenOrder.Right);
}

/// <summary>What is taken before a right, for the right would come back.</summary>
/// <param name="Blocked">Why that cannot be done from here; null when it can.</param>
/// <param name="Rights">The rights of the same holder that go with it, here and at other places.</param>
public sealed record TakenBefore(Change Change, string? Blocked, IReadOnlyList<Right> Rights);
