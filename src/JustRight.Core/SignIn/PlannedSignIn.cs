using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;

namespace JustRight.Core.SignIn;

/// <summary>Sheet, directory and install laid over one another: with what a product lets people sign in here.</summary>
/// <param name="Directory">The directory.</param>
/// <param name="Wants">What the product wants to be told.</param>
/// <param name="Install">What the install says.</param>
/// <param name="Security">The best way of reaching the directory that both sides know.</param>
/// <param name="TypedOn">The hosts on which the settings are typed.</param>
public sealed record PlannedSignIn(
    PeopleDirectory Directory, SheetSignIn Wants, InstallSignIn Install, WireSecurity Security, IReadOnlyList<string> TypedOn)
{
    /// <summary>The domain, for directories that are one.</summary>
    public required Domain Domain { get; init; }

    /// <summary>
    /// The logon name of the account of the plan that the product binds as; null where the install names one of the directory's
    /// own.
    /// </summary>
    public string? BindLogonName { get; init; }

    /// <summary>
    /// The distinguished name of the bind account; null for an existing account of the domain, which only a survey knows the
    /// place of.
    /// </summary>
    public string? BindDn { get; init; }

    /// <summary>The name of the group whose members may enter; null when everyone found may.</summary>
    public string? EnterName { get; init; }

    /// <summary>
    /// Its distinguished name; null for an existing group of the domain, which only a survey knows the place of.
    /// </summary>
    public string? EnterDn { get; init; }

    /// <summary>What the names of groups start with that an administrator sees.</summary>
    public IReadOnlyList<string> GroupsStart =>
        Install.GroupsStart.Count > 0 ? Install.GroupsStart : Wants.Groups?.NamesStart ?? [];

    /// <summary>Whether the directory's own filter decides who may enter.</summary>
    public bool GroupInFilter =>
        EnterName is not null && Wants.Nested != NestedGroups.ByProduct
            && (Directory.Family == DirectoryFamily.AdLike || Directory.BackLink);

    /// <summary>Whether members of groups inside groups count.</summary>
    public bool NestedCount =>
        Wants.Nested == NestedGroups.ByProduct
            || (Wants.Nested == NestedGroups.ByFilter && Directory.Family == DirectoryFamily.AdLike);

    /// <summary>The plan with names that a survey has found.</summary>
    /// <param name="dnOf">The distinguished name of a logon name in the domain, or null when it was not found.</param>
    public PlannedSignIn Located(Func<string, string?> dnOf) => this with
    {
        BindDn = BindDn ?? (BindLogonName is null ? null : dnOf(BindLogonName)),
        EnterDn = EnterDn ?? (EnterName is null ? null : dnOf(EnterName)),
    };
}
