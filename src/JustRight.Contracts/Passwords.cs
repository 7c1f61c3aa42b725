using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>What is known of the password of one account.</summary>
/// <param name="Account">The logon name of the account.</param>
/// <param name="Keeper"><c>us</c>, <c>product</c> or <c>directory</c>.</param>
/// <param name="KeptBy">Who changes it, in words.</param>
/// <param name="Uses">The installs that use the account.</param>
/// <param name="Standing">
/// <c>overdue</c>, <c>unreasoned</c>, <c>soon</c>, <c>unseen</c>, <c>later</c>, <c>undated</c>, <c>managed</c> or
/// <c>not-made</c>.
/// </param>
/// <param name="Due">When something is to be done, or null.</param>
/// <param name="Words">One sentence: why then.</param>
/// <param name="SetAt">When it was last set; null when that is not known.</param>
/// <param name="ExpiresAt">When it expires; null when it never does, or that is not known.</param>
/// <param name="Never">Whether it never expires.</param>
/// <param name="Quarrel">What several products that use it do not agree on, or null.</param>
/// <param name="Places">In how many places it is typed.</param>
/// <param name="Renewal">The id of the renewal that is under way, or null.</param>
public sealed record AccountPasswordView(
    string Account, [property: AllowedValues("us", "product", "directory")] string Keeper, string KeptBy,
    IReadOnlyList<string> Uses,
    [property: AllowedValues(
        "overdue", "unreasoned", "soon", "unseen", "later", "undated", "managed", "not-made")] string Standing,
    DateTimeOffset? Due, string Words, DateTimeOffset? SetAt, DateTimeOffset? ExpiresAt, bool Never, string? Quarrel,
    int Places, string? Renewal);

/// <summary>The passwords of an estate.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="Simulated">Whether it is the simulation.</param>
/// <param name="ReadAt">When the directory was read, or null when it never was.</param>
/// <param name="Accounts">The accounts.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record PasswordsView(
    string Estate, bool Simulated, DateTimeOffset? ReadAt, IReadOnlyList<AccountPasswordView> Accounts, int Skipped, int Total);

/// <summary>A place where the password of an account is typed.</summary>
/// <param name="Account">The logon name of the account.</param>
/// <param name="Product">The product that uses it there.</param>
/// <param name="Install">The install; empty for a place that a person told of.</param>
/// <param name="Host">The host on which it is typed.</param>
/// <param name="Where">The file, the page, or that it is a service.</param>
/// <param name="Setting">The product's own name of the setting, or the name of the service.</param>
/// <param name="Breaks">What stops when the password is changed in the directory and not here.</param>
/// <param name="Kind"><c>own-secret</c>, <c>service</c>, <c>sign-in</c>, <c>setting</c> or <c>told</c>.</param>
/// <param name="Words">Where it is, in one phrase.</param>
/// <param name="AtOnce">Whether every use is refused from that moment.</param>
/// <param name="Reference">The secret that it refers to, where it holds no password itself.</param>
/// <param name="NotSeen">Why what is there now could not be looked at, or null.</param>
/// <param name="Note">What was seen that somebody should know before the next change, or null.</param>
/// <param name="LastBy">Who changed it there last, as far as we know.</param>
/// <param name="LastAt">When it was last changed there, as far as we know; null otherwise.</param>
/// <param name="Told">For a place that a person told of: its number, by which it is taken out again.</param>
public sealed record PasswordPlaceView(
    string Account, string Product, string Install, string Host, string Where, string Setting, string Breaks,
    [property: AllowedValues("own-secret", "service", "task", "pool", "sign-in", "setting", "told")] string Kind,
    string Words, bool AtOnce,
    string? Reference, string? NotSeen, string? Note, string? LastBy, DateTimeOffset? LastAt, int? Told);

/// <summary>The password of one account: how it stands, where it is typed, what its renewal would do.</summary>
/// <param name="Password">How it stands.</param>
/// <param name="Places">Where it is typed.</param>
/// <param name="ManagedObstacles">
/// What stands in the way of letting the directory keep it; empty when nothing that is known does, null where it does so
/// already.
/// </param>
/// <param name="Order">The steps of a renewal, in order; empty when we do not change it.</param>
/// <param name="Remarks">What a person should know before it begins.</param>
/// <param name="WhyNot">Why no renewal can begin, or null.</param>
/// <param name="Waits">Whether a password waits to be handed over.</param>
/// <param name="Renewals">Its renewals, the latest first.</param>
public sealed record PasswordDetailView(
    AccountPasswordView Password, IReadOnlyList<PasswordPlaceView> Places, IReadOnlyList<string>? ManagedObstacles,
    IReadOnlyList<RenewalStepView> Order, IReadOnlyList<string> Remarks, string? WhyNot, bool Waits,
    IReadOnlyList<RenewalView> Renewals);

