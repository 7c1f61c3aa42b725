using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Plans;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Access;

/// <summary>Every act of a directory need: the entries that are planned for it are enough, none is one too many, and none is excess.</summary>
public sealed class DemandTests
{
    private const string Branch = "OU=Branch,DC=fennmoor,DC=example";
    private static readonly Sid Agent = Sid.Parse("S-1-5-21-1-2-3-1200");
    private static readonly DirectorySchema Schema = BuiltInSchema.Schema;

    public static TheoryData<string, string, string[]> Acts => new()
    {
        { "write attributes", "user", ["mail", "roomNumber"] },
        { "read attributes", "user", ["mail"] },
        { "change membership", "group", [] },
        { "create", "user", [] },
        { "delete", "group", [] },
        { "move", "user", [] },
        { "reset password", "user", [] },
        { "unlock", "user", [] },
        { "join computers", "computer", [] },
        { "full control", "user", [] },
    };

    [Theory]
    [MemberData(nameof(Acts))]
    public void The_planned_entries_are_enough_and_each_is_needed(string act, string of, string[] attributes)
    {
        var right = BranchAsked.Make(DirectoryActs.Of(act)!, attributes, of, Branch);
        var rules = Rules(right);
        rules.Count.ShouldBeGreaterThan(0);
        Judge(right, rules)
            .ShouldSatisfyAllConditions(
                a => a.Cannot.ShouldBe(0), a => a.Can.ShouldBeGreaterThan(0), a => a.Uncovered.ShouldBeEmpty());
        Judge(right, []).Can.ShouldBe(0);
        foreach (var one in rules) Judge(right, [.. rules.Where(r => r != one)]).Cannot.ShouldBeGreaterThan(0, $"without {one}");
    }

    [Theory]
    [MemberData(nameof(Acts))]
    public void The_planned_entries_are_nothing_beyond_the_need(string act, string of, string[] attributes)
    {
        var right = BranchAsked.Make(DirectoryActs.Of(act)!, attributes, of, Branch);
        foreach (var rule in Rules(right))
        {
            var entry = new EntryRight("", Branch, rule, 1);
            EntryReach.Beyond(entry, [right], Schema).ShouldBe(AccessRights.None);
            EntryReach.Gives(entry, right, Schema)
                .ShouldBe((rule.Rights.Mapped() & ~(AccessRights.ReadProperty | AccessRights.ListContents)) != 0
                    || act == "read attributes");
            if ((rule.Rights & EntryReach.Changing) == 0) continue; // an entry that only reads is never excess
            EntryReach.Beyond(entry, [], Schema).ShouldNotBe(AccessRights.None);
            EntryReach.Beyond(new EntryRight("", "DC=fennmoor,DC=example", rule, 1), [right], Schema)
                .ShouldNotBe(AccessRights.None, "it covers more");
        }
    }

    [Theory]
    [InlineData("write attributes", "user", "maill", "unknown-attribute", "mail",
        "The directory's schema has no attribute 'maill'. Found: 'maill'. Expected: an attribute of the schema.")]
    [InlineData("write attributes", "usr", "mail", "unknown-class", "user",
        "The directory's schema has no class 'usr'. Found: 'usr'. Expected: a class of the schema.")]
    [InlineData("write attributes", "organizationalUnit", "roomNumber", "attribute-not-held", null,
        "Objects of class organizationalUnit do not hold the attribute 'roomNumber'. Found: 'roomNumber'. "
        + "Expected: an attribute of organizationalUnit.")]
    [InlineData("write attributes", "user", "objectSid", "system-only", null,
        "Only the directory itself writes 'objectSid'. Found: 'objectSid'. Expected: an attribute that accounts can write.")]
    [InlineData("reset password", "group", null, "not-an-account", null,
        "Objects of class group have no password. Found: 'group'. Expected: user, inetOrgPerson or computer.")]
    [InlineData("change membership", "user", null, "attribute-not-held", null,
        "Objects of class user have no members. Found: 'user'. Expected: group.")]
    public void What_the_schema_does_not_allow_is_refused_with_the_nearest_name(
        string act, string of, string? attribute, string code, string? nearest, string told)
    {
        var fault = DirectoryNeedRules.Check(
            DirectoryActs.Of(act)!, attribute is null ? [] : [attribute], of, Schema, new Origin("sheet.yaml", 3, 5))
            .ShouldHaveSingleItem();
        (fault.Code, fault.Nearest, fault.At.Line).ShouldBe((code, nearest, 3));
        fault.ToString().ShouldBe($"sheet.yaml:3:5: {told}{(nearest is null ? "" : $" Did you mean '{nearest}'?")}");
    }

    private static List<AccessRule> Rules(BranchAsked right) =>
        [.. Demands.Of(right, Schema).Demands!.Select(d =>
            d.RuleFor(Agent.ToString(), Schema.Class(right.Of)!)).DistinctBy(r => r.Key)];

    /// <summary>The branch with the entries on it, a container in it, and an object of the class in each.</summary>
    private static BranchAnswer Judge(BranchAsked right, IReadOnlyList<AccessRule> rules)
    {
        var empty = Sddl.Read("D:AI");
        var branch = empty;
        foreach (var rule in rules) branch = AclEditor.Insert(branch, rule.ToAce(Agent));
        DirectoryObject[] objects =
        [
            new("DC=fennmoor,DC=example", "domainDNS", default, 0, false), new(
                Branch, "organizationalUnit", default, 0, false), new(
                "OU=Inner," + Branch, "organizationalUnit", default, 0, false),
            new("CN=one," + Branch, right.Of, Sid.Parse("S-1-5-21-1-2-3-3001"), 0, false), new(
                "CN=two,OU=Inner," + Branch, right.Of, Sid.Parse("S-1-5-21-1-2-3-3002"), 0, false),
        ];
        var tree = new AccessTree(new AccessSnapshot(Schema, [empty], objects, [Branch], []))
            .With(new Dictionary<int, SecurityDescriptor> { [0] = empty, [1] = branch });
        return new BranchJudge(new AccessSweep(tree, new AccessToken(Agent, [])), Sid.Parse("S-1-5-21-1-2-3"), _ => false)
            .Judge(right).Answer!;
    }
}
