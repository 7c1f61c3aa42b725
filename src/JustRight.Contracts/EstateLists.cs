using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A host of an estate, in a list.</summary>
/// <param name="Name">Its name, as the estate has it.</param>
/// <param name="Reach">How it is reached, in words.</param>
/// <param name="System">Its operating system; empty while it was not read.</param>
/// <param name="ReadAt">When it was read; null while it never was.</param>
/// <param name="Unread">Why it could not be read; null when it could, or was never tried.</param>
/// <param name="Services">How many services it has; null while it was not read.</param>
/// <param name="Instances">The database instances on it.</param>
/// <param name="Installs">The installs that need something of it.</param>
public sealed record HostSummary(
    string Name, [property: ReachWord] string Reach, string System, DateTimeOffset? ReadAt, string? Unread, int? Services,
    IReadOnlyList<string> Instances, IReadOnlyList<string> Installs);

/// <summary>A page of the list of hosts.</summary>
/// <param name="Items">The hosts, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record HostPage(IReadOnlyList<HostSummary> Items, int Skipped, int Total);

/// <summary>A database instance of an estate, in a list.</summary>
/// <param name="Name">Its name, as the estate has it.</param>
/// <param name="Engine">The family of database server.</param>
/// <param name="Release">Its release, as it says or as the estate says; empty when neither does.</param>
/// <param name="Host">The host it runs on.</param>
/// <param name="Reach">How it is reached, in words.</param>
/// <param name="ReadAt">When it was read; null while it never was.</param>
/// <param name="Unread">Why it could not be read; null when it could, or was never tried.</param>
/// <param name="UnreadParts">How many of its parts and databases could not be read, though it could.</param>
/// <param name="Databases">How many databases it has; null while it was not read.</param>
/// <param name="Installs">The installs that need something of it.</param>
public sealed record InstanceSummary(
    string Name, [property: AllowedValues("sqlserver", "postgresql")] string Engine, string Release, string Host,
    [property: ReachWord] string Reach, DateTimeOffset? ReadAt, string? Unread, int UnreadParts, int? Databases,
    IReadOnlyList<string> Installs);

/// <summary>A page of the list of database instances.</summary>
/// <param name="Items">The instances, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record InstancePage(IReadOnlyList<InstanceSummary> Items, int Skipped, int Total);

/// <summary>An account that installs of an estate need, in a list.</summary>
/// <param name="Name">Its logon name.</param>
/// <param name="State"><c>there</c>, <c>disabled</c>, <c>not-there</c>, or <c>unseen</c> while nothing was read.</param>
/// <param name="Dn">Its place in the directory; null while that is not known.</param>
/// <param name="PasswordSetAt">When its password was last set; null when that is not known.</param>
/// <param name="Uses">The installs that need it, and for what.</param>
public sealed record AccountSummary(
    string Name, [property: AllowedValues("there", "disabled", "not-there", "unseen")] string State, string? Dn,
    DateTimeOffset? PasswordSetAt, IReadOnlyList<AccountUseView> Uses);

/// <summary>What an install needs an account for.</summary>
/// <param name="Install">The install.</param>
/// <param name="Account">What its sheet calls the account.</param>
/// <param name="WorksAs">How it is used.</param>
public sealed record AccountUseView(string Install, string Account, [property: WorksAsWord] string WorksAs);

/// <summary>A page of the list of accounts.</summary>
/// <param name="Items">The accounts, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record AccountPage(IReadOnlyList<AccountSummary> Items, int Skipped, int Total);

/// <summary>A group that installs of an estate need, in a list.</summary>
/// <param name="Name">Its logon name.</param>
/// <param name="State"><c>there</c>, <c>not-there</c>, or <c>unseen</c> while nothing was read.</param>
/// <param name="Dn">Its place in the directory; null while that is not known.</param>
/// <param name="Members">How many are in it, themselves; null while that is not known.</param>
/// <param name="Installs">The installs that need it.</param>
public sealed record GroupSummary(
    string Name, [property: AllowedValues("there", "not-there", "unseen")] string State, string? Dn, int? Members,
    IReadOnlyList<string> Installs);

/// <summary>A page of the list of groups.</summary>
/// <param name="Items">The groups, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record GroupPage(IReadOnlyList<GroupSummary> Items, int Skipped, int Total);

/// <summary>Something that was found by its words.</summary>
/// <param name="Kind">
/// <c>install</c>, <c>sheet</c>, <c>estate</c>, <c>host</c>, <c>instance</c>, <c>account</c>, <c>group</c>, <c>run</c> or
/// <c>log</c>.
/// </param>
/// <param name="Name">Its name; the number of an entry of the log.</param>
/// <param name="Estate">The estate it is in; empty for what is in none.</param>
/// <param name="Words">What else there is to say.</param>
/// <param name="At">When it was, for a run and an entry of the log; null for others.</param>
public sealed record FoundView(
    [property: FoundKindWord] string Kind, string Name, string Estate, string Words, DateTimeOffset? At = null);

/// <summary>How much of a kind was found.</summary>
/// <param name="Kind">The kind, as of what was found.</param>
/// <param name="Total">How much; null when it is too much to count.</param>
public sealed record FoundCountView([property: FoundKindWord] string Kind, int? Total);

/// <summary>What was found by its words.</summary>
/// <param name="Items">Of each kind the first few, and of what happened the newest.</param>
/// <param name="Counts">How much there is of each kind in all; a kind of which there is nothing is left out.</param>
public sealed record FoundPage(IReadOnlyList<FoundView> Items, IReadOnlyList<FoundCountView> Counts);
