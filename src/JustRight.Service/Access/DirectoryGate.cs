using System.Globalization;
using System.Security.Claims;
using System.Threading.RateLimiting;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Estates;
using JustRight.Core.SignIn;
using JustRight.Service.Documents;
using JustRight.Service.Estates;
using JustRight.Service.Hosting;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Access;

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

/// <summary>Lets people sign in to the console with their account of a directory, and asks again while they are signed in.</summary>
internal sealed class DirectoryGate(IOptions<ServiceSettings> settings, Library library, ConnectorStore connectors, TimeProvider time) : IDisposable
{
    private const string LogonClaim = "justright:logon", AskedClaim = "justright:asked";
    private const int MostAttempts = 4;
    private static readonly TimeSpan AttemptsWithin = TimeSpan.FromMinutes(30);
    private readonly PartitionedRateLimiter<string> _attempts = PartitionedRateLimiter.Create<string, string>(name => RateLimitPartition.GetFixedWindowLimiter(
        name.ToUpperInvariant(), _ => new FixedWindowRateLimiterOptions { PermitLimit = MostAttempts, Window = AttemptsWithin }));

    private DirectorySignInSettings Settings => settings.Value.DirectorySignIn;

    /// <summary>The key of the directory that people sign in with, or null when they do not.</summary>
    public string? Directory => Settings.Estate is null ? null : Settings.Directory;

    /// <summary>Signs somebody in: looked up as our own account, bound as themselves, their groups held against the roles.</summary>
    /// <exception cref="ConnectorException">The directory cannot be asked.</exception>
    public async Task<(GateAnswer Answer, ClaimsPrincipal? Person)> EnterAsync(string name, NewPassword password, CancellationToken cancel)
    {
        var logon = name.Trim();
        if (logon.Length == 0 || password.Reveal().Length == 0) return (GateAnswer.Refused, null); // to a directory, an empty password means somebody else [RFC 4513 5.1.2]
        using var attempt = _attempts.AttemptAcquire(logon);
        if (!attempt.IsAcquired) return (GateAnswer.TooOften, null);
        var (estate, directory) = await LocateAsync(cancel);
        var security = SecurityOf(directory);
        KnownPerson? person;
        using (var session = await connectors.OpenPeopleForSurveyAsync(estate, directory, cancel)) person = await Task.Run(() => PersonSignIn.Find(session, directory, logon), cancel);
        if (person is null || !await PersonSignIn.IsPasswordOfAsync(connectors.OpenPeople(estate, directory), security, person, password, cancel)) return (GateAnswer.Refused, null);
        return Settings.RoleOf(person.Groups) is { } role ? (GateAnswer.Entered, PrincipalOf(person.LogonName, NameOf(estate, directory, person), role)) : (GateAnswer.NoRole, null);
    }

    /// <summary>
    /// Asks again whether somebody still has the role, once the time has come: a person who left, was disabled or lost the group is
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
            var (estate, directory) = await LocateAsync(context.HttpContext.RequestAborted);
            using var session = await connectors.OpenPeopleForSurveyAsync(estate, directory, context.HttpContext.RequestAborted);
            var person = await Task.Run(() => PersonSignIn.Find(session, directory, logon), context.HttpContext.RequestAborted);
            if (person is not null && NameOf(estate, directory, person) == context.Principal.Identity!.Name && Settings.RoleOf(person.Groups) is { } role)
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

    private async Task<(Estate Estate, PeopleDirectory Directory)> LocateAsync(CancellationToken cancel)
    {
        var row = await library.FindAsync(Library.EstateKind, Settings.Estate!, cancel) ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no estate {Settings.Estate}, which is set for directory sign-in.");
        var estate = Library.ReadEstate(row);
        return (estate, estate.PeopleDirectories.FirstOrDefault(d => d.Key == Settings.Directory) ?? throw new ConnectorException(ConnectorFailure.NotFound, $"the estate {estate.Name} has no people-directory {Settings.Directory}, with which people sign in."));
    }

    /// <summary>Never in plain text, whatever the estate allows products.</summary>
    private static WireSecurity SecurityOf(PeopleDirectory directory)
    {
        var security = directory.Offers.Keys.Order().First();
        return security == WireSecurity.Plain ? throw new ConnectorException(ConnectorFailure.NotTrusted, $"the directory {directory.Key} offers only unencrypted connections: no password is sent there.") : security;
    }

    /// <summary>The name that the log and two-person approval know the person by. No token can have it: it holds a character that names of tokens do not.</summary>
    private static string NameOf(Estate estate, PeopleDirectory directory, KnownPerson person) => $@"{(directory.IsOfDomain ? estate.Domain.ShortName : directory.Key)}\{person.LogonName}";

    private ClaimsPrincipal PrincipalOf(string logon, string name, string role) => new(new ClaimsIdentity(
        [new Claim(ClaimTypes.Name, name), new Claim(ClaimTypes.Role, role), new Claim(LogonClaim, logon), new Claim(AskedClaim, time.GetUtcNow().ToString("O", CultureInfo.InvariantCulture))],
        CookieAuthenticationDefaults.AuthenticationScheme));
}
