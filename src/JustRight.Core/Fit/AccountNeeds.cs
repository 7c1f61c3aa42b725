using JustRight.Core.Directory;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit;

/// <summary>Judges what an account needs of itself: that it exists, is where and as planned, and can be used.</summary>
internal static class AccountNeeds
{
    /// <summary>The needs of an account; one that was there before us keeps its own branch, flags and description.</summary>
    public static IEnumerable<AccountRight> Rights(PlannedAccount account, string domain)
    {
        yield return new AccountRight(domain, AccountAspect.Exists);
        if (!account.Existing)
        {
            yield return new AccountRight(domain, AccountAspect.Branch);
            yield return new AccountRight(domain, AccountAspect.PasswordExpiry);
            if (account.PasswordCannotChange) yield return new AccountRight(domain, AccountAspect.PasswordChange);
            yield return new AccountRight(domain, AccountAspect.Description);
        }

        yield return new AccountRight(domain, AccountAspect.Usable);
    }

    /// <summary>The verdicts. While the account does not exist, its other needs are not listed: they would only repeat it.</summary>
    public static IEnumerable<Judgement> Judge(SurveyView view, PlannedAccount account, string domain, int node)
    {
        var exists = new AccountRight(domain, AccountAspect.Exists);
        if (view.Survey.Directory.Unread is { } unread)
        {
            yield return Say(exists, Verdict.Unseen, $"the directory could not be read: {unread}");
            yield break;
        }

        if (node < 0 || view.Graph.PrincipalOf(node) is not { } found)
        {
            yield return Say(exists, Verdict.Missing, account.Existing ? $"{account.Name} was not found in {domain}" : $"{account.Name} is not in {domain} yet");
            yield break;
        }

        if (found.Kind == PrincipalKind.Group)
        {
            yield return Say(exists, Verdict.Missing, $"{account.Name} is a group");
            yield break;
        }

        foreach (var right in Rights(account, domain))
        {
            var (fits, reason) = Check(right.Aspect, account, found);
            yield return Say(right, fits switch { true => Verdict.Met, false => Verdict.Missing, null => Verdict.Unseen }, reason);
        }

        Judgement Say(AccountRight right, Verdict verdict, string reason) => new($"{account.Key}/{right.Key}", account.Key, right, verdict, reason, []);
    }

    private static (bool? Fits, string Reason) Check(AccountAspect aspect, PlannedAccount account, DirectoryPrincipal found)
    {
        switch (aspect)
        {
            case AccountAspect.Exists:
                return (true, $"{found.Dn}{(found.CreatedAt is { } made ? $", there since {made.UtcDateTime:yyyy-MM-dd HH:mm} UTC" : "")}{(found.Note.Length > 0 ? $"; its note: {found.Note}" : "")}");
            case AccountAspect.Branch:
                var inPlace = DistinguishedName.TryParse(found.Dn, out var is_) && DistinguishedName.TryParse(account.Dn, out var planned) && is_.Parent!.Equals(planned.Parent);
                return (inPlace, inPlace ? "in its branch" : $"it is {found.Dn}, planned below {DistinguishedName.Parse(account.Dn!).Parent}");
            case AccountAspect.PasswordExpiry:
                var never = found.State.HasFlag(AccountState.PasswordNeverExpires);
                return (never == account.PasswordNeverExpires, never ? "its password never expires" : "its password expires");
            case AccountAspect.PasswordChange:
                return (found.PasswordCannotChange, found.PasswordCannotChange switch { true => "it may not change its own password", false => "it may change its own password", null => "its ACL may not be read" });
            case AccountAspect.Description:
                return (found.Description == account.Description, found.Description.Length == 0 ? "it has no description" : found.Description == account.Description ? "as planned" : $"it says '{found.Description}'");
            default:
                var facts = new List<string>();
                if (found.State.HasFlag(AccountState.Disabled)) facts.Add("disabled");
                if (found.State.HasFlag(AccountState.Expired)) facts.Add("expired");
                if (found.State.HasFlag(AccountState.Locked)) facts.Add("locked");
                if (found.State.HasFlag(AccountState.PasswordMustChange)) facts.Add("its password must be changed at the next sign-in, which no service can do");
                else if (found.State.HasFlag(AccountState.PasswordExpired)) facts.Add("its password has expired");
                return (facts.Count == 0, facts.Count == 0 ? "usable" : string.Join(", ", facts));
        }
    }
}
