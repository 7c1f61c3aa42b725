using JustRight.Core.Sheets;

namespace JustRight.Core.Rights;

/// <summary>What no survey reads: a person looks at it, and says what they saw. A closed hierarchy.</summary>
/// <param name="Product">The product's name in full.</param>
/// <param name="Name">What it is called, by which a person says which they looked at.</param>
/// <param name="Details">What a person's word is given for: where it reads otherwise later, the word counts no longer.</param>
/// <param name="ConfirmedFor">How long a person's word counts.</param>
public abstract record Confirmable(string Product, string Name, IReadOnlyList<string> Details, TimeSpan ConfirmedFor)
{
    /// <summary>What is said of it while nobody has confirmed it.</summary>
    public abstract string Unsaid { get; }

    /// <summary>What is said of it where a person saw that it is not so.</summary>
    public abstract string NotSo { get; }

    /// <summary>What is to be done where a word counts no longer.</summary>
    public abstract string LookAgain { get; }

    /// <summary>What is said where a word was given for other details.</summary>
    /// <param name="given">Those it was given for.</param>
    public abstract string OtherDetails(IReadOnlyList<string> given);
}

/// <summary>An identity inside a product that an account is mapped to.</summary>
/// <param name="Product">The product's name in full.</param>
/// <param name="Identity">The identity, as the product calls it.</param>
/// <param name="Lets">The operations that it must allow, and no others; empty when the sheet leaves that to its name.</param>
/// <param name="ConfirmedFor">How long a person's confirmation counts.</param>
public sealed record InsideProduct(string Product, string Identity, IReadOnlyList<string> Lets, TimeSpan ConfirmedFor)
    : Confirmable(Product, Identity, Lets, ConfirmedFor)
{
    /// <inheritdoc/>
    public override string Unsaid => "a person must look it up inside the product; nobody has confirmed it yet";

    /// <inheritdoc/>
    public override string NotSo => "not there";

    /// <inheritdoc/>
    public override string LookAgain => "look it up and confirm it again";

    /// <inheritdoc/>
    public override string OtherDetails(IReadOnlyList<string> given) =>
        $"a person confirmed it for other operations: {(given.Count == 0 ? "none named" : string.Join(", ", given))}";
}

/// <summary>A task: something needed that a person does, and proves.</summary>
/// <param name="Product">The product's name in full.</param>
/// <param name="Task">The key of the task in the sheet.</param>
/// <param name="Work">What is to be done, as a sentence that tells somebody to do it.</param>
/// <param name="DoneWhen">How one sees that it is done.</param>
/// <param name="ConfirmedFor">How long a person's word counts.</param>
/// <param name="Team">Who does it.</param>
/// <param name="WaitsFor">
/// What must be so before it can be done: keys of other tasks of the sheet, or what <see cref="TaskNeed"/> names.
/// </param>
public sealed record TaskAsked(
    string Product, string Task, string Work, string DoneWhen, TimeSpan ConfirmedFor, Team Team, IReadOnlyList<string> WaitsFor)
    : Confirmable(Product, Task, [Work, DoneWhen], ConfirmedFor)
{
    /// <inheritdoc/>
    public override string Unsaid => "nobody has confirmed yet that it is done";

    /// <inheritdoc/>
    public override string NotSo => "not done";

    /// <inheritdoc/>
    public override string LookAgain => "look again and confirm it";

    /// <inheritdoc/>
    public override string OtherDetails(IReadOnlyList<string> given) =>
        "a person confirmed it when the sheet asked for something else";
}
