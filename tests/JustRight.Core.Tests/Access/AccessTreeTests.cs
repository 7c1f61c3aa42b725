using CsCheck;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Access;

/// <summary>Trees of access lists: what-ifs inherit as the directory does, and sweeps say of each object what judging it alone says.</summary>
public sealed class AccessTreeTests
{
    private const string Root = "DC=fennmoor,DC=example";
    private static readonly string[] Classes = ["organizationalUnit", "user", "group", "computer"];

    private static readonly Gen<AccessTree> AnyTree = Gen.Select(RandomAccess.Descriptor(
        RandomAccess.KnownAce).Array[2, 6], Gen.Select(
        Gen.Int[0, 100], Gen.Int[0, 100], Gen.Int[0, 100]).Array[1, 14], (lists, shape) =>
    {
        var objects = new List<DirectoryObject> { new(Root, "domainDNS", default, 0, false) };
        foreach (var (above, kind, list) in shape)
        {
            var parents = objects.Where(o => o.Class is "domainDNS" or "organizationalUnit").ToList();
            objects.Add(new DirectoryObject(
                $"OU=o{objects.Count},{parents[above % parents.Count].Dn}", Classes[kind % Classes.Length],
                Sid.Parse($"S-1-5-21-1-2-3-{2000 + objects.Count}"), list % lists.Length, false));
        }

        return new AccessTree(new AccessSnapshot(BuiltInSchema.Schema, lists, objects, [Root], []));
    });

    [Fact]
    public void After_a_change_everything_below_inherits_and_everything_else_is_as_it_was() =>
        Gen.Select(AnyTree, RandomAccess.Descriptor(RandomAccess.KnownAce), Gen.Int[0, 100]).Sample((tree, list, which) =>
    {
        var at = which % tree.Count;
        var then = tree.With(new Dictionary<int, SecurityDescriptor> { [at] = list });
        var below = tree.AtAndBelow(at).ToHashSet();
        for (var i = 0; i < tree.Count; i++)
        {
            if (!below.Contains(i)) then.DescriptorOf(i).ShouldBe(tree.DescriptorOf(i));
            else if (i != at)
                then.DescriptorOf(i)
                    .ShouldBe(Inheritance.Apply(
                        tree.DescriptorOf(i)!, then.DescriptorOf(tree.ParentOf(i))!.Dacl,
                        [tree.Schema.Class(tree[i].Class)!.Id]));
        }
    });

    [Fact]
    public void A_change_taken_back_leaves_the_tree_as_it_was() =>
        Gen.Select(AnyTree, RandomAccess.Descriptor(RandomAccess.KnownAce), Gen.Int[0, 100]).Sample((raw, list, which) =>
    {
        // as a directory has it: all inherited
        var tree = raw.With(Enumerable.Range(0, raw.Count).ToDictionary(i => i, i => raw.DescriptorOf(i)!));
        var at = which % tree.Count;
        var back = tree.With(new Dictionary<int, SecurityDescriptor> { [at] = list })
            .With(new Dictionary<int, SecurityDescriptor> { [at] = tree.DescriptorOf(at)! });
        for (var i = 0; i < tree.Count; i++) back.DescriptorOf(i).ShouldBe(tree.DescriptorOf(i));
    });

    [Fact]
    public void A_sweep_says_of_every_object_what_judging_it_alone_says() => AnyTree.Sample(tree =>
    {
        var token = new AccessToken(Sid.Parse("S-1-5-21-1-2-3-2001"), [Sid.Everyone, Sid.Parse("S-1-5-21-1-2-3-1105")]);
        var sweep = new AccessSweep(tree, token);
        var mail = tree.Schema.Attribute("mail")!;
        for (var round = 0; round < 2; round++)
            for (var i = 0; i < tree.Count; i++)
            {
                var question = AccessQuestion.Write(mail, tree.Schema.Class(tree[i].Class)!);
                sweep.Ask(i, question).Answer.ShouldBe(
                    AccessCheck.Judge(tree.DescriptorOf(i)!, token, question, tree[i].Sid).Answer);
            }
    });

    [Theory]
    [InlineData("CN=a,OU=b,DC=c", "OU=b,DC=c")]
    [InlineData(@"CN=Ferris\, Maud,OU=b,DC=c", "OU=b,DC=c")]
    [InlineData(@"CN=back\\,OU=b", "OU=b")]
    [InlineData("DC=c", null)]
    public void The_name_above_is_after_the_first_comma_that_is_not_escaped(string dn, string? above) =>
        AccessTree.ParentDn(dn).ShouldBe(above);
}
