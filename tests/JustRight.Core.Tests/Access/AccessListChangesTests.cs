using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;

namespace JustRight.Core.Tests.Access;

/// <summary>Whether a change of an access list is made already.</summary>
public sealed class AccessListChangesTests
{
    private static readonly AccessRule Rule =
        new("Everyone", false, AccessRights.WriteProperty, null, null, AceFlags.ContainerInherit);

    /// <summary>How often the entry stands, and whether a removal is made, is not, or cannot be.</summary>
    public static TheoryData<int, bool?> Times => new() { { 0, true }, { 1, false }, { 2, null }, { 5, null } };

    [Theory]
    [MemberData(nameof(Times))]
    public void An_entry_is_removed_only_where_it_stands_once(int times, bool? made)
    {
        var list = Sddl.Read("D:(A;;GA;;;SY)").WithEntries([.. Enumerable.Repeat(Rule.ToAce(Sid.Everyone), times)]);
        var remove = new RemoveAccessRule("D", "OU=x,DC=y", Rule, "write its attributes");
        var state = AccessListChanges.State(remove, list, Sid.Everyone);
        state.Made.ShouldBe(made);
        if (made is null) state.Seen.ShouldContain($"stands {times} times");
    }

    [Theory]
    [InlineData("D:P(A;;GA;;;SY)(A;;GR;;;AU)")]
    [InlineData("D:PAI(A;;GA;;;SY)")]
    [InlineData("D:PARAI(A;;GA;;;SY)")]
    public void Inheritance_switched_on_and_off_again_leaves_the_list_with_every_bit_it_had(string sddl)
    {
        var list = Sddl.Read(sddl);
        var on = new SwitchInheritance("D", "OU=x,DC=y", true, DescriptorText.Write(list.DaclOnly));
        var inheriting = Inheritance.Apply(
            AccessListChanges.Made(on, list, default), Sddl.Read("D:(A;CI;GR;;;BA)").Dacl, []);
        inheriting.IsProtected.ShouldBeFalse();
        AccessListChanges.Made((SwitchInheritance)on.Inverse!, inheriting, default).ShouldBe(list);
    }
}
