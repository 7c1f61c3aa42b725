using JustRight.Core.Changes;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Fit;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests;

/// <summary>Delegation to named services is a right like others; to any service it is forbidden, whoever asks.</summary>
public sealed class DelegationTests
{
    private const string Store = "MSSQLSvc/fm-sql01.fennmoor.example:1433";
    private static readonly DelegationRight ToStore = new("FENNMOOR", Store);

    [Fact]
    public void A_named_service_is_missing_given_met_and_excess()
    {
        var (fit, worklist) = Scene([], ["HTTP/web"]).Need(ToStore).Run();
        fit.Counts.Missing.ShouldBe(1);
        worklist.Give.ShouldHaveSingleItem().Change.ShouldBe(new AllowDelegation("FENNMOOR", "svc-poller", Store));
        Scene([Store.ToUpperInvariant()], ["HTTP/web"]).Need(ToStore).Need(new SpnRight("FENNMOOR", "HTTP/web")).Judge()
            .Counts.ShouldSatisfyAllConditions(c => c.Missing.ShouldBe(0), c => c.Excess.ShouldBe(0));
        worklist = Scene([Store], []).Run().Worklist;
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new EndDelegation("FENNMOOR", "svc-poller", Store));
    }

    [Theory]
    [InlineData(true, true)]
    [InlineData(true, false, "no account of the domain has MSSQLSvc/fm-sql01.fennmoor.example:1433: there is nothing to act at")]
    [InlineData(
        false, true, "it has no service principal name of its own: no client gets a ticket for it that could be passed on")]
    public void What_it_needs_on_either_side_is_said(bool hasOwn, bool hasTarget, params string[] notes)
    {
        var scene = Scene([Store], hasOwn ? ["HTTP/web"] : []).Account("svc-sql", planned: false)
            .Replace("svc-sql", p => p with { ServicePrincipalNames = hasTarget ? [Store] : [] })
            .Directory(d => d with { ServiceNamesAsked = [Store, "HTTP/web"] }).Need(ToStore);
        scene.Judge().Accounts[0].Judgements.Single(j => j.Grant is not null).Notes.ShouldBe(notes);
    }

    [Fact]
    public void Any_service_is_forbidden_for_all_and_taken_away_once_what_is_needed_is_given()
    {
        var scene = Scene([], []).Replace("svc-poller", p => p with { IsTrustedForDelegation = true }).Need(ToStore);
        var (fit, worklist) = scene.Run();
        var forbidden = fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Forbidden);
        forbidden.Reason.ShouldStartWith("trusted for delegation to any service:");
        fit.Accounts[0].Judgements.Single(j => j.Grant is not null).Reason
            .ShouldBe("implied by delegation to any service on FENNMOOR");
        worklist.Give.ShouldHaveSingleItem().Change.ShouldBe(new AllowDelegation("FENNMOOR", "svc-poller", Store));
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new EndDelegationTrust("FENNMOOR", "svc-poller"));
    }

    private static FitScene Scene(string[] to, string[] own) => new FitScene().Account()
        .Replace("svc-poller", p => p with { DelegatesTo = to, ServicePrincipalNames = own })
        .Directory(d => d with { ServiceNamesAsked = ["HTTP/web"] });
}
