namespace JustRight.Contracts;

/// <summary>An order to trace why an account can or cannot do something in the directory.</summary>
/// <param name="Account">Its logon name; or null when the service that fails is named.</param>
/// <param name="Service">A service of a sheet, instead of the account.</param>
/// <param name="Host">The host it runs on, when several installs have that service.</param>
/// <param name="Act">
/// What it should be able to do, in the words of sheets: <c>write attributes</c>, <c>change membership</c>, …
/// </param>
/// <param name="Attributes">For acts that name attributes.</param>
/// <param name="Of">
/// The class of object, or null for the act's own; <c>user</c> where it has none. Given objects are judged as their own class:
/// there it counts only for what is to be created in them.
/// </param>
/// <param name="Below">A branch of the estate by name, a distinguished name, or <c>everywhere</c>; or null.</param>
/// <param name="Objects">Objects that fail, by distinguished name or logon name, instead of a branch.</param>
/// <param name="IfMemberOf">Groups it is thought to be in: "would it, if…".</param>
/// <param name="IfInheriting">Objects at which inheritance is thought to be on.</param>
public sealed record TraceOrder(
    string? Account, string? Service, string? Host, string Act, IReadOnlyList<string>? Attributes, string? Of, string? Below,
    IReadOnlyList<string>? Objects, IReadOnlyList<string>? IfMemberOf, IReadOnlyList<string>? IfInheriting);

/// <summary>The answer to a trace.</summary>
/// <param name="Id">The job that answered.</param>
/// <param name="Estate">The estate.</param>
/// <param name="Simulated">Whether the directory is the simulation.</param>
/// <param name="Account"><c>DOMAIN\name</c>.</param>
/// <param name="Asked">The question in words.</param>
/// <param name="Of">The class of object; of given objects, their classes.</param>
/// <param name="Below">The branch's distinguished name, or null when objects were given.</param>
/// <param name="ReadFrom">The controller that was read.</param>
/// <param name="ReadAt">When the directory was read.</param>
/// <param name="Words">The answer in one line.</param>
/// <param name="Can">How many objects grant it.</param>
/// <param name="Cannot">How many refuse it.</param>
/// <param name="Unseen">How many could not be judged.</param>
/// <param name="Failures">Objects that refuse or could not be judged, by cause and place, the largest group first.</param>
/// <param name="NotFound">Given objects that are not there, or may not be seen.</param>
/// <param name="Unread">Parts of the directory that could not be read.</param>
/// <param name="Uncovered">Containers in which an object created tomorrow would refuse.</param>
/// <param name="Supposed">What was supposed and is not so.</param>
/// <param name="Tree">The containers that hold what was judged, top down.</param>
public sealed record TraceView(
    string Id, string Estate, bool Simulated, string Account, string Asked, string Of, string? Below, string ReadFrom,
    DateTimeOffset ReadAt, string Words, int Can, int Cannot, int Unseen, IReadOnlyList<TraceFailureView> Failures,
    IReadOnlyList<string> NotFound, IReadOnlyList<UnreadPartView> Unread, IReadOnlyList<string> Uncovered,
    IReadOnlyList<string> Supposed, IReadOnlyList<TraceBranchView> Tree);

/// <summary>Objects that fail for one reason at one place.</summary>
/// <param name="Number">Its place in the list, from 1.</param>
/// <param name="Cause">
/// <c>nothing-gives-it</c>, <c>inheritance-stops</c>, <c>denied</c>, <c>protected-group</c>, <c>left-by-protected-group</c>,
/// <c>not-understood</c>, <c>membership-unread</c>, <c>unread</c> or <c>not-of-its-class</c>.
/// </param>
/// <param name="Words">The cause, in words.</param>
/// <param name="At">Where the reason lies.</param>
/// <param name="Count">How many objects.</param>
/// <param name="Objects">The objects; at most a thousand are named.</param>
/// <param name="Remedies">Ways to fix it.</param>
public sealed record TraceFailureView(
    int Number, [property: CauseWord] string Cause, string Words, IReadOnlyList<string> At, int Count,
    IReadOnlyList<string> Objects, IReadOnlyList<RemedyView> Remedies)
{
    /// <summary>What fails of all that was asked, each alone: <c>write mail</c>.</summary>
    public IReadOnlyList<string> Asked { get; init; } = [];
}

/// <summary>A way to fix a failure, and what it would change.</summary>
/// <param name="Id">Names the remedy within the trace.</param>
/// <param name="Title">What it does, in one line.</param>
/// <param name="Steps">Its steps, in words.</param>
/// <param name="Touched">How many access lists would change.</param>
/// <param name="TouchedObjects">Which; at most two hundred are named.</param>
/// <param name="Fixed">How many of the failing objects would grant what is asked.</param>
/// <param name="StillFailing">How many would still refuse.</param>
/// <param name="Gained">Rights that would flow in, for everybody.</param>
/// <param name="Lost">Rights that would go.</param>
/// <param name="Lists">The lists of the places that change themselves, before and after.</param>
public sealed record RemedyView(
    string Id, string Title, IReadOnlyList<string> Steps, int Touched, IReadOnlyList<string> TouchedObjects, int Fixed,
    int StillFailing, IReadOnlyList<RightFlowView> Gained, IReadOnlyList<RightFlowView> Lost,
    IReadOnlyList<ListPreviewView> Lists);

/// <summary>A right that flows in or goes.</summary>
/// <param name="Who">Who would have it, or had it.</param>
/// <param name="What">The right, in words.</param>
/// <param name="Denies">Whether it denies.</param>
/// <param name="Objects">On how many objects.</param>
public sealed record RightFlowView(string Who, string What, bool Denies, int Objects);

/// <summary>An access list before and after, an entry a line.</summary>
/// <param name="Dn">The object's distinguished name.</param>
/// <param name="Before">The list as it is.</param>
/// <param name="After">The list as it would be.</param>
public sealed record ListPreviewView(string Dn, IReadOnlyList<string> Before, IReadOnlyList<string> After);

/// <summary>A container of the drawn tree.</summary>
/// <param name="Dn">Its distinguished name.</param>
/// <param name="Name">Its name alone.</param>
/// <param name="Depth">How deep it lies, from 0.</param>
/// <param name="Inherits">Whether it inherits; null when that was not read.</param>
/// <param name="Can">How many objects in it grant it.</param>
/// <param name="Cannot">How many in it refuse it.</param>
/// <param name="Unseen">How many in it could not be judged.</param>
/// <param name="IsCause">Whether a failure lies here.</param>
public sealed record TraceBranchView(
    string Dn, string Name, int Depth, bool? Inherits, int Can, int Cannot, int Unseen, bool IsCause);

/// <summary>An order to carry out a remedy of a trace.</summary>
/// <param name="Remedy">The id of the remedy.</param>
public sealed record FixOrder(string Remedy);
