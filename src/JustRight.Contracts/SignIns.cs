using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>How people sign in to a product here: its sign-in settings, and what was found about it.</summary>
/// <param name="Install">The install.</param>
/// <param name="Title">Its name in full.</param>
/// <param name="Estate">The estate it is in.</param>
/// <param name="Simulated">Whether the directory is the simulation.</param>
/// <param name="Directory">The estate's key of the directory.</param>
/// <param name="Family"><c>ad-like</c> or <c>inetorgperson</c>.</param>
/// <param name="Host">The host and port of the directory, as the product is to reach it.</param>
/// <param name="PeopleWords">Whom the people filter is for.</param>
/// <param name="GroupsWords">Which groups an administrator sees; null when the product has no use for groups.</param>
/// <param name="Settings">The values, by neutral names.</param>
/// <param name="Files">The product's own settings, filled: each file and page.</param>
/// <param name="Roles">The product's roles, with the groups that stand for them.</param>
/// <param name="Findings">What was found about them.</param>
/// <param name="PasswordPlaces">Every place where the bind account's password is typed, in all installs of the estate.</param>
/// <param name="Ldif">LDIF [RFC 2849] that makes what the sign-in rests on in a directory of the inetOrgPerson family and was
/// not seen there; null when nothing is to be made, and in the estate's own domain, where the worklist makes it.</param>
/// <param name="PeopleReadAt">When people and groups of the directory were last read; null when they were not.</param>
/// <param name="SignInTest">The latest test; null when none was run.</param>
public sealed record SignInView(
    string Install, string Title, string Estate, bool Simulated, string Directory,
    [property: FamilyWord] string Family, string Host, string PeopleWords, string? GroupsWords,
    IReadOnlyList<SignInSettingView> Settings, IReadOnlyList<SignInFileView> Files, IReadOnlyList<SignInRoleView> Roles,
    IReadOnlyList<SettingsFindingView> Findings, IReadOnlyList<PasswordPlaceView> PasswordPlaces,
    string? Ldif, DateTimeOffset? PeopleReadAt, SignInTestView? SignInTest);

/// <summary>A file or a page in which the product is told its settings.</summary>
/// <param name="TypedOn">The hosts on which it is.</param>
/// <param name="Where">The file or the page.</param>
/// <param name="Form"><c>list</c> for a page; otherwise the format of the file.</param>
/// <param name="Text">The file, filled, or the list to type; secrets stand in it as references.</param>
/// <param name="Fields">The product's own settings in it, filled.</param>
public sealed record SignInFileView(
    IReadOnlyList<string> TypedOn, string Where,
    [property: AllowedValues("list", "ini", "env", "json", "xml", "properties", "yaml")] string Form, string Text,
    IReadOnlyList<SignInFieldView> Fields);

/// <summary>A role of the product.</summary>
/// <param name="Key">The key of the role in the sheet.</param>
/// <param name="Called">The product's own name for it.</param>
/// <param name="Groups">The groups whose members have it: distinguished names, or names as long as the place is not
/// known.</param>
/// <param name="Person">The logon name of somebody who must have it; null when nobody is named.</param>
public sealed record SignInRoleView(string Key, string Called, IReadOnlyList<string> Groups, string? Person);

/// <summary>A value of the settings, by neutral name.</summary>
/// <param name="Key">The neutral name.</param>
/// <param name="Says">What it is, in words.</param>
/// <param name="Value">Several values stand a line each; null when it is not known yet.</param>
/// <param name="Because">Why it is this, or why it is not known.</param>
/// <param name="IsReference">Whether it stands for a secret and is not the secret itself.</param>
public sealed record SignInSettingView(string Key, string Says, string? Value, string Because, bool IsReference);

/// <summary>One of the product's own settings.</summary>
/// <param name="Name">The product's own name.</param>
/// <param name="Value">What stands there; null when it is not known yet.</param>
/// <param name="Key">The neutral name of what stands there; null for a fixed text.</param>
/// <param name="IsReference">Whether it stands for a secret and is not the secret itself.</param>
/// <param name="Because">Why it is this, or why it is not known; null for a fixed text.</param>
public sealed record SignInFieldView(string Name, string? Value, string? Key, bool IsReference, string? Because);

/// <summary>A finding about settings.</summary>
/// <param name="Code">A stable word for this kind of finding.</param>
/// <param name="Weight"><c>wrong</c>, <c>caution</c> or <c>unseen</c>.</param>
/// <param name="Key">The neutral name of the setting it is about, or null.</param>
/// <param name="Text">What was found.</param>
/// <param name="Fix">What would mend it.</param>
public sealed record SettingsFindingView(
    string Code, [property: AllowedValues("wrong", "caution", "unseen")] string Weight, string? Key, string Text, string Fix);

/// <summary>An order to try a product's sign-in. Passwords are used once and kept nowhere.</summary>
/// <param name="BindPassword">Of the bind account; null to use the one that the service keeps.</param>
/// <param name="PersonPassword">Of the person who must be able to sign in; null to leave that out.</param>
public sealed record SignInTestOrder(string? BindPassword, string? PersonPassword);

