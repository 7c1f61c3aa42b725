using JustRight.Core.Changes;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Traces;

namespace JustRight.Core.Tests.Access;

/// <summary>
/// Objects that are given are judged as what they are, what fails is named whole, and what is offered for them helps.
/// </summary>
public sealed class GivenObjectTests
{
    private const string Domain = "DC=fennmoor,DC=example";
    private const string Branch = "OU=Dairy," + Domain;
    private const string Group = "bf967a9c-0de6-11d0-a285-00aa003049e2";
    private const string User = "bf967aba-0de6-11d0-a285-00aa003049e2";
    private const string Computer = "bf967a86-0de6-11d0-a285-00aa003049e2";
    private const string HostName = "72e39547-7b18-11d1-adef-00c04fd8d5cd";
    private const string PrincipalName = "f3a64788-5306-11d1-a9c5-0000f80367c1";
    private const string ControlFlags = "bf967a68-0de6-11d0-a285-00aa003049e2";
    private const string Reset = "00299570-246d-11d0-a768-00aa006e0529";
    private const string Unread = "";

    private static FitScene Scene(string onBranch = "", string onTeam = "", string onAda = "") =>
        new FitScene().Account().Tree(
            (Domain, "domainDNS", "D:(A;CI;GA;;;DA)"), (Branch, "organizationalUnit", "D:AI" + onBranch), (
                "CN=Ada," + Branch, "user", "D:AI" + onAda), ("CN=Team," + Branch, "group", "D:AI" + onTeam), (
                "CN=fm-line01," + Branch, "computer", "D:AI"));

    /// <summary>Act, what stands on the branch, and which of Ada, the team and the computer grant it.</summary>
    public static TheoryData<string, string[], string, string> Own => new()
    {
        { "delete", [], $"(OA;CI;DC;{Group};;{{svc-poller}})", "Team" },
        { "delete", [], $"(OA;CI;DC;{User};;{{svc-poller}})", "Ada" },
        { "delete", [], "(A;CI;DC;;;{svc-poller})", "Ada Team fm-line01" },
        { "delete", [], $"(OA;CIIO;SD;;{Group};{{svc-poller}})", "Team" },
        { "reset password", [], $"(OA;CI;CR;{Reset};;{{svc-poller}})", "Ada fm-line01" },
        { "unlock", [], "(A;CI;WP;;;{svc-poller})", "Ada fm-line01" },
        { "change membership", [], "(A;CI;WP;;;{svc-poller})", "Team" },
        { "write attributes", ["member"], $"(OA;CI;WP;{Group};;{{svc-poller}})", "Team" },
        { "write attributes", ["mail"], $"(OA;CI;WP;{Group};;{{svc-poller}})", "Team" },
        { "write attributes", ["mail"], $"(OA;CI;WP;{User};;{{svc-poller}})", "Ada" },
        { "write attributes", ["dNSHostName"], "(A;CI;WP;;;{svc-poller})", "fm-line01" },
        { "full control", [], "(A;CI;GA;;;{svc-poller})", "Ada Team fm-line01" },
        { "move", [], "(A;CI;WPDC;;;{svc-poller})", "Ada Team fm-line01" },
        { "join computers", [], $"(A;CI;WPCR;;;{{svc-poller}})", "fm-line01" },
    };

    [Theory]
    [MemberData(nameof(Own))]
    public void Each_given_object_is_judged_as_its_own_class(string act, string[] attributes, string onBranch, string grant)
    {
        foreach (var name in new[] { "Ada", "Team", "fm-line01" })
        {
            var answer = Trace(Scene(onBranch), act, attributes, $"CN={name},{Branch}").Answer;
            (answer.Can, answer.Cannot).ShouldBe(grant.Split(' ').Contains(name) ? (1, 0) : (0, 1), name);
        }

        var all = Trace(
            Scene(onBranch), act, attributes, $"CN=Ada,{Branch}", $"CN=Team,{Branch}", $"CN=fm-line01,{Branch}").Answer;
        (all.Can, all.Cannot).ShouldBe((grant.Split(' ').Length, 3 - grant.Split(' ').Length));
    }

    [Theory]
    [InlineData("reset password", "", "objects of class group have no password")]
    [InlineData("change membership", "", "")]
    [InlineData("write attributes", "dNSHostName", "objects of class group do not hold the attribute 'dNSHostName'")]
    [InlineData("join computers", "", "objects of class group are no computers")]
    public void What_a_class_does_not_know_is_said_and_no_right_is_offered_for_it(string act, string attribute, string told)
    {
        var trace = Trace(Scene(), act, attribute.Length == 0 ? [] : [attribute], "CN=Team," + Branch);
        var failure = trace.Answer.Failures.ShouldHaveSingleItem();
        if (told.Length == 0)
        {
            failure.Cause.ShouldBe(FailureCause.NothingGivesIt);
            return;
        }

        (failure.Cause, failure.Words).ShouldBe((FailureCause.NotOfItsClass, told));
        trace.Remedies[0].ShouldBeEmpty();
    }

