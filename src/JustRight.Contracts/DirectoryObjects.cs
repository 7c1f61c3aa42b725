namespace JustRight.Contracts;

/// <summary>Whether an object of the directory is protected from accidental deletion.</summary>
/// <param name="Dn">Its distinguished name.</param>
/// <param name="Simulated">Whether it is the simulation.</param>
/// <param name="IsOn">Whether it is protected whole.</param>
/// <param name="Set">What setting the protection would change; empty when it is whole.</param>
/// <param name="Lift">What lifting it would change; empty when there is none.</param>
public sealed record ProtectionView(string Dn, bool Simulated, bool IsOn, IReadOnlyList<string> Set, IReadOnlyList<string> Lift);

/// <summary>An order to set or lift the protection of an object.</summary>
/// <param name="Dn">A key of the estate's branches, or a distinguished name.</param>
/// <param name="On">True to set, false to lift.</param>
public sealed record ProtectionOrder(string Dn, bool On);

/// <summary>Whether the controllers of a domain agree on an object.</summary>
/// <param name="Dn">The object's distinguished name.</param>
/// <param name="Used">The controller that the product reads and writes.</param>
/// <param name="Agree">Whether all that could be read have the same.</param>
/// <param name="Newest">The controller that has the newest of every attribute, or null when none has.</param>
/// <param name="Words">The answer in one line.</param>
/// <param name="Others">What each other controller has otherwise.</param>
/// <param name="Unread">The controllers that could not be read, each with the reason.</param>
public sealed record ReplicaComparisonView(
    string Dn, string Used, bool Agree, string? Newest, string Words, IReadOnlyList<ReplicaLagView> Others,
    IReadOnlyList<UnreadPartView> Unread);

/// <summary>What a controller has otherwise than the newest one.</summary>
/// <param name="Controller">The controller.</param>
/// <param name="Found">Whether the object is there at all.</param>
/// <param name="Attributes">The attributes whose values differ.</param>
/// <param name="ChangesBehind">How many attributes it has in an older version.</param>
/// <param name="SecondsBehind">How much later the newest change is on the newest controller.</param>
/// <param name="Words">The difference in one line.</param>
public sealed record ReplicaLagView(
    string Controller, bool Found, IReadOnlyList<string> Attributes, int ChangesBehind, double SecondsBehind, string Words);