/// <summary>One step of a renewal.</summary>
/// <param name="Number">Its place in the order, from 1.</param>
/// <param name="Act"><c>set-in-directory</c>, <c>keep</c>, <c>set</c>, <c>type</c>, <c>restart</c> or <c>check</c>.</param>
/// <param name="Secret"><c>new</c>, or <c>old</c> on the way back.</param>
/// <param name="Host">The host on which it is made; empty for the directory and the service.</param>
/// <param name="Words">What is done, in one line.</param>
/// <param name="Why">Why here in the order.</param>
/// <param name="State">
/// <c>waiting</c>, <c>intended</c>, <c>made</c>, <c>already-so</c>, <c>refused</c>, <c>failed</c>, <c>skipped</c>,
/// <c>abandoned</c>, <c>dropped</c> or <c>undone</c>.
/// </param>
/// <param name="Note">What came of it, or what a person said; empty when there is nothing to say.</param>
/// <param name="By">Who made it; empty while nobody did.</param>
/// <param name="At">When it was made; null while it was not.</param>
public sealed record RenewalStepView(
    int Number, [property: AllowedValues("set-in-directory", "keep", "set", "type", "restart", "check")] string Act,
    [property: AllowedValues("new", "old")] string Secret, string Host, string Words, string Why,
    [property: StepStateWord] string State,
    string Note, string By, DateTimeOffset? At);

/// <summary>A renewal.</summary>
/// <param name="Id">Names the renewal, and the run that it is.</param>
/// <param name="Estate">The estate.</param>
/// <param name="Account">The logon name of the account.</param>
/// <param name="Simulated">Whether it is the simulation.</param>
/// <param name="State">The state of the run that it is.</param>
/// <param name="Next"><c>go</c>, <c>person</c>, <c>window</c>, <c>decision</c> or <c>over</c>.</param>
/// <param name="Words">How it stands, in one sentence.</param>
/// <param name="Current">The number of the step that is next, or null.</param>
/// <param name="OpensAt">When the host's time of restarts begins, where it waits for that.</param>
/// <param name="GoesBack">Whether it goes back to the old password.</param>
/// <param name="CanGoBack">Whether the old password is known, so that it could.</param>
/// <param name="StartedBy">Who began it.</param>
/// <param name="StartedAt">When it was begun.</param>
/// <param name="EndedAt">When it was over; null while it is not.</param>
/// <param name="Steps">Its steps, in order.</param>
/// <param name="Remarks">What a person should know.</param>
/// <param name="Divided">The places whose password is not, or may not be, the one in the directory.</param>
public sealed record RenewalView(
    string Id, string Estate, string Account, bool Simulated, [property: JobStateWord] string State,
    [property: AllowedValues("go", "person", "window", "decision", "over")] string Next, string Words, int? Current,
    DateTimeOffset? OpensAt, bool GoesBack, bool CanGoBack, string StartedBy, DateTimeOffset StartedAt,
    DateTimeOffset? EndedAt, IReadOnlyList<RenewalStepView> Steps, IReadOnlyList<string> Remarks,
    IReadOnlyList<string> Divided);

/// <summary>A place that a person tells of.</summary>
/// <param name="Host">The host on which it is typed.</param>
/// <param name="Where">The file or the page.</param>
/// <param name="Setting">The product's own name of the setting.</param>
/// <param name="Breaks">What stops when the password is changed in the directory and not here.</param>
/// <param name="Reference">The secret that it refers to, where it holds no password itself; null otherwise.</param>
public sealed record PlaceOrder(string Host, string Where, string Setting, string Breaks, string? Reference);

/// <summary>A password to try; null for the one that is kept.</summary>
/// <param name="Password">The password. It is used once and kept nowhere.</param>
public sealed record PasswordTryOrder(string? Password);

/// <summary>What came of trying a password.</summary>
/// <param name="Account">The account, as <c>DOMAIN\name</c>.</param>
/// <param name="Works">Whether the directory took it; null when it was not tried.</param>
/// <param name="Words">What came of it, in one sentence.</param>
/// <param name="WrongCounted">How many wrong ones count before; null when that may not be read.</param>
/// <param name="LockedAfter">After how many the account is locked; 0 for never, null when that may not be read.</param>
/// <param name="At">When it was tried.</param>
public sealed record PasswordTryView(
    string Account, bool? Works, string Words, int? WrongCounted, int? LockedAfter, DateTimeOffset At);

/// <summary>A password that is shown once.</summary>
/// <param name="Account">The account, as <c>DOMAIN\name</c>.</param>
/// <param name="Password">The password.</param>
public sealed record ShownPassword(string Account, string Password);
