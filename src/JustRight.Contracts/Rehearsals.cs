namespace JustRight.Contracts;

/// <summary>How a rehearsal is to be laid.</summary>
/// <param name="Fresh">Whether one that is there is laid anew: what was done in it is gone.</param>
/// <param name="AsSurveyed">
/// Whether it holds what the latest survey of the estate read: of a directory file, of host facts, or of the systems themselves.
/// Otherwise it holds what is usual.
/// </param>
/// <param name="Mistakes">
/// Mistakes to be found: <c>blocked-inheritance</c>, <c>policy-takes-right-back</c>, <c>leftover</c>, <c>shared-account</c>.
/// </param>
public sealed record RehearsalOrder(bool Fresh = false, bool AsSurveyed = false, IReadOnlyList<string>? Mistakes = null);

/// <summary>What the setup of a product made in a rehearsal.</summary>
/// <param name="Install">The install; its stage is <c>installed</c> now.</param>
/// <param name="Made">What was given in the simulation as the product's setup would, in words.</param>
/// <param name="Left">What could not be given, with the reason.</param>
public sealed record SetupPlayedView(string Install, IReadOnlyList<string> Made, IReadOnlyList<string> Left);

/// <summary>A rehearsal: a simulation of an estate, under the estate's own names.</summary>
/// <param name="Estate">What it is called as an estate.</param>
/// <param name="Rehearses">The estate that it is a copy of.</param>
/// <param name="LaidAt">When it was laid.</param>
/// <param name="SurveyedAt">When what it was filled with was surveyed; null where it holds what is usual.</param>
/// <param name="Installs">The installs in it.</param>
/// <param name="Accounts">How many accounts it was laid with, those of computers not among them.</param>
/// <param name="Groups">How many groups of the domain it was laid with.</param>
/// <param name="Hosts">How many hosts it has.</param>
/// <param name="Instances">How many database instances it has.</param>
/// <param name="Mistakes">What was laid wrong on purpose, in words.</param>
/// <param name="Remarks">What of the estate is not in it, in words.</param>
public sealed record RehearsalView(
    string Estate, string Rehearses, DateTimeOffset LaidAt, DateTimeOffset? SurveyedAt, IReadOnlyList<string> Installs,
    int Accounts, int Groups, int Hosts, int Instances, IReadOnlyList<string> Mistakes, IReadOnlyList<string> Remarks);
