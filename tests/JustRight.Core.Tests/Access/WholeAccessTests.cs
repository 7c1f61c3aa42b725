using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Traces;

namespace JustRight.Core.Tests.Access;

/// <summary>
/// Everything that an account can do to one object, with what decides each; and many questions from one reading.
/// </summary>
public sealed class WholeAccessTests
{
    private const string Domain = "DC=fennmoor,DC=example";
    private const string Branch = "OU=Dairy," + Domain;
    private const string Ada = "CN=Ada," + Branch;
    private const string Team = "CN=Team," + Branch;
    private const string Mail = "bf967961-0de6-11d0-a285-00aa003049e2";
    private const string User = "bf967aba-0de6-11d0-a285-00aa003049e2";
    private const string Reset = "00299570-246d-11d0-a768-00aa006e0529";

    private static FitScene Scene(string onBranch, string onAda = "") =>
        new FitScene().Account().Group("Role", "svc-poller").Tree(
            (Domain, "domainDNS", "D:(A;CI;GA;;;DA)"), (Branch, "organizationalUnit", "D:AI" + onBranch),
            (Ada, "user", "D:AI" + onAda), (Team, "group", "D:AI"));

    private static (IReadOnlyList<ObjectAct> Acts, AccessTree Tree) Of(FitScene scene, string dn)
    {
        var view = scene.View();
        var sweep = new AccessSweep(view.Tree!, AccessTokens.Of(view.Graph, view.Graph.IndexOf("svc-poller")));
        return (WholeAccess.Of(sweep, view.Tree!.IndexOf(dn)), view.Tree!);
    }

    [Fact]
    public void What_an_inherited_entry_gives_names_it_and_where_it_is_changed()
    {
        var (acts, tree) = Of(Scene($"(OA;CIIO;WP;{Mail};{User};{{Role}})"), Ada);
        var mail = acts.Single(a => a.What == "write mail");
        (mail.Answer, mail.Reason).ShouldBe((AccessAnswer.Yes, AccessReason.Allowed));
        (tree[mail.At].Dn, tree[mail.From].Dn).ShouldBe((Ada, Branch));
        tree.DescriptorOf(mail.At)!.Entries[mail.Number - 1].ShouldBe(mail.By);
        acts.Where(a => a.Answer == AccessAnswer.Yes).ShouldHaveSingleItem();
        acts.Where(a => a.Answer == AccessAnswer.No).ShouldAllBe(a => a.Reason == AccessReason.NothingAllows && a.Number == 0);
    }

    [Fact]
    public void A_denial_of_one_attribute_is_told_beside_what_all_others_get()
    {
        var (acts, _) = Of(Scene("(A;CI;WP;;;{svc-poller})", $"(OD;;WP;{Mail};;{{Role}})"), Ada);
        var writes = acts.Where(a => a.Kind == ObjectActKind.Write).ToList();
        writes.Where(a => a.Answer == AccessAnswer.No).ShouldHaveSingleItem().What.ShouldBe("write mail");
        writes.Single(a => a.What == "write mail").By!.Denies.ShouldBeTrue();
        writes.Count.ShouldBeGreaterThan(40);
        writes.ShouldNotContain(a => a.What == "write objectSid", "only the directory writes it");
        acts.ShouldContain(a => a.What == "read objectSid");
    }

    [Theory]
    [InlineData("", "", AccessAnswer.No, Ada)]
    [InlineData("(A;CI;DC;;;{svc-poller})", "", AccessAnswer.Yes, Branch)]
    [InlineData("(A;CI;DC;;;{svc-poller})", "(A;;SD;;;{svc-poller})", AccessAnswer.Yes, Ada)]
    [InlineData("(A;CI;DC;;;{svc-poller})", "(D;;SD;;;{svc-poller})", AccessAnswer.Yes, Branch)]
    [InlineData("(D;CI;DC;;;{svc-poller})", "(A;;SD;;;{svc-poller})", AccessAnswer.Yes, Ada)]
    public void Deleting_is_decided_by_the_object_or_by_the_one_above(
        string onBranch, string onAda, AccessAnswer answer, string at)
    {
        var (acts, tree) = Of(Scene(onBranch, onAda), Ada);
        var delete = acts.Single(a => a.What == "delete it");
        (delete.Answer, tree[delete.At].Dn).ShouldBe((answer, at));
    }

