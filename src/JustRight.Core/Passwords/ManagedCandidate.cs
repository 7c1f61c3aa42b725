using System.Text.RegularExpressions;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Passwords;

/// <summary>Whether the directory could keep the password of an account instead of us, and what stands in the way.</summary>
public static partial class ManagedCandidate
{
    /// <summary>The first release of hosts that can fetch such a password [MS-ADTS 3.1.1.4.5.39].</summary>
    private const int FirstRelease = 2012;

    /// <summary>What stands in the way, in words; empty when nothing that is known does.</summary>
    /// <param name="places">Where its password is typed now.</param>
    public static IReadOnlyList<string> Obstacles(
        string account, IReadOnlyList<Plan> plans, IReadOnlyList<PasswordPlace> places, SurveyView? view)
    {
        var found = new List<string>();
        var uses = plans.SelectMany(p =>
            p.Accounts.Where(a => string.Equals(a.Name, account, StringComparison.OrdinalIgnoreCase))
                .Select(a => (Plan: p, Account: a)))
            .ToList();
        foreach (var (plan, use) in uses)
        {
            if (use.WorksAs is WorksAs.Bind or WorksAs.Person or WorksAs.Setup)
                found.Add($"{plan.Title} signs in with it interactively ({WorksAsWords.Of(use.WorksAs)}), which needs a password that somebody knows");
            if (use.Password.CanBeManaged == false) found.Add($"{plan.Title} does not support gMSAs ({use.Password.At})");
            if (use.Password.CanBeManaged is null && use.WorksAs is not (WorksAs.Bind or WorksAs.Person or WorksAs.Setup))
                found.Add($"{plan.Sheet} does not say whether {plan.Title} supports gMSAs: password.group-managed");
        }

        found.AddRange(places.Where(p => !MayBeManaged(p)).Select(p => $"it is typed in {p.Words}"));
        foreach (var host in places.Where(MayBeManaged).Select(p => p.Host).Distinct(StringComparer.OrdinalIgnoreCase))
        {
            if (view?.Host(host) is not { Unread: null } seen)
                found.Add($"{host} was not read: whether it supports gMSAs is not known");
            else if (Release().Match(seen.System) is { Success: true } release
                && int.Parse(release.Value, System.Globalization.CultureInfo.InvariantCulture) < FirstRelease)
                found.Add($"{host} does not support gMSAs: {seen.System}");
        }

        if (view?.Survey.Directory.RootKeysUsableFrom is { Count: 0 })
            found.Add("the directory has no root key for gMSA passwords yet");
        return [.. found.Distinct()];
    }

    /// <summary>Whether the host itself would fetch the password of a managed account there.</summary>
    private static bool MayBeManaged(PasswordPlace place) =>
        place.Kind is PasswordPlaceKind.Service or PasswordPlaceKind.Task or PasswordPlaceKind.Pool;

    [GeneratedRegex(@"\b20[0-9]{2}\b", RegexOptions.CultureInvariant)]
    private static partial Regex Release();
}
