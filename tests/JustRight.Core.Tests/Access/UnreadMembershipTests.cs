using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Fit;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Access;

/// <summary>What an account is in could not be read whole: an answer is unknown where that could change it, and only there.</summary>
public sealed class UnreadMembershipTests
{
    private const string Domain = "S-1-5-21-1-2-3";
    private static readonly Sid Me = Sid.Parse(Domain + "-1001");
    private static readonly Sid Maybe = Sid.Parse(Domain + "-1002");
    private static readonly Sid Other = Sid.Parse(Domain + "-1003");

    [Theory]
    [InlineData("D:(A;;SD;;;MAYBE)", "Unknown: UnreadMembership", "an allow that may be mine")]
    [InlineData("D:(D;;SD;;;MAYBE)(A;;SD;;;ME)", "Unknown: UnreadMembership", "a deny that may be mine")]
    [InlineData("D:(A;;SD;;;ME)(D;;SD;;;MAYBE)", "Yes: Allowed", "a deny that comes too late, mine or not")]
    [InlineData("D:(D;;SD;;;ME)(A;;SD;;;MAYBE)", "No: Denied", "an allow that comes too late, mine or not")]
    [InlineData("D:(A;;SD;;;MAYBE)(A;;SD;;;ME)", "Yes: Allowed", "allowed without it")]
    [InlineData("D:(A;;RC;;;MAYBE)", "No: NothingAllows", "an entry for other rights changes nothing")]
    [InlineData("D:(A;CIIO;SD;;;MAYBE)", "No: NothingAllows", "nor one that does not count here")]
    [InlineData("D:(A;;SD;;;HIM)", "No: NothingAllows", "nor one for somebody I am surely not")]
    public void An_entry_for_somebody_I_may_be(string sddl, string expected, string why)
    {
        var token = new AccessToken(Me, []) { WhyDoubtful = sid => sid == Maybe ? "not read" : null };
        var list = Sddl.Read(
            sddl.Replace("MAYBE", Maybe.ToString(), StringComparison.Ordinal)
                .Replace("ME", Me.ToString(), StringComparison.Ordinal)
                .Replace("HIM", Other.ToString(), StringComparison.Ordinal));
        var decision = AccessCheck.Judge(list, token, AccessQuestion.Simple(AccessRights.Delete));
        $"{decision.Answer}: {decision.Reason}".ShouldBe(expected, why);
    }

    [Fact]
    public void Who_may_be_an_administrator_may_take_ownership()
    {
        var token = new AccessToken(Me, []) { WhyDoubtful = sid => sid == Sid.Parse("S-1-5-32-544") ? "not read" : null };
        AccessCheck.Judge(Sddl.Read("D:"), token, AccessQuestion.Simple(AccessRights.WriteOwner)).Answer.ShouldBe(
            AccessAnswer.Unknown);
        AccessCheck.Judge(
            Sddl.Read($"D:(A;;WO;;;{Me})"), token,
            AccessQuestion.Simple(AccessRights.WriteOwner)).Answer.ShouldBe(AccessAnswer.Yes);
        AccessCheck.Judge(Sddl.Read("D:"), token, AccessQuestion.Simple(AccessRights.Delete)).Answer.ShouldBe(AccessAnswer.No);
    }

    [Fact]
    public void The_owner_that_I_may_be_may_write_the_list()
    {
        var token = new AccessToken(Me, []) { WhyDoubtful = sid => sid == Maybe ? "not read" : null };
        AccessCheck.Judge(Sddl.Read($"O:{Maybe}D:"), token, AccessQuestion.Simple(AccessRights.WriteDacl)).Answer.ShouldBe(
            AccessAnswer.Unknown);
        AccessCheck.Judge(
            Sddl.Read($"O:{Other}D:"), token, AccessQuestion.Simple(AccessRights.WriteDacl)).Answer.ShouldBe(AccessAnswer.No);
    }

    [Fact]
    public void A_token_doubts_groups_whose_members_were_not_read_and_what_lies_above_them()
    {
        var (inner, outer) = (
            Group(2001, "inner") with { MembersUnread = "access denied" },
            Group(2002, "outer") with { Members = [Sid.Parse(Domain + "-2001")] });
        var why = TokenOf(
            new DirectoryPrincipal(Me, PrincipalKind.User, "me", "CN=me"), inner, outer,
            Group(2003, "other")).WhyDoubtful.ShouldNotBeNull();
        why(inner.Sid).ShouldBe(@"the members of FENNMOOR\inner could not be read");
        why(outer.Sid).ShouldBe(@"the members of FENNMOOR\inner could not be read");
        why(Sid.Parse(Domain + "-2003")).ShouldBeNull();
        why(Other).ShouldBeNull();
    }

    [Fact]
    public void A_member_of_a_hidden_group_may_be_anybody_who_has_no_name()
    {
        var me = new DirectoryPrincipal(Me, PrincipalKind.User, "me", "CN=me") { HiddenGroups = ["CN=secret,DC=x"] };
        var why = TokenOf(me, Group(2003, "other")).WhyDoubtful.ShouldNotBeNull();
        why(Other).ShouldBe("CN=secret,DC=x, which it is in, may not be read");
        why(Sid.Parse(Domain + "-2003")).ShouldBeNull();
        why(Sid.Everyone).ShouldBeNull();
    }

    [Fact]
    public void Nothing_is_doubted_when_everything_was_read() =>
        TokenOf(new DirectoryPrincipal(Me, PrincipalKind.User, "me", "CN=me"), Group(2003, "other")).WhyDoubtful.ShouldBeNull();

    [Theory]
    [InlineData(false, Verdict.Unseen)]
    [InlineData(true, Verdict.Met)]
    public void A_right_that_was_not_seen_may_come_through_a_group_that_is_hidden(bool held, Verdict verdict)
    {
        var scene = new FitScene().Account()
            .Replace("svc-poller", a => a with { HiddenGroups = ["CN=secret,OU=Hidden,DC=fennmoor,DC=example"] })
            .Host("fm-temp01", held ? ["svc-poller"] : []).Need(R.Admin());
        var need = FitCaseTests.Of(scene, R.Admin());
        need.Verdict.ShouldBe(verdict);
        if (!held)
            need.Reason.ShouldBe(
                "it is in CN=secret,OU=Hidden,DC=fennmoor,DC=example, which may not be read, and the right may come through that group");
        scene.Run().Fit.UnreadParts.ShouldContain(c => c.Place == "CN=secret,OU=Hidden,DC=fennmoor,DC=example");
    }

    private static DirectoryPrincipal Group(uint rid, string name) =>
        new(Sid.Parse($"{Domain}-{rid}"), PrincipalKind.Group, name, $"CN={name}");

    private static AccessToken TokenOf(params DirectoryPrincipal[] principals)
    {
        var graph = new MembershipGraph(
            new DirectorySnapshot("FENNMOOR", Sid.Parse(Domain), "dc", default, principals, [], null));
        return AccessTokens.Of(graph, graph.IndexOf(Me));
    }
}
