using System.DirectoryServices.Protocols;
using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.Settings;
using JustRight.Core.SignIn.SignInTests;
using SignInSettings = JustRight.Core.SignIn.Settings.SignInSettings;

namespace JustRight.Connectors.People;

/// <summary>Passwords that a sign-in test is given for its length; they are kept nowhere.</summary>
/// <param name="Bind">Of the bind account; null when it is not known.</param>
/// <param name="Person">Of the person who must be able to sign in; null when nobody typed it.</param>
public sealed record SignInTestPasswords(NewPassword? Bind, NewPassword? Person)
{
    /// <summary>
    /// Why the bind account's password is not given for this, though it is kept; null when it is not kept either.
    /// </summary>
    public string? BindWithheld { get; init; }
}

/// <summary>How a sign-in test goes on.</summary>
public interface ISignInTestObserver
{
    /// <summary>Something is being asked.</summary>
    void Asking(string asks);

    /// <summary>A check came to its end.</summary>
    void Said(SignInCheck check);

    /// <summary>Something is being counted.</summary>
    /// <param name="what">Such as <c>people</c>.</param>
    void Counting(string what, int sofar);
}

/// <summary>What the parts of a sign-in test share: the plan, its settings, and the checks so far.</summary>
/// <param name="longest">How long the whole may take: what has not begun by then is not made.</param>
internal sealed class SignInTestRun(
    PlannedSignIn plan, SignInSettings settings, IPeopleDirectory directory, SignInTestPasswords passwords, TimeProvider time,
    TimeSpan longest, ISignInTestObserver watcher, CancellationToken cancel)
{
    /// <summary>How many objects are asked for at a time where the product does not say.</summary>
    public const int OwnPageSize = 500;

    private readonly List<SignInCheck> _checks = [];
    private readonly long _begun = time.GetTimestamp();
    private long _said = time.GetTimestamp();

    public PlannedSignIn Plan => plan;

    public SignInSettings Settings => settings;

    public IPeopleDirectory Directory => directory;

    public SignInTestPasswords Passwords => passwords;

    public DateTimeOffset Now { get; } = time.GetUtcNow();

    public CancellationToken Cancel => cancel;

    public AttributeMap Map { get; } = AttributeMap.Of(plan.Directory);

    public bool IsAdLike => plan.Directory.Family == DirectoryFamily.AdLike;

    /// <summary>Who is in the groups that were looked up, by the keys of their names.</summary>
    public Dictionary<string, GroupMembers> Members { get; } = new(StringComparer.Ordinal);

    /// <summary>Who is in each group of the directory, by the keys of their names, once that was looked up.</summary>
    public IReadOnlyDictionary<string, List<string>>? AllGroups { get; set; }

    public IReadOnlyList<SignInCheck> Checks => _checks;

    /// <summary>Below which branches the product looks for people.</summary>
    public IReadOnlyList<string> PeopleBases => Bases(SettingKeys.PeopleBase);

    /// <summary>Below which branches the product looks for groups.</summary>
    public IReadOnlyList<string> GroupsBases => Bases(SettingKeys.GroupsBase);

    /// <summary>The branches of people, for people.</summary>
    public string PeopleBaseWords => string.Join(" or ", PeopleBases);

    /// <summary>How many objects the product asks for at a time; null when it cannot ask page by page.</summary>
    public int? ProductPageSize =>
        settings[SettingKeys.PageSize] is { } size ? int.Parse(size, CultureInfo.InvariantCulture) : null;

    /// <summary>Searches for people as the product does: in each of its branches, as deep as it looks.</summary>
    public IEnumerable<PeopleObject> SearchPeople(
        IPeopleSession session, string filter, int? pageSize, params IReadOnlyList<string> attributes) =>
        Search(session, PeopleBases, plan.PeopleDepth, filter, pageSize, attributes);

    /// <summary>Searches for groups as the product does.</summary>
    public IEnumerable<PeopleObject> SearchGroups(
        IPeopleSession session, string filter, int? pageSize, params IReadOnlyList<string> attributes) =>
        Search(session, GroupsBases, plan.GroupsDepth, filter, pageSize, attributes);

    /// <summary>Whether the product looks where somebody is.</summary>
    public bool IsSearched(PeopleObject person) => PeopleBases.Any(b => plan.PeopleDepth switch
    {
        SearchDepth.Subtree => ComparedName.IsAtOrBelow(person.Dn, b),
        SearchDepth.OneLevel => ComparedName.IsDirectlyBelow(person.Dn, b),
    });

    private IReadOnlyList<string> Bases(string key) =>
        (settings.Find(SettingKeys.Base, null) ?? settings.Find(key, null)!).Values;

    private static IEnumerable<PeopleObject> Search(
        IPeopleSession session, IReadOnlyList<string> bases, SearchDepth depth, string filter, int? pageSize,
        IReadOnlyList<string> attributes)
    {
        var scope = depth switch { SearchDepth.Subtree => SearchScope.Subtree, SearchDepth.OneLevel => SearchScope.OneLevel };
        if (bases.Count == 1) return session.Search(bases[0], scope, filter, pageSize, attributes);
        // a branch may lie in another
        return bases.SelectMany(b => session.Search(b, scope, filter, pageSize, attributes))
            .DistinctBy(o => ComparedName.KeyOf(o.Dn));
    }

    public void Say(SignInCheck check)
    {
        cancel.ThrowIfCancellationRequested();
        var timed = check with { Took = time.GetElapsedTime(_said) };
        _said = time.GetTimestamp();
        _checks.Add(timed);
        watcher.Said(timed);
    }

    public void Pass(string id, string asks, string fact, string? fix = null) => Say(SignInCheck.Pass(id, asks, fact, fix));

    public void Fail(string id, string asks, SignInCause cause, string fact, string fix) =>
        Say(SignInCheck.Fail(id, asks, cause, fact, fix));

    public void Unseen(string id, string asks, SignInCause cause, string fact, string fix) =>
        Say(new SignInCheck(id, asks, CheckVerdict.Unseen, cause, fact, fix));

    public void Caution(string id, string asks, SignInCause cause, string fact, string fix) =>
        Say(new SignInCheck(id, asks, CheckVerdict.Caution, cause, fact, fix));

    /// <summary>
    /// Makes a check of our own, which the product does not make; what stops it leaves it unseen, with the reason, and the test
    /// goes on.
    /// </summary>
    public Task CheckAsync(string id, string asks, Func<string, string, Task> make) => MakeAsync(id, asks, make, Unseen);

    /// <inheritdoc cref="CheckAsync(string, string, Func{string, string, Task})"/>
    public Task CheckAsync(string id, string asks, Action<string, string> make) =>
        CheckAsync(id, asks, (i, a) => Done(make, i, a));

    /// <summary>Makes a check of what the product does too: what stops it stops the product, and the test goes on.</summary>
    public Task NeedAsync(string id, string asks, Func<string, string, Task> make) => MakeAsync(id, asks, make, Fail);

    /// <inheritdoc cref="NeedAsync(string, string, Func{string, string, Task})"/>
    public Task NeedAsync(string id, string asks, Action<string, string> make) =>
        NeedAsync(id, asks, (i, a) => Done(make, i, a));

    private static Task Done(Action<string, string> make, string id, string asks)
    {
        make(id, asks);
        return Task.CompletedTask;
    }

    private async Task MakeAsync(
        string id, string asks, Func<string, string, Task> make, Action<string, string, SignInCause, string, string> stopped)
    {
        if (time.GetElapsedTime(_begun) >= longest)
        {
            Unseen(
                id, asks, SignInCause.OutOfTime,
                string.Create(CultureInfo.InvariantCulture, $"Not asked: the test has taken {longest.TotalMinutes:0.#} minutes."),
                "Find out why the directory answers slowly, and run the sign-in test again.");
            return;
        }

        watcher.Asking(asks);
        try
        {
            await make(id, asks);
        }
        catch (PeopleDirectoryException e)
        {
            stopped(id, asks, e.Cause, e.Message, SignInRemedies.Of(e.Cause, plan));
        }
        catch (ConnectorException e)
        {
            stopped(id, asks, SignInCause.Unexpected, e.Message, SignInRemedies.Of(SignInCause.Unexpected, plan));
        }
    }

    /// <summary>
    /// The objects of a search one by one, told about as they come: there may be more than anybody wants to keep.
    /// </summary>
    public IEnumerable<PeopleObject> Counted(string what, IEnumerable<PeopleObject> search)
    {
        var sofar = 0;
        foreach (var one in search)
        {
            if (++sofar % OwnPageSize == 0)
            {
                cancel.ThrowIfCancellationRequested();
                watcher.Counting(what, sofar);
            }

            yield return one;
        }
    }

    /// <summary>A number and what it counts.</summary>
    public static string Number(int count, string one, string? many = null) =>
        string.Create(CultureInfo.InvariantCulture, $"{count} {(count == 1 ? one : many ?? one + "s")}");

    /// <summary>The first few of some names.</summary>
    public static string Few(IReadOnlyCollection<string> names, int most = 5) =>
        string.Join(", ", names.Take(most)) + (
            names.Count > most ? string.Create(CultureInfo.InvariantCulture, $" and {names.Count - most} more") : "");
}