/// <summary>A sign-in test.</summary>
/// <param name="Id">The job that ran it.</param>
/// <param name="Install">The install.</param>
/// <param name="Directory">The estate's key of the directory.</param>
/// <param name="StartedAt">When it began.</param>
/// <param name="EndedAt">When it ended.</param>
/// <param name="Simulated">Whether the directory is the simulation.</param>
/// <param name="Words">What came of it, in one line.</param>
/// <param name="Checks">Its checks, in order.</param>
/// <param name="People">The people who were found; null when that was not asked.</param>
/// <param name="Groups">The groups that were found; null when that was not asked.</param>
/// <param name="GroupNames">The names of the groups, as the product would see them.</param>
public sealed record SignInTestView(
    string Id, string Install, string Directory, DateTimeOffset StartedAt, DateTimeOffset EndedAt, bool Simulated,
    string Words, IReadOnlyList<SignInCheckView> Checks, ComparisonView? People, ComparisonView? Groups,
    IReadOnlyList<string> GroupNames);

/// <summary>A check of a sign-in test.</summary>
/// <param name="Id">A stable word for the check.</param>
/// <param name="Asks">What it asks.</param>
/// <param name="Verdict"><c>pass</c>, <c>fail</c>, <c>unseen</c>, or <c>caution</c> for what is worth a thought.</param>
/// <param name="Fact">What was found.</param>
/// <param name="Fix">What would fix it, or null.</param>
public sealed record SignInCheckView(
    string Id, string Asks, [property: AllowedValues("pass", "fail", "unseen", "caution")] string Verdict, string Fact,
    string? Fix)
{
    /// <summary>A stable word for what is behind it; null when it passes, and in tests of earlier releases.</summary>
    [SignInCauseWord]
    public string? Cause { get; init; }

    /// <summary>How many seconds it took; null in tests of earlier releases.</summary>
    public double? Seconds { get; init; }
}

/// <summary>Who was expected and who was found.</summary>
/// <param name="Expected">Null when nothing is expected.</param>
/// <param name="Found">How many were found.</param>
/// <param name="Missing">Who was expected and not found.</param>
/// <param name="Extra">Who was found and not expected.</param>
public sealed record ComparisonView(
    int? Expected, int Found, IReadOnlyList<NamedDifferenceView> Missing, IReadOnlyList<NamedDifferenceView> Extra);

/// <summary>A name in one list and not in the other.</summary>
/// <param name="Name">The name.</param>
/// <param name="Why">Why, where it is known; null otherwise.</param>
public sealed record NamedDifferenceView(string Name, string? Why)
{
    /// <summary>A stable word for why; null where it is not known, and in tests of earlier releases.</summary>
    [SignInCauseWord]
    public string? Cause { get; init; }
}

/// <summary>An order to look whom a filter finds.</summary>
/// <param name="Filter">The filter as text.</param>
/// <param name="Below">A distinguished name; null for all people and groups that were read.</param>
public sealed record FilterOrder(string Filter, string? Below);

/// <summary>Whom a filter finds.</summary>
/// <param name="Fault">Why the text is no filter; null when it is one.</param>
/// <param name="Text">The filter as we write it, every value escaped; null when it is none.</param>
/// <param name="Words">Whom it is for, in words.</param>
/// <param name="Found">How many it finds.</param>
/// <param name="Of">Of how many that were read; 0 when the directory itself was asked.</param>
/// <param name="Objects">A page of those of them that contain what was searched for.</param>
/// <param name="Skipped">How many stand before these.</param>
/// <param name="Total">How many of those found contain what was searched for; all of them where nothing was.</param>
/// <param name="NotJudged">Parts that only the directory itself can judge: it may find others.</param>
/// <param name="UnknownAttributes">Attributes that the directory does not know, by which it finds nobody.</param>
/// <param name="ReadAt">When people and groups were read.</param>
public sealed record FilterView(
    FilterFaultView? Fault, string? Text, string? Words, int Found, int Of, IReadOnlyList<FoundObjectView> Objects,
    int Skipped, int Total, IReadOnlyList<string> NotJudged, IReadOnlyList<string> UnknownAttributes, DateTimeOffset ReadAt);

/// <summary>Where and why a text is no filter.</summary>
/// <param name="Position">Counted from 0.</param>
/// <param name="Message">What is wrong there.</param>
/// <param name="Expected">What may stand there.</param>
public sealed record FilterFaultView(int Position, string Message, string Expected);

/// <summary>An object that a filter finds.</summary>
/// <param name="Dn">Its distinguished name.</param>
/// <param name="Name">Its name, for people.</param>
/// <param name="LogonName">What it signs in with; null when it has none.</param>
/// <param name="Kind">Its class: a person, a group or another.</param>
public sealed record FoundObjectView(
    string Dn, string Name, string? LogonName, [property: AllowedValues("person", "computer", "group", "other")] string Kind);
