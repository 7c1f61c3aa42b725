using CsCheck;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;

namespace JustRight.Core.Tests.Access;

/// <summary>What a child's list becomes: all combinations of the parent's flags, and the entries that split.</summary>
public sealed class InheritanceTests
{
    private const string User = "bf967aba-0de6-11d0-a285-00aa003049e2";
    private const string Group = "bf967a9c-0de6-11d0-a285-00aa003049e2";
    private const string Phone = "bf967a49-0de6-11d0-a285-00aa003049e2";
    private static readonly Heir Heir = new(Sid.Parse("S-1-5-21-1-2-3-500"), Sid.Parse("S-1-5-21-1-2-3-513"), [Guid.Parse(User)]);

    [Theory]
    // the sixteen combinations of the parent's flags: object-inherit, container-inherit, no-propagate, inherit-only
    [InlineData("(A;;RP;;;WD)", "")]
    [InlineData("(A;OI;RP;;;WD)", "(A;OIIOID;RP;;;WD)")]
    [InlineData("(A;CI;RP;;;WD)", "(A;CIID;RP;;;WD)")]
    [InlineData("(A;OICI;RP;;;WD)", "(A;OICIID;RP;;;WD)")]
    [InlineData("(A;NP;RP;;;WD)", "")]
    [InlineData("(A;OINP;RP;;;WD)", "")]
    [InlineData("(A;CINP;RP;;;WD)", "(A;ID;RP;;;WD)")]
    [InlineData("(A;OICINP;RP;;;WD)", "(A;ID;RP;;;WD)")]
    [InlineData("(A;IO;RP;;;WD)", "")]
    [InlineData("(A;OIIO;RP;;;WD)", "(A;OIIOID;RP;;;WD)")]
    [InlineData("(A;CIIO;RP;;;WD)", "(A;CIID;RP;;;WD)")]
    [InlineData("(A;OICIIO;RP;;;WD)", "(A;OICIID;RP;;;WD)")]
    [InlineData("(A;NPIO;RP;;;WD)", "")]
    [InlineData("(A;OINPIO;RP;;;WD)", "")]
    [InlineData("(A;CINPIO;RP;;;WD)", "(A;ID;RP;;;WD)")]
    [InlineData("(A;OICINPIO;RP;;;WD)", "(A;ID;RP;;;WD)")]
    // entries that split
    [InlineData("(A;CI;RP;;;CO)", "(A;ID;RP;;;S-1-5-21-1-2-3-500)(A;CIIOID;RP;;;CO)")]
    [InlineData("(A;CI;RP;;;CG)", "(A;ID;RP;;;S-1-5-21-1-2-3-513)(A;CIIOID;RP;;;CG)")]
    [InlineData("(A;CI;GR;;;WD)", "(A;ID;LCRPLORC;;;WD)(A;CIIOID;GR;;;WD)")]
    [InlineData("(A;CINP;GR;;;CO)", "(A;ID;LCRPLORC;;;S-1-5-21-1-2-3-500)")]
    // entries for one class
    [InlineData($"(OA;CI;WP;{Phone};{User};WD)", $"(OA;CIID;WP;{Phone};{User};WD)")]
    [InlineData($"(OA;CI;WP;{Phone};{Group};WD)", $"(OA;CIIOID;WP;{Phone};{Group};WD)")]
    [InlineData($"(OA;CINP;WP;{Phone};{User};WD)", $"(OA;ID;WP;{Phone};;WD)")]
    [InlineData($"(OA;CINP;WP;;{User};WD)", "(A;ID;WP;;;WD)")]
    [InlineData($"(OA;CINP;WP;{Phone};{Group};WD)", "")]
    [InlineData($"(OD;CIIO;WP;;{User};CO)", $"(D;ID;WP;;;S-1-5-21-1-2-3-500)(OD;CIIOID;WP;;{User};CO)")]
    public void Case(string parent, string child) =>
        string.Concat(Inheritance.From(Sddl.Read("D:" + parent).Dacl, Heir).Select(a => a.ToString())).ShouldBe(child);