    [Fact]
    public void Rights_are_those_of_the_class_and_children_those_of_containers()
    {
        var scene = Scene($"(OA;CI;CR;{Reset};;{{svc-poller}})(OA;CI;CC;{User};;{{svc-poller}})");
        var (user, _) = Of(scene, Ada);
        user.Single(a => a.What == "Reset Password").Answer.ShouldBe(AccessAnswer.Yes);
        user.ShouldNotContain(a => a.Kind == ObjectActKind.Create);
        var (team, _) = Of(scene, Team);
        team.ShouldNotContain(a => a.What == "Reset Password");
        team.ShouldContain(a => a.Kind == ObjectActKind.ValidatedWrite);
        var (branch, _) = Of(scene, Branch);
        branch.Where(a => a.Kind == ObjectActKind.Create && a.Answer == AccessAnswer.Yes).Select(a => a.What)
            .ShouldBe(["create a user"]);
    }

    [Theory]
    [InlineData("write attributes", "mail", Ada, AccessAnswer.Yes)]
    [InlineData("write attributes", "description", Ada, AccessAnswer.No)]
    [InlineData("reset password", "", Team, AccessAnswer.No)]
    [InlineData("write attributes", "mail", Branch, AccessAnswer.Yes)]
    [InlineData("delete", "", Branch, AccessAnswer.No)]
    [InlineData("write attributes", "mail", "OU=Nowhere," + Domain, AccessAnswer.Unknown)]
    public void Many_questions_are_answered_as_each_alone(string act, string attribute, string at, AccessAnswer answer)
    {
        var view = Scene($"(OA;CIIO;WP;{Mail};{User};{{Role}})").View();
        var node = view.Graph.IndexOf("svc-poller");
        var answers = AccessAnswers.Of(view.Tree!, view.Graph);
        var (row, attributes) = (DirectoryActs.Of(act)!, attribute.Length == 0 ? Array.Empty<string>() : [attribute]);
        for (var again = 0; again < 2; again++)
        {
            var reply = at.StartsWith("CN=", StringComparison.Ordinal)
                ? answers.OfObject(node, BranchAsked.Make(row, attributes, "", ""), view.Tree!.IndexOf(at))
                : answers.Below(node, BranchAsked.Make(row, attributes, "user", at));
            reply.Answer.ShouldBe(answer);
            (reply.Words.Length == 0).ShouldBe(answer == AccessAnswer.Yes);
        }
    }

    [Fact]
    public void What_the_branch_answers_is_what_its_objects_answer()
    {
        var random = new Random(7);
        var view = Scene($"(OA;CIIO;WP;{Mail};{User};{{Role}})(A;CI;WPSD;;;{{svc-poller}})", "(D;;WP;;;{Role})").View();
        var node = view.Graph.IndexOf("svc-poller");
        var answers = AccessAnswers.Of(view.Tree!, view.Graph);
        var attributes = view.Tree!.Schema.AttributesOf("user").Where(a => !a.IsSystemOnly).ToList();
        var told = Of(Scene($"(OA;CIIO;WP;{Mail};{User};{{Role}})(A;CI;WPSD;;;{{svc-poller}})", "(D;;WP;;;{Role})"), Ada).Acts;
        for (var i = 0; i < 200; i++)
        {
            var name = attributes[random.Next(attributes.Count)].Name;
            var below = answers.Below(node, BranchAsked.Make(DirectoryActs.Of("write attributes")!, [name], "user", Branch));
            var one = answers.OfObject(
                node, BranchAsked.Make(DirectoryActs.Of("write attributes")!, [name], "", ""), view.Tree.IndexOf(Ada));
            one.Answer.ShouldBe(below.Answer, name);
            told.Single(a => a.What == $"write {name}").Answer.ShouldBe(one.Answer, name);
        }
    }
}
