using JustRight.Core.Fit.Hosts;
using JustRight.Core.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Passwords;

/// <summary>
/// Knows where passwords are typed: from the plans of an estate, from the services that a survey saw, and from what people
/// told.
/// </summary>
public static class PasswordPlaces
{
    /// <summary>Every place, in the order of the plans, then what was seen in no plan, then what was told.</summary>
    /// <param name="view">The latest survey; null when none was taken, and then nothing counts as seen.</param>
    /// <param name="told">What people told of, and the secrets that are kept here.</param>
    public static IReadOnlyList<PasswordPlace> Of(IReadOnlyList<Plan> plans, SurveyView? view, IEnumerable<PasswordPlace> told)
    {
        var places = plans.SelectMany(p => Planned(p, view)).ToList();
        if (view is not null && plans.Count > 0)
            places.AddRange(view.Survey.Hosts.SelectMany(h => Seen(h, plans[0]).Concat(Kept(h, plans[0], view))));
        places.AddRange(told);
        return [.. places.GroupBy(p => (p.Account.ToUpperInvariant(), p.Id)).Select(same =>
            view is null ? same.First() : Noted(same.First(), view))];
    }

    private static IEnumerable<PasswordPlace> Planned(Plan plan, SurveyView? view)
    {
        foreach (var service in plan.Services)
        {
            var account = plan.Accounts.First(a => a.Key == service.Account).Name;
            if (IsManaged(account)) continue;
            var host = view?.Host(service.Host);
            var why = view is null ? "no survey was taken" : host is null ? "it was not read" : WhyUnread(host);
            // What was read counts: a service that is set to run as somebody else does not hold this password, whatever the
            // plan says.
            if (why is null && host!.Services.FirstOrDefault(s => Same(s.Name, service.Name)) is var found
                && (found is null || !ServiceJudge.IsAccount(found.Account, host.Name, account, plan)))
                continue;
            yield return OfService(account, service.Host, service.Name) with
            {
                Product = plan.Title,
                Install = plan.Install,
                NotSeen = why,
            };
        }

        foreach (var typed in plan.TypedIn) yield return typed;
        if (plan.SignIn is not { } signIn || (signIn.BindLogonName ?? signIn.BindDn) is not { } bind) yield break;
        var named = signIn.Wants.Fields.Any(f => f.Is == SettingKeys.BindPassword);
        foreach (var file in named ? signIn.Wants.Settings : signIn.Wants.Settings.Take(1))
            foreach (var host in signIn.HostsOf(file))
                foreach (var field in named
                    ? file.Fields.Where(f => f.Is == SettingKeys.BindPassword).Select(f => f.Name)
                    : ["the bind account's password"])
                    yield return new PasswordPlace(
                        bind, PasswordPlaceKind.SignIn, host, file.Where, field,
                        $"nobody can sign in to {plan.Title} until it is typed here")
                    {
                        Product = plan.Title,
                        Install = plan.Install,
                    };
    }

    /// <summary>Services that run as accounts of the domain, whether a plan knows of them or not.</summary>
    private static IEnumerable<PasswordPlace> Seen(HostSnapshot host, Plan any) =>
        host.Services.Select(s => (Service: s, Identity: ServiceIdentity.Parse(s.Account, host.Name)))
            .Where(s =>
                s.Identity.Kind == IdentityKind.DomainUser && !IsManaged(s.Identity.Name)
                    && ServiceJudge.IsAccount(s.Service.Account, host.Name, s.Identity.Name, any))
            .Select(s => OfService(s.Identity.Name, host.Name, s.Service.Name));

    /// <summary>Scheduled tasks and web application pools that keep the password of an account of the domain.</summary>
    private static IEnumerable<PasswordPlace> Kept(HostSnapshot host, Plan any, SurveyView view)
    {
        foreach (var runner in host.Runners.Where(r => r.KeepsPassword))
        {
            if (AccountOf(runner, host, any, view) is not { } name || IsManaged(name)) continue;
            yield return runner.Kind switch
            {
                RunnerKind.Task => new PasswordPlace(
                    name, PasswordPlaceKind.Task, host.Name, "scheduled task", runner.Name,
                    $"{runner.Name} does not run on {host.Name} when it is next due"),
                RunnerKind.Pool => new PasswordPlace(
                    name, PasswordPlaceKind.Pool, host.Name, "web application pool", runner.Name,
                    $"{runner.Name} on {host.Name} answers nobody once it is recycled"),
            };
        }
    }

    /// <summary>
    /// The account of the domain that a task or pool runs as: by its SID where the host told it. A user of the host alone is
    /// none, whatever its name; an account of the domain that was not read is known by name.
    /// </summary>
    private static string? AccountOf(HostRunner runner, HostSnapshot host, Plan any, SurveyView view)
    {
        var graph = view.Graph;
        if (!runner.AccountSid.IsEmpty && graph.IndexOf(runner.AccountSid) is >= 0 and var node)
            return graph.PrincipalOf(node)?.Name;
        if (ServiceIdentity.Parse(runner.Account, host.Name) is not { Kind: IdentityKind.DomainUser } identity
            || !ServiceJudge.IsAccount(runner.Account, host.Name, identity.Name, any))
            return null;
        var isOfDomain = runner.AccountSid.IsEmpty || graph.DomainSid.Append(runner.AccountSid.Rid) == runner.AccountSid;
        return isOfDomain && (runner.AccountSid.IsEmpty || graph.IndexOf(identity.Name) < 0) ? identity.Name : null;
    }

    private static PasswordPlace OfService(string account, string host, string service) =>
        new(
            account, PasswordPlaceKind.Service, host, "service", service,
            $"{service} keeps running on {host} until its next start, which fails");

    /// <summary>
    /// A service that was started before the password was last set runs on the one before, unless it was told since.
    /// </summary>
    private static PasswordPlace Noted(PasswordPlace place, SurveyView view)
    {
        if (place.Kind != PasswordPlaceKind.Service
            || view.Host(place.Host)?.Services.FirstOrDefault(s =>
                Same(s.Name, place.Setting)) is not { Running: true, RunsSince: { } since })
            return place;
        return view.Graph.IndexOf(place.Account) is >= 0 and var node && view.Graph.PrincipalOf(node)?.PasswordSetAt is { } set
            && set > since
            ? place with
            {
                Note = $"{place.Setting} runs since {Time(since)}, from before the password was last set at {Time(set)}: its next start fails unless the new one was set there too",
            }
            : place;
    }

    private static string? WhyUnread(HostSnapshot host) =>
        host.Unread ?? host.UnreadParts.FirstOrDefault(p => p.Part == HostSnapshot.ServicesPart)?.Reason;

    private static bool IsManaged(string account) => account.EndsWith('$');

    private static string Time(DateTimeOffset time) => $"{time.UtcDateTime:yyyy-MM-dd HH:mm} UTC";

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
