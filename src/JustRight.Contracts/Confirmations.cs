namespace JustRight.Contracts;

/// <summary>What a person saw inside a product.</summary>
/// <param name="Account">The account: its key or its name.</param>
/// <param name="Role">The identity inside the product, as the sheet calls it.</param>
/// <param name="Held">Whether the account is mapped to it there.</param>
/// <param name="SeenBy">Who looked, when that is somebody else than who writes it down.</param>
public sealed record ConfirmationOrder(string Account, string Role, bool Held, string? SeenBy = null);

/// <summary>A person's word on an identity inside a product.</summary>
/// <param name="Install">The install.</param>
/// <param name="Account">The key of the account in the sheet.</param>
/// <param name="Principal">The logon name of the account or group that is mapped.</param>
/// <param name="Role">The identity inside the product.</param>
/// <param name="Lets">The operations that were compared.</param>
/// <param name="Held">Whether it is mapped there.</param>
/// <param name="SeenBy">Who looked.</param>
/// <param name="WrittenBy">Whose token wrote it down.</param>
/// <param name="At">When it was written down.</param>
/// <param name="Until">Until when it counts.</param>
public sealed record ConfirmationView(
    string Install, string Account, string Principal, string Role, IReadOnlyList<string> Lets, bool Held, string SeenBy,
    string WrittenBy, DateTimeOffset At, DateTimeOffset Until);

/// <summary>What there is to confirm of one right, and what was last said of it.</summary>
/// <param name="Identity">The identity inside the product.</param>
/// <param name="Lets">The operations that it must allow, and no others; empty when the sheet names none.</param>
/// <param name="ForDays">For how many days a confirmation counts.</param>
/// <param name="SeenBy">Who last looked, or null.</param>
/// <param name="Held">Whether they saw it.</param>
/// <param name="At">When that was written down.</param>
/// <param name="Until">Until when it counts.</param>
public sealed record ProductRoleView(
    string Identity, IReadOnlyList<string> Lets, int ForDays, string? SeenBy, bool? Held, DateTimeOffset? At,
    DateTimeOffset? Until);