    [Fact]
    public void A_child_keeps_its_own_entries_first_and_a_protected_one_keeps_all()
    {
        var parent = Sddl.Read("D:(A;CI;RP;;;WD)").Dacl;
        Sddl.Write(Inheritance.Apply(Sddl.Read("O:WDD:(D;;SD;;;WD)(A;CIID;WP;;;AU)"), parent, []))
            .ShouldBe("O:WDD:AI(D;;SD;;;WD)(A;CIID;RP;;;WD)");
        var closed = Sddl.Read("O:WDD:P(D;;SD;;;WD)(A;CIID;WP;;;AU)");
        Inheritance.Apply(closed, parent, []).ShouldBe(closed);
        var open = Sddl.Read("O:WDD:NO_ACCESS_CONTROL");
        Inheritance.Apply(open, parent, []).ShouldBe(open);
    }

    [Fact]
    public void Inheriting_twice_changes_nothing_more() =>
        Gen.Select(RandomAccess.AnyAce.Array[0, 6], RandomAccess.Descriptor(RandomAccess.AnyAce)).Sample((aces, child) =>
    {
        var once = Inheritance.Apply(child, Acl.Of(aces), [Guid.Parse(User)]);
        Inheritance.Apply(once, Acl.Of(aces), [Guid.Parse(User)]).ShouldBe(once);
    });

    [Fact]
    public void What_is_put_in_and_taken_out_leaves_the_list_as_it_was() =>
        Gen.Select(RandomAccess.Descriptor(RandomAccess.AnyAce), RandomAccess.KnownAce).Sample((d, ace) =>
    {
        if (d is not { HasDacl: true, Dacl: not null } || d.Entries.Contains(ace)) return;
        var with = AclEditor.Insert(d, ace);
        with.Entries.Count.ShouldBe(d.Entries.Count + 1);
        AclEditor.Insert(with, ace).ShouldBe(with);
        var (without, at) = AclEditor.Remove(with, ace);
        without.Entries.ShouldBe(d.Entries);
        AclEditor.Insert(without, ace, at).ShouldBe(with);
    });

    [Theory]
    [InlineData("(D;;SD;;;WD)(A;;RP;;;WD)(A;ID;WP;;;WD)", "(A;;CC;;;AU)", "(D;;SD;;;WD)(A;;RP;;;WD)(A;;CC;;;AU)(A;ID;WP;;;WD)")]
    [InlineData("(D;;SD;;;WD)(A;;RP;;;WD)(D;ID;WP;;;WD)", "(D;;CC;;;AU)", "(D;;SD;;;WD)(D;;CC;;;AU)(A;;RP;;;WD)(D;ID;WP;;;WD)")]
    [InlineData("(A;;RP;;;WD)(D;;SD;;;WD)", "(D;;CC;;;AU)", "(D;;CC;;;AU)(A;;RP;;;WD)(D;;SD;;;WD)")]
    [InlineData("(D;ID;WP;;;WD)", "(D;;CC;;;AU)", "(D;;CC;;;AU)(D;ID;WP;;;WD)")]
    [InlineData("", "(A;;CC;;;AU)", "(A;;CC;;;AU)")]
    public void An_entry_goes_where_it_belongs(string list, string ace, string expected) =>
        string.Concat(AclEditor.Insert(Sddl.Read("D:" + list), Sddl.ReadAce(ace)).Entries.Select(e => e.ToString()))
            .ShouldBe(expected);

    [Fact]
    public void The_built_in_schema_knows_what_the_simulation_needs()
    {
        var schema = BuiltInSchema.Schema;
        schema.Holds("user", "mail").ShouldBeTrue();
        schema.Holds("user", "member").ShouldBeFalse();
        schema.Holds("group", "member").ShouldBeTrue();
        schema.IsA("computer", "user").ShouldBeTrue();
        schema.IsA("user", "computer").ShouldBeFalse();
        schema.NameOf(Guid.Parse("00299570-246d-11d0-a768-00aa006e0529")).ShouldBe("Reset Password");
        schema.Attribute("TELEPHONENUMBER")!.PropertySet.ShouldBe(Guid.Parse("77b5b886-944a-11d1-aebd-0000f80367c1"));
    }
}
