using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit;

/// <summary>Judges what an account needs of itself: that it exists, is where and as planned, and can be used.</summary>
internal static class AccountNeeds
{
    /// <summary>The needs of an account; one that was there before us keeps its own branch, flags and description.</summary>
    public static IEnumerable<Right> Rights(PlannedAccount account, string domain)
    {
        yield return AllEngines.OfAccount(domain, AccountAspect.Exists);
        if (!account.Existing)
        {
            yield return AllEngines.OfAccount(domain, AccountAspect.Branch);
            yield return AllEngines.OfAccount(domain, AccountAspect.PasswordExpiry);
            if (account.PasswordCannotChange) yield return AllEngines.OfAccount(domain, AccountAspect.PasswordChange);
            yield return AllEngines.OfAccount(domain, AccountAspect.Description);
        }

        yield return AllEngines.OfAccount(domain, AccountAspect.Usable);
    }

    /// <summary>
    /// The verdicts. While the account does not exist, its other needs are not listed: they would only repeat it.
    /// </summary>
    public static IEnumerable<Judgement> Judge(SurveyView view, PlannedAccount account, string domain, int node)
    {
        var exists = AllEngines.OfAccount(domain, AccountAspect.Exists);
        if (view.Survey.Directory.Unread is { } unread)
        {
            yield return Say(exists, Verdict.Unseen, $"the directory could not be read: {unread}");
            yield break;
        }

        if (node < 0 || view.Graph.PrincipalOf(node) is not { } found)
        {
            yield return Say(
                exists, Verdict.Missing,
                account.Existing ? $"{account.Name} was not found in {domain}" : $"{account.Name} is not in {domain} yet");
            yield break;
        }

        if (found.Kind == PrincipalKind.Group)
        {
            yield return Say(exists, Verdict.Missing, $"{account.Name} is a group");
            yield break;
        }

        foreach (var right in Rights(account, domain))
        {
            var (fits, reason) = Check(right.OfAccount!.Value, account, found);
            yield return Say(
                right, fits switch { true => Verdict.Met, false => Verdict.Missing, null => Verdict.Unseen }, reason);
        }

        Judgement Say(Right right, Verdict verdict, string reason) =>
            new($"{account.Key}/{right.Key}", account.Key, right, verdict, reason, []);
    }

    private static (bool? Fits, string Reason) Check(
        AccountAspect aspect, PlannedAccount account, DirectoryPrincipal found) => aspect switch
        {
            AccountAspect.Exists => (true, Found(found)),
            AccountAspect.Branch => Branch(account, found),
            AccountAspect.PasswordExpiry => Expiry(account, found.State.HasFlag(AccountState.PasswordNeverExpires)),
            AccountAspect.PasswordChange => (found.PasswordCannotChange, found.PasswordCannotChange switch
            {
                true => "it may not change its own password",
                false => "it may change its own password",
                null => "its ACL may not be read",
            }),
            AccountAspect.Description => Described(account, found.Description),
            AccountAspect.Usable => Usable(found.State),
        };

    private static string Found(DirectoryPrincipal found)
    {
        var since = found.CreatedAt is { } made ? $", there since {made.UtcDateTime:yyyy-MM-dd HH:mm} UTC" : "";
        return $"{found.Dn}{since}{(found.Note.Length > 0 ? $"; its note: {found.Note}" : "")}";
    }

    private static (bool?, string) Branch(PlannedAccount account, DirectoryPrincipal found)
    {
        var isThere = DistinguishedName.TryParse(found.Dn, out var now)
            && DistinguishedName.TryParse(account.Dn, out var planned) && now.Parent!.Equals(planned.Parent);
        return (isThere, isThere
            ? "in its branch"
            : $"it is {found.Dn}, planned below {DistinguishedName.Parse(account.Dn!).Parent}");
    }

    private static (bool?, string) Expiry(PlannedAccount account, bool never) =>
        (never == account.PasswordNeverExpires, never ? "its password never expires" : "its password expires");

    private static (bool?, string) Described(PlannedAccount account, string text) => (
        text == account.Description,
        text.Length == 0 ? "it has no description" : text == account.Description ? "as planned" : $"it says '{text}'");

    private static (bool?, string) Usable(AccountState state)
    {
        var facts = new List<string>();
        if (state.HasFlag(AccountState.Disabled)) facts.Add("disabled");
        if (state.HasFlag(AccountState.Expired)) facts.Add("expired");
        if (state.HasFlag(AccountState.Locked)) facts.Add("locked");
        if (state.HasFlag(AccountState.PasswordMustChange))
            facts.Add("its password must be changed at the next sign-in, which no service can do");
        else if (state.HasFlag(AccountState.PasswordExpired)) facts.Add("its password has expired");
        return (facts.Count == 0, facts.Count == 0 ? "usable" : string.Join(", ", facts));
    }
}
