using System.Globalization;
using System.Security.Claims;
using System.Threading.RateLimiting;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Estates;
using JustRight.Core.SecretUses;
using JustRight.Core.SignIn;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Settings;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Features.Access;

/// <summary>What came of an attempt to sign in.</summary>
internal enum GateAnswer
{
    /// <summary>Signed in.</summary>
    Entered,

    /// <summary>Wrong name or password; which, is not said.</summary>
    Refused,

    /// <summary>The directory knows the person, and no group gives a role here.</summary>
    NoRole,

    /// <summary>Too many attempts under this name: more would lock the account in the directory.</summary>
    TooOften,
}

/// <summary>
/// Lets people sign in to the console with their account of a directory, and asks again while they are signed in.
/// </summary>
internal sealed class DirectoryGate(
    IOptions<ServiceSettings> settings, Library library, ConnectorStore connectors, TimeProvider time)
    : IDisposable
{
    private const string LogonClaim = "justright:logon", AskedClaim = "justright:asked";
    private const int MostAttempts = 4;
    private static readonly TimeSpan AttemptsWithin = TimeSpan.FromMinutes(30);
    private readonly PartitionedRateLimiter<string> _attempts = PartitionedRateLimiter.Create<string, string>(name => RateLimitPartition.GetFixedWindowLimiter(
        name.ToUpperInvariant(), _ => new FixedWindowRateLimiterOptions { PermitLimit = MostAttempts, Window = AttemptsWithin }));

    private DirectorySignInSettings Settings => settings.Value.DirectorySignIn;

    /// <summary>The key of the directory that people sign in with, or null when they do not.</summary>
    public string? Directory => Settings.IsSet ? Settings.Key : null;

    /// <summary>
    /// Signs somebody in: looked up as our own account, bound as themselves, their groups held against the roles.
    /// </summary>
    /// <exception cref="ConnectorException">The directory cannot be asked.</exception>
    public async Task<(GateAnswer Answer, ClaimsPrincipal? Person)> EnterAsync(
        string name, NewPassword password, CancellationToken cancel)
    {
        var logon = name.Trim();
        // to a directory, an empty password means somebody else [RFC 4513 5.1.2]
        if (logon.Length == 0 || password.Reveal().Length == 0) return (GateAnswer.Refused, null);
        using var attempt = _attempts.AttemptAcquire(logon);
        if (!attempt.IsAcquired) return (GateAnswer.TooOften, null);
        var place = await LocateAsync(cancel);
        var security = EstateSecretUses.BestOf(place.Directory);
        KnownPerson? person;
        using (var session = await place.OpenAsync())
            person = await Task.Run(() => PersonSignIn.Find(session, place.Directory, logon), cancel);
        if (person is null || !await PersonSignIn.IsPasswordOfAsync(place.People, security, person, password, cancel))
            return (GateAnswer.Refused, null);
        return Settings.RoleOf(person.Groups, Roles.All) is { } role
            ? (GateAnswer.Entered, PrincipalOf(person.LogonName, place.NameOf(person), role))
            : (GateAnswer.NoRole, null);
    }

    /// <summary>
    /// Asks again whether somebody still has the role, once the time has come: a person who left, was disabled or lost the
    /// group is
    /// signed out, and another role counts at once. While the directory cannot be asked, what was last known stands, until the
    /// session ends.
    /// </summary>
    public async Task AskAgainAsync(CookieValidatePrincipalContext context)
    {
        if (context.Principal?.FindFirstValue(LogonClaim) is not { } logon) return; // signed in by a link
        if (Directory is null)
        {
            await RejectAsync(context);
            return;
        }

        var asked = DateTimeOffset.Parse(context.Principal.FindFirstValue(AskedClaim)!, CultureInfo.InvariantCulture);
        if (time.GetUtcNow() >= asked && time.GetUtcNow() - asked < TimeSpan.FromMinutes(Settings.AskAgainMinutes)) return;
        try
        {
            var place = await LocateAsync(context.HttpContext.RequestAborted);
            using var session = await place.OpenAsync();
            var person = await Task.Run(
                () => PersonSignIn.Find(session, place.Directory, logon), context.HttpContext.RequestAborted);
            if (person is not null && place.NameOf(person) == context.Principal.Identity!.Name
                && Settings.RoleOf(person.Groups, Roles.All) is { } role)
            {
                context.ReplacePrincipal(PrincipalOf(person.LogonName, context.Principal.Identity!.Name!, role));
                context.ShouldRenew = true;
                return;
            }

            await RejectAsync(context);
        }
        catch (ConnectorException)
        {
            // Said above: what was last known stands.
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _attempts.Dispose();

    private static async Task RejectAsync(CookieValidatePrincipalContext context)
    {
        context.RejectPrincipal();
        await context.HttpContext.SignOutAsync(CookieAuthenticationDefaults.AuthenticationScheme);
    }

    /// <summary>The directory of the settings; in a demo, a simulated one of an estate.</summary>
    private async Task<Place> LocateAsync(CancellationToken cancel)
    {
        if (Settings.Simulation is null)
        {
            var own = Settings.ToDirectory();
            return new Place(
                own, Settings.ShortName!, connectors.OverLdap(own), () => connectors.BindToPeopleAsync("", own, cancel));
        }

        var (name, key) = (Settings.Simulation.Split('/')[0], Settings.Key);
        var row = await library.FindAsync(Library.EstateKind, name, cancel)
            ?? throw new ConnectorException(
                ConnectorFailure.NotFound, $"there is no estate {name}, which is set for directory sign-in.");
        var estate = Library.ReadEstate(row);
        if (estate.PeopleDirectories.FirstOrDefault(d => d.Key == key) is not { Reach: Reach.Simulation } directory)
            throw new ConnectorException(
                ConnectorFailure.NotFound, $"the estate {name} has no simulated directory {key}, with which people sign in.");
        return new Place(
            directory, directory.IsOfDomain ? estate.Domain.ShortName : key, connectors.OpenPeople(estate, directory),
            () => connectors.OpenPeopleForSurveyAsync(estate, directory, cancel));
    }

    /// <summary>A directory with which people sign in.</summary>
    /// <param name="ShortName">What stands before the logon name of a person.</param>
    /// <param name="OpenAsync">Binds as the account that looks people up.</param>
    private sealed record Place(
        PeopleDirectory Directory, string ShortName, IPeopleDirectory People, Func<Task<IPeopleSession>> OpenAsync)
    {
        /// <summary>
        /// The name that the log and two-person approval know the person by. No token can have it: it holds a character that
        /// names
        /// of tokens do not.
        /// </summary>
        public string NameOf(KnownPerson person) => $@"{ShortName}\{person.LogonName}";
    }

    private ClaimsPrincipal PrincipalOf(string logon, string name, string role) => new(new ClaimsIdentity(
        [
            new Claim(ClaimTypes.Name, name), new Claim(ClaimTypes.Role, role), new Claim(LogonClaim, logon),
            new Claim(AskedClaim, time.GetUtcNow().ToString("O", CultureInfo.InvariantCulture))],
        CookieAuthenticationDefaults.AuthenticationScheme));
}
