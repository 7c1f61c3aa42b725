using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests;

/// <summary>Case 22: an account of ours in another branch, or with other flags than planned. Its grants are judged as usual.</summary>
public sealed class AccountNeedsTests
{
    private const string Dn = "CN=svc-poller,OU=Svc,DC=fennmoor,DC=example";
    private static readonly Origin Line = new("sheet.yaml", 7, 9);
    private static readonly Sid Domain = Sid.Parse("S-1-5-21-1-2-3");

    [Fact]
    public void As_planned_everything_is_met()
    {
        var (fit, worklist) = Judge(Dn, "polls", AccountState.PasswordNeverExpires);
        fit.Accounts[0].Judgements.Select(j => j.Verdict).Distinct().ShouldBe([Verdict.Met]);
        fit.Accounts[0].Judgements.Count.ShouldBe(5);
        worklist.Give.ShouldBeEmpty();
    }

    [Theory]
    [InlineData(
        "CN=svc-poller,OU=Old,DC=fennmoor,DC=example", "polls", AccountState.PasswordNeverExpires, AccountAspect.Branch,
        "planned below OU=Svc")]
    [InlineData(Dn, "something else", AccountState.PasswordNeverExpires, AccountAspect.Description, "it says 'something else'")]
    [InlineData(Dn, "", AccountState.PasswordNeverExpires, AccountAspect.Description, "it has no description")]
    [InlineData(Dn, "polls", AccountState.None, AccountAspect.PasswordExpiry, "its password expires")]
    [InlineData(Dn, "polls", AccountState.PasswordNeverExpires | AccountState.Locked, AccountAspect.Usable, "locked")]
    public void What_differs_is_missing_and_nothing_else(
        string dn, string description, AccountState state, AccountAspect aspect, string reason)
    {
        var (fit, _) = Judge(dn, description, state);
        var missing = fit.Accounts[0].Judgements.Where(j => j.Verdict != Verdict.Met).ShouldHaveSingleItem();
        missing.Right.OfAccount.ShouldBe(aspect);
        missing.Reason.ShouldContain(reason);
    }

    [Fact]
    public void Description_and_expiry_are_fixed_in_one_step_that_knows_what_was_there_before()
    {
        var (_, worklist) = Judge(Dn, "old words", AccountState.None);
        worklist.Give.ShouldHaveSingleItem().Change.ShouldBe(
            new DescribeAccount("FENNMOOR", "svc-poller", "polls", true, "old words", false));
        worklist.Give[0].Change.Inverse.ShouldBe(
            new DescribeAccount("FENNMOOR", "svc-poller", "old words", false, "polls", true));
    }

    [Theory]
    [InlineData(true, Verdict.Met, "it may not change its own password", 0)]
    [InlineData(false, Verdict.Missing, "it may change its own password", 2)]
    [InlineData(null, Verdict.Unseen, "its ACL may not be read", 0)]
    public void That_it_may_not_change_its_own_password_is_judged_where_it_is_planned(
        bool? cannot, Verdict verdict, string reason, int steps)
    {
        var (fit, worklist) = Judge(
            Dn, "polls", AccountState.PasswordNeverExpires, planned: a => a with { PasswordCannotChange = true },
            seen: p => p with { PasswordCannotChange = cannot });
        var need = fit.Accounts[0].Judgements.Single(j => j.Right.OfAccount == AccountAspect.PasswordChange);
        (need.Verdict, need.Reason, worklist.Give.Count).ShouldBe((verdict, reason, steps));
        worklist.Give.Select(g => g.Change.Words)
            .ShouldAllBe(w => w.EndsWith($"change its password, by an ACE on {Dn}", StringComparison.Ordinal));
    }

    [Fact]
    public void A_new_account_gets_its_denials_after_it_is_made()
    {
        var (_, worklist) = Judge(
            Dn, "polls", AccountState.None, planned: a => a with { PasswordCannotChange = true },
            seen: p => p with { Name = "another", Dn = "CN=another,DC=x" });
        worklist.Give.Select(g => g.Change.GetType().Name).ShouldBe(["CreateAccount", "AddAccessRule", "AddAccessRule"]);
    }

    [Fact]
    public void Who_made_it_and_when_stands_with_its_existence_and_a_password_that_must_be_changed_is_no_use()
    {
        var (fit, _) = Judge(
            Dn, "polls", AccountState.PasswordNeverExpires | AccountState.PasswordExpired | AccountState.PasswordMustChange,
            seen: p => p with { Note = "Made by mara", CreatedAt = new DateTimeOffset(2026, 11, 25, 12, 0, 0, TimeSpan.Zero) });
        fit.Accounts[0].Judgements[0].Reason.ShouldBe($"{Dn}, there since 2026-11-25 12:00 UTC; its note: Made by mara");
        fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Missing).Reason.ShouldBe(
            "its password must be changed at the next sign-in, which no service can do");
    }

    [Fact]
    public void An_account_that_was_there_before_us_keeps_its_branch_flags_and_description()
    {
        var (fit, worklist) = Judge(
            "CN=svc-poller,OU=Old,DC=fennmoor,DC=example", "old words", AccountState.None, existing: true);
        fit.Counts.JustRight.ShouldBeTrue();
        worklist.Give.ShouldBeEmpty();
    }

    [Fact]
    public void A_group_of_that_name_is_no_account()
    {
        var (fit, _) = Judge(Dn, "", AccountState.None, kind: PrincipalKind.Group);
        fit.Accounts[0].Judgements.ShouldHaveSingleItem().Reason.ShouldBe("svc-poller is a group");
    }

    private static (
        InstallFit Fit,
        Worklist Worklist) Judge(string dn, string description, AccountState state, bool existing = false,
        PrincipalKind kind = PrincipalKind.User,
        Func<PlannedAccount, PlannedAccount>? planned = null, Func<DirectoryPrincipal, DirectoryPrincipal>? seen = null)
    {
        var principal = new DirectoryPrincipal(Domain.Append(1001), kind, "svc-poller", dn)
        {
            Description = description,
            State = state,
            PrimaryGroupRid = kind == PrincipalKind.User ? 513u : 0,
        };
        principal = seen?.Invoke(principal) ?? principal;
        var directory = new DirectorySnapshot(
            "FENNMOOR", Domain, "dc", DateTimeOffset.UnixEpoch, [principal], ["OU=Svc,DC=fennmoor,DC=example"], null);
        var view = AllEngines.View(new Survey("fennmoor", DateTimeOffset.UnixEpoch, true, directory, [], []));
        var account = new PlannedAccount(
            "poller", "svc-poller", existing ? null : Dn, "polls", "polls", WorksAs.Service, true, existing, Line);
        account = planned?.Invoke(account) ?? account;
        var plan = new Plan(
            "install", "s@1", "S", "fennmoor", "FENNMOOR", "fennmoor.example", Stage.Planned, [], [], [account], [], [], [], []);
        var needs = new NeedsIndex([plan]);
        var fit = new FitJudge(view, needs, new OrganizationRules([], null, []), new Present(DateTimeOffset.UnixEpoch)).Judge(plan);
        return (fit, WorklistMaker.Make(fit, view, needs));
    }
}
