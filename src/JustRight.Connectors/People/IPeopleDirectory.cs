using System.DirectoryServices.Protocols;
using JustRight.Core.Directory;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>A directory that people sign in with, as a product meets it.</summary>
public interface IPeopleDirectory
{
    /// <summary>Looks at the way there without signing in. What fails is in the answer, never thrown.</summary>
    Task<ConnectionLook> LookAsync(WireSecurity security, CancellationToken cancel);

    /// <summary>Binds as an account.</summary>
    /// <param name="name">In whichever form: a distinguished name, <c>name@domain</c>, <c>DOMAIN\name</c>.</param>
    /// <exception cref="ConnectorException">The directory refuses, or cannot be reached. An empty password is refused here: to
    /// a directory it means somebody else.</exception>
    Task<IPeopleSession> BindAsync(WireSecurity security, string name, NewPassword password, CancellationToken cancel);

    /// <summary>
    /// Tries a password once, and tells what the directory says of it. What fails is in the answer, never thrown.
    /// </summary>
    /// <param name="name">In whichever form: a distinguished name, <c>name@domain</c>, <c>DOMAIN\name</c>.</param>
    Task<PasswordAnswer> TryPasswordAsync(WireSecurity security, string name, NewPassword password, CancellationToken cancel);

    /// <summary>
    /// How many objects at or below a name are shown to somebody who did not sign in: at most one is asked for. Null when the
    /// directory refuses to say.
    /// </summary>
    Task<int?> ShownToAnybodyAsync(WireSecurity security, string baseDn, CancellationToken cancel);

    /// <summary>Binds with a name and an empty password, which asks for an unauthenticated bind [RFC 4513 5.1.2].</summary>
    Task<EmptyPasswordAnswer> TryEmptyPasswordAsync(WireSecurity security, string name, CancellationToken cancel);
}

/// <summary>What a directory makes of an empty password.</summary>
public enum EmptyPasswordAnswer
{
    /// <summary>It refuses.</summary>
    Refused,

    /// <summary>It says yes and takes the caller for nobody. A product that asks no further lets anyone in.</summary>
    TakenForNobody,
}

/// <summary>What a directory says of a name and a password.</summary>
/// <param name="Cause">Why nobody gets on with it; null when somebody does.</param>
/// <param name="Words">What it says, as a part of a sentence behind the name.</param>
public sealed record PasswordAnswer(SignInCause? Cause, string Words);

/// <summary>A directory as one account sees it.</summary>
public interface IPeopleSession : IDisposable
{
    /// <summary>
    /// Where searches below a name were referred to, so far, for parts that this directory does not hold.
    /// </summary>
    IReadOnlyCollection<string> PartsElsewhere(string baseDn);

    /// <summary>Who the directory says we are [RFC 4532]; null when it does not say.</summary>
    string? WhoAmI();

    /// <summary>
    /// Searches, page by page [RFC 2696]. While the caller works on a page, the directory is asked for the next.
    /// </summary>
    /// <param name="filter">As text; it is sent as it stands.</param>
    /// <param name="pageSize">How many objects to ask for at a time; null to ask for all at once.</param>
    /// <exception cref="ConnectorException">The directory refuses the filter or breaks off, or the base is not there or may not
    /// be seen.</exception>
    IEnumerable<PeopleObject> Search(
        string baseDn, SearchScope scope, string filter, int? pageSize, params IReadOnlyList<string> attributes);

    /// <summary>
    /// Whether this account could write an attribute of an object. Asked for by taking away a value that the object does not
    /// have, which changes nothing either way. Null when it cannot be told.
    /// </summary>
    bool? CouldWrite(string dn, string attribute);

    /// <summary>What the directory says of its attributes and classes; empty when it does not.</summary>
    (IReadOnlyList<string> AttributeTypes, IReadOnlyList<string> ObjectClasses) Schema();
}