    [Fact]
    public void An_object_whose_class_may_not_be_read_is_unseen_and_so_is_a_branch_that_holds_it()
    {
        var scene = new FitScene().Account().Tree(
            (Domain, "domainDNS", "D:(A;CI;GA;;;{svc-poller})"), (Branch, "organizationalUnit", "D:AI"), (
                "CN=Ada," + Branch, "user", "D:AI"), ("CN=Hidden," + Branch, Unread, "D:AI"));
        var given = Trace(scene, "delete", [], "CN=Hidden," + Branch, "CN=Ada," + Branch).Answer;
        (given.Can, given.Cannot, given.Unseen).ShouldBe((1, 0, 1));
        given.Failures.ShouldHaveSingleItem().Words.ShouldBe("the class may not be read");
        var whole = Trace(scene, "reset password", [], []).Answer;
        (whole.Can, whole.Cannot, whole.Unseen, whole.Holds).ShouldBe((1, 0, 1, false));
    }

    [Theory]
    [InlineData("(OA;CIIO;WP;;" + Computer + ";{svc-poller})", true)]
    [InlineData("(OA;CIIO;WP;" + HostName + ";" + Computer + ";{svc-poller})(OA;CIIO;SW;" + PrincipalName + ";" + Computer
        + ";{svc-poller})(OA;CIIO;WP;" + ControlFlags + ";" + Computer + ";{svc-poller})", true)]
    [InlineData("(OA;CIIO;WP;" + HostName + ";" + Computer + ";{svc-poller})(OA;CIIO;WP;" + ControlFlags + ";" + Computer
        + ";{svc-poller})", false)]
    public void Who_may_write_an_attribute_may_write_it_validated(string writes, bool joins)
    {
        var list = $"(OA;CI;CC;{Computer};;{{svc-poller}})(OA;CIIO;CR;{Reset};{Computer};{{svc-poller}})";
        Trace(Scene(list + writes), "join computers", [], []).Answer.Holds.ShouldBe(joins);
    }

    [Fact]
    public void Whoever_creates_a_computer_owns_it_and_has_what_the_class_gives_its_creator()
    {
        // no computer is there yet: creating one is all that is needed, since its creator may do the rest
        var scene = new FitScene().Account().Tree(
            (Domain, "domainDNS", "D:(A;CI;GA;;;DA)"),
            (Branch, "organizationalUnit", $"D:AI(OA;CI;CC;{Computer};;{{svc-poller}})"));
        var answer = Trace(scene, "join computers", [], []).Answer;
        answer.Uncovered.ShouldBeEmpty();
        // what somebody else creates is not its own
        Trace(scene, "reset password", [], [], of: "computer").Answer.Uncovered.ShouldNotBeEmpty();
    }

    [Fact]
    public void A_right_to_delete_one_object_is_offered_on_that_object_and_helps()
    {
        var trace = Trace(Scene(), "delete", [], "CN=Ada," + Branch);
        var remedy = trace.Remedies[0].ShouldHaveSingleItem();
        var rule = remedy.Changes.ShouldHaveSingleItem().ShouldBeOfType<AddAccessRule>();
        (rule.Dn, rule.Rule.Rights, rule.Rule.ObjectType).ShouldBe(("CN=Ada," + Branch, AccessRights.Delete, null));
        (remedy.Preview.Fixed, remedy.Preview.StillFailing).ShouldBe((1, 0));
    }

    [Fact]
    public void A_right_to_delete_what_is_below_a_branch_is_offered_on_the_branch_and_helps()
    {
        var trace = Trace(Scene(), "delete", [], [], of: "group");
        var remedy = trace.Remedies[0].ShouldHaveSingleItem();
        var rule = remedy.Changes.ShouldHaveSingleItem().ShouldBeOfType<AddAccessRule>();
        (rule.Dn, rule.Rule.Rights, rule.Rule.ObjectType).ShouldBe((Branch, AccessRights.DeleteChild, Guid.Parse(Group)));
        (remedy.Preview.Fixed, remedy.Preview.StillFailing).ShouldBe((1, 0));
    }

    [Fact]
    public void A_denial_names_each_attribute_that_it_denies()
    {
        var scene = Scene(
            "(OD;CI;WP;bf967961-0de6-11d0-a285-00aa003049e2;;{svc-poller})(A;CI;WP;;;{svc-poller})"); // mail
        var failure = Trace(scene, "write attributes", ["mail", "roomNumber"], "CN=Ada," + Branch).Answer.Failures
            .ShouldHaveSingleItem();
        failure.Words.ShouldBe($"an ACE on {Branch} denies the right to write mail");
        failure.Demands.Select(d => d.Words).ShouldBe(["write mail"]);
    }

    private static AccessTrace Trace(FitScene scene, string act, string[] attributes, params string[] objects) =>
        Trace(scene, act, attributes, objects, "user");

    private static AccessTrace Trace(FitScene scene, string act, string[] attributes, string[] objects, string of)
    {
        var view = scene.View();
        var row = DirectoryActs.Of(act)!;
        var asked = BranchAsked.Make(
            row, attributes, objects.Length > 0 ? "" : row.Class is "computer" ? "computer" : of,
            objects.Length > 0 ? "" : Branch);
        return AccessTrace.Make(
            new TraceQuestion(@"FENNMOOR\svc-poller", view.Graph.IndexOf("svc-poller"), asked, objects, [], []), view.Tree!,
            view.Graph);
    }
}
