using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A database instance as the latest survey read it.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="Name">Its name, as the estate has it.</param>
/// <param name="Simulated">Whether it is simulated.</param>
/// <param name="Engine">The family of database server.</param>
/// <param name="Release">Its release as it says, or as the estate says when it does not; empty when neither does.</param>
/// <param name="Host">The host it runs on.</param>
/// <param name="Partners">The instances that take over from it, and it from them.</param>
/// <param name="Reach">How it is reached, in words.</param>
/// <param name="ReadAt">When it was read.</param>
/// <param name="ReadBy">Who read it, as the instance calls the reader; empty when it was not told.</param>
/// <param name="Unread">Why nothing could be read, or null.</param>
/// <param name="UnreadParts">Parts that could not be read, though the instance could.</param>
/// <param name="Databases">The names of its databases that were read.</param>
/// <param name="Holders">How many rights accounts and machines have there; each is told page by page.</param>
/// <param name="Ways">Who can come to more than was granted there, and how.</param>
/// <param name="MoreWays">How many more ways there are than are listed.</param>
/// <param name="WaysUnread">What could not be read, so that ways over it are not told; null when all was.</param>
/// <param name="Installs">The installs that need something of it.</param>
public sealed record InstanceView(
    string Estate, string Name, bool Simulated, [property: AllowedValues("sqlserver", "postgresql")] string Engine,
    string Release, string Host, IReadOnlyList<string> Partners, [property: ReachWord] string Reach, DateTimeOffset ReadAt,
    string ReadBy, string? Unread, IReadOnlyList<UnreadPartView> UnreadParts, IReadOnlyList<string> Databases,
    int Holders, IReadOnlyList<InstanceWayView> Ways, int MoreWays,
    string? WaysUnread, IReadOnlyList<string> Installs);

/// <summary>A right that somebody has at an instance.</summary>
/// <param name="Who">The account, machine or group.</param>
/// <param name="Machine">Whether it is a computer account.</param>
/// <param name="Right">The right in words.</param>
/// <param name="Place">The instance or the database.</param>
/// <param name="Reach">How far the right reaches, as a number to sort by; 1000 rules all.</param>
/// <param name="Lets">What it lets its holder do.</param>
/// <param name="Paths">How it is held, path by path.</param>
/// <param name="WhyNot">Why it does not count, or null when it does.</param>
/// <param name="NeededBy">The installs that need it.</param>
public sealed record InstanceHolderView(
    string Who, bool Machine, string Right, string Place, int Reach, string Lets, IReadOnlyList<PathView> Paths,
    string? WhyNot, IReadOnlyList<string> NeededBy);

/// <summary>A page of the list of who can do what at an instance.</summary>
/// <param name="Items">The rights, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record InstanceHolderPage(IReadOnlyList<InstanceHolderView> Items, int Skipped, int Total);

/// <summary>An instance with a page of who can do what there.</summary>
/// <param name="Instance">The instance.</param>
/// <param name="Holders">The rights.</param>
public sealed record InstanceReport(InstanceView Instance, InstanceHolderPage Holders);

/// <summary>How somebody can come to more at an instance than was granted.</summary>
/// <param name="Who">The account or machine.</param>
/// <param name="Machine">Whether it is a computer account.</param>
/// <param name="Right">The right it can come to.</param>
/// <param name="Place">The instance or the database.</param>
/// <param name="Reach">How far that right reaches, as a number to sort by; 1000 rules all.</param>
/// <param name="Steps">The steps on the way, in words.</param>
public sealed record InstanceWayView(
    string Who, bool Machine, string Right, string Place, int Reach, IReadOnlyList<string> Steps);
