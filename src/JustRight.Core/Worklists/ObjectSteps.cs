using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Fit;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;

namespace JustRight.Core.Worklists;

/// <summary>The steps that make the plan's own objects: branches, groups, accounts, and who may sign in.</summary>
internal sealed class ObjectSteps(InstallFit fit, SurveyView view, StepList steps)
{
    private readonly Plan _plan = fit.Plan;

    /// <summary>Adds them.</summary>
    public void Add()
    {
        if (view.Survey.Directory.Unread is not null) return;
        Branches();
        foreach (var group in _plan.Groups) Group(group);
        EnterMembers();
        foreach (var account in fit.Accounts) Account(account);
    }

    /// <summary>
    /// The estate names the branch; parents of it may be missing too, up to the root of the domain. Where all that belongs in
    /// one is somewhere else already, it is not needed.
    /// </summary>
    private void Branches()
    {
        var toMake = fit.Accounts.Where(IsToMake).Select(a => a.Account.Dn!)
            .Concat(_plan.Groups.Where(IsToMake).Select(g => g.Dn!))
            .Select(dn => DistinguishedName.Parse(dn).Parent!.Text).ToHashSet();
        var existing = view.Survey.Directory.Branches.Select(DistinguishedName.Parse).ToHashSet();
        foreach (var branch in _plan.Branches.Where(b => toMake.Contains(b.Dn)))
        {
            var missing = new Stack<DistinguishedName>();
            for (var dn = DistinguishedName.Parse(branch.Dn); IsMissing(dn, existing); dn = dn!.Parent) missing.Push(dn!);
            while (missing.TryPop(out var dn))
            {
                existing.Add(dn);
                var change = new CreateBranch(_plan.Domain, dn.Text);
                steps.Add(StepOrder.Branches, change, branch.Dn, "the plan's objects belong there", null, branch.At);
                if (!branch.IsOwn || dn.Text != branch.Dn) continue;
                foreach (var denial in DeletionProtection.OfNew(_plan.Domain, dn))
                    steps.Add(
                        StepOrder.Branches, denial, branch.Dn, "an OU that is made for a product is protected from deletion",
                        null, branch.At);
            }
        }
    }

    private static bool IsMissing(DistinguishedName? dn, HashSet<DistinguishedName> existing) =>
        dn is not null && dn.Parts[0].Type != "DC" && !existing.Contains(dn);

    private bool IsToMake(PlannedGroup group) => group.Dn is not null && view.Graph.IndexOf(group.Name) < 0;

    private static bool IsToMake(AccountFit of) => !of.Found && of.Account.Dn is not null
        && !of.Judgements.Any(j => j is { Verdict: Verdict.Done, Right.OfAccount: not null });

    private void Group(PlannedGroup group)
    {
        if (IsToMake(group))
        {
            var change = new CreateGroup(_plan.Domain, group.Name, group.Dn!, group.Scope, group.Description);
            steps.Add(StepOrder.Groups, change, group.Key, group.Purpose, null, group.At);
        }

        foreach (var inner in group.Members.Select(m => _plan.Groups.FirstOrDefault(g => g.Key == m)).OfType<PlannedGroup>())
        {
            if (IsIn(inner.Name, group.Name)) continue;
            var change = new AddMember(_plan.Domain, group.Name, inner.Name);
            steps.Add(StepOrder.Members, change, group.Key, group.Purpose, null, group.At);
        }
    }

    private void EnterMembers()
    {
        foreach (var (key, group, member, _, at) in
            _plan.SignIn?.Memberships.Where(m => m.Placed && !IsIn(m.Member, m.Group)) ?? [])
        {
            var blocked = view.Graph.IndexOf(member) < 0 ? $"there is no {member} in {_plan.Domain}" : null;
            var (change, why) = (new AddMember(_plan.Domain, group, member), $"may sign in to {_plan.Title}");
            steps.Add(StepOrder.Members, change, key, why, blocked, at);
        }
    }

    private bool IsIn(string member, string group) =>
        view.Graph.IndexOf(member) is >= 0 and var inner && view.Graph.IndexOf(group) is >= 0 and var outer
        && view.Graph.GroupsOf(inner).Contains(outer);

    private void Account(AccountFit of)
    {
        if (of.Found) Describe(of);
        else if (IsToMake(of)) Create(of.Account, of.Account.Dn!);
    }

    private void Create(PlannedAccount account, string dn)
    {
        var id = $"{account.Key}/account:exists";
        var change = new CreateAccount(
            _plan.Domain, account.Name, dn, $"{account.Name}@{_plan.UpnSuffix}", account.Description,
            account.PasswordNeverExpires);
        steps.Add(StepOrder.Accounts, change, id, account.Purpose, null, account.At);
        if (account.PasswordCannotChange) ForbidPasswordChange(account, dn, id);
    }

    private void Describe(AccountFit of)
    {
        var account = of.Account;
        var found = view.Graph.PrincipalOf(view.Graph.IndexOf(account.Name))!;
        if (Lacking(of, AccountAspect.PasswordChange).FirstOrDefault() is { } free)
            ForbidPasswordChange(account, found.Dn, free.Id);
        var change = new DescribeAccount(
            _plan.Domain, account.Name, account.Description, account.PasswordNeverExpires, found.Description,
            found.State.HasFlag(Surveys.AccountState.PasswordNeverExpires));
        foreach (var judgement in Lacking(of, AccountAspect.Description, AccountAspect.PasswordExpiry))
            steps.Add(StepOrder.Accounts, change, judgement.Id, "as planned", null, account.At);
    }

    private static IEnumerable<Judgement> Lacking(AccountFit of, params AccountAspect[] aspects) => of.Judgements.Where(j =>
        j.Verdict == Verdict.Missing && j.Right.OfAccount is { } aspect && aspects.Contains(aspect));

    private void ForbidPasswordChange(PlannedAccount account, string dn, string id)
    {
        foreach (var rule in OwnPasswordChange.Denials)
            steps.Add(
                StepOrder.Members, new AddAccessRule(_plan.Domain, dn, rule, "change its password"), id,
                "it must not be able to change its own password", null, account.At);
    }
}
