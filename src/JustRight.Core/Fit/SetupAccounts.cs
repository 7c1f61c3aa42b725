using JustRight.Core.Engines;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit;

/// <summary>Judges accounts that only the setup of their product needed: once it is done, they shall be disabled.</summary>
internal static class SetupAccounts
{
    /// <summary>
    /// Whether an account is one that we made, that setup alone needed, and that no other install uses: it is of no more use.
    /// </summary>
    public static bool IsDoneWith(Plan plan, PlannedAccount account, NeedsIndex needs)
    {
        if (plan.Stage != Stage.Installed || account.Existing || account.WorksAs == WorksAs.Person) return false;
        if (plan.SignIn?.BindLogonName is { } bind && Same(bind, account.Name)) return false;
        var grants = plan.GrantsOf(account.Key).ToList();
        return grants.Count > 0 && grants.All(g => g.Until == Until.Installed)
            && !needs.UsersOf(account.Name).Any(user => user != plan.Install);
    }

    /// <summary>The verdict on the account itself.</summary>
    public static Judgement Judge(SurveyView view, PlannedAccount account, string domain, int node)
    {
        var right = AllEngines.OfAccount(domain, AccountAspect.Exists);
        var (verdict, reason) = (view.Survey.Directory.Unread, node < 0 ? null : view.Graph.PrincipalOf(node)) switch
        {
            ({ } unread, _) => (Verdict.Unseen, $"the directory could not be read: {unread}"),
            (_, null) => (Verdict.Done, "only setup needed it, and it is not there"),
            (_, { Kind: PrincipalKind.Group }) => (Verdict.Done, $"{account.Name} is a group, not an account"),
            (_, { } found) when found.State.HasFlag(AccountState.Disabled) => (Verdict.Done, "only setup needed it; disabled"),
            _ => (Verdict.Excess, "only setup needed it, and it is not disabled"),
        };
        return new Judgement($"{account.Key}/{right.Key}", account.Key, right, verdict, reason, []);
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
