using JustRight.Core.Changes;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Access;

/// <summary>The protection from accidental deletion: seen, set and lifted, and nothing else touched.</summary>
public sealed class DeletionProtectionTests
{
    private const string Root = "DC=fennmoor,DC=example";
    private const string Branch = "OU=People," + Root;

    [Theory]
    [InlineData("D:", false)]
    [InlineData("D:(D;;SDDT;;;WD)", true)]
    [InlineData("D:(D;;SD;;;WD)", true)]
    [InlineData("D:(D;;SD;;;AU)", false)] // not for everyone
    [InlineData("D:(D;ID;SD;;;WD)", false)] // inherited: it protects all alike, and is not this object's own
    [InlineData("D:(D;CIIO;SD;;;WD)", false)]
    [InlineData("D:(A;;SD;;;WD)", false)]
    [InlineData("D:(D;;DC;;;WD)", false)] // protects what is below
    public void What_counts_as_a_protection(string list, bool on) => DeletionProtection.IsOn(Sddl.Read(list)).ShouldBe(on);

    [Theory]
    [InlineData("D:", "D:", 2)]
    [InlineData("D:(D;;SDDT;;;WD)", "D:", 1)]
    [InlineData("D:(D;;SDDT;;;WD)", "D:(D;;DC;;;WD)", 0)]
    [InlineData("D:(D;;SD;;;WD)", "D:(D;;DC;;;WD)", 1)]
    public void Setting_adds_what_is_missing_and_lifting_restores_the_object_itself(string own, string above, int missing)
    {
        var set = DeletionProtection.Set(Tree(own, above), 1, "FENNMOOR");
        set.Count.ShouldBe(missing);
        var (protectedList, parent) = (After(own, set, Branch), After(above, set, Root));
        DeletionProtection.IsOn(Sddl.Read(protectedList)).ShouldBeTrue();
        var shielded = Tree(protectedList, parent);
        DeletionProtection.Set(shielded, 1, "FENNMOOR").ShouldBeEmpty();
        var lift = DeletionProtection.Lift(shielded, 1, "FENNMOOR");
        // the parent's protects others too
        lift.OfType<RemoveAccessRule>().Count(c => c.Dn == Branch).ShouldBe(lift.Count);
        After(protectedList, lift, Branch).ShouldBe("D:");
        After("D:", lift.Reverse().Select(c => (DirectoryChange)c.Inverse!), Branch).ShouldBe(protectedList);
    }

    private static AccessTree Tree(string own, string above) => new(new AccessSnapshot(
        BuiltInSchema.Schema, [Sddl.Read(above), Sddl.Read(own)], [
            new DirectoryObject(Root, "domainDNS", default, 0, false),
            new DirectoryObject(Branch, "organizationalUnit", default, 1, false)], [], []));

    private static string After(string list, IEnumerable<DirectoryChange> changes, string dn) =>
        Sddl.Write(changes.OfType<AccessListChange>().Where(c => c.Dn == dn)
        .Aggregate(Sddl.Read(list), (l, c) => AccessListChanges.Made(c, l, Core.Directory.Sid.Everyone)))!;
}
