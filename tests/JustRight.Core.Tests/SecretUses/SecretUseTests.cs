using JustRight.Core.SecretUses;

namespace JustRight.Core.Tests.SecretUses;

/// <summary>A use of a secret is another one when any part of it is another.</summary>
public sealed class SecretUseTests
{
    private static readonly SecretUse Use = new(
        SecretPurpose.Host, "fennmoor", "fm-line01", "10.20.30.42:22", @"FENNMOOR\host-reader", "ssh", "host key SHA256:abc");

    public static TheoryData<SecretUse> Others => new(
        Use with { Purpose = SecretPurpose.ServiceAccount },
        Use with { Estate = "fennmoor2" },
        Use with { For = "fm-line02" },
        Use with { Address = "10.20.30.43:22" },
        Use with { Address = "10.20.30.42:2222" },
        Use with { SignInAs = @"FENNMOOR\somebody" },
        Use with { Transport = "plain" },
        Use with { Anchor = "host key SHA256:abd" },
        // What moves from one part to the next is another use as well.
        Use with { Estate = "fennmoorfm", For = "-line01" });

    [Theory]
    [MemberData(nameof(Others))]
    public void Another_part_is_another_use(SecretUse other)
    {
        other.ShouldNotBe(Use);
        other.Id.ShouldNotBe(Use.Id);
    }

    [Fact]
    public void The_same_parts_are_the_same_use_and_words_name_each()
    {
        var same = Use with { };
        (same == Use, same.Id == Use.Id).ShouldBe((true, true));
        Use.Words.ShouldBe(
            @"signs in to the host fm-line01 of fennmoor at 10.20.30.42:22 as FENNMOOR\host-reader (ssh, host key SHA256:abc)");
        Use.Id.Length.ShouldBe(20);
    }

    [Fact]
    public void Every_purpose_has_a_name_of_its_own_that_is_read_back()
    {
        var all = Enum.GetValues<SecretPurpose>();
        all.Select(p => p.Name()).Distinct().Count().ShouldBe(all.Length);
        foreach (var purpose in all) SecretPurposeNames.Read(purpose.Name()).ShouldBe(purpose);
    }

    [Theory]
    [InlineData("10.20.30.42:22", "10.20.30.42")]
    [InlineData("fm-dc01.fennmoor.example:636", "fm-dc01.fennmoor.example")]
    [InlineData("https://hooks.fennmoor.example:8443/just-right", "hooks.fennmoor.example")]
    public void The_host_is_read_from_the_address(string address, string host) =>
        (Use with { Address = address }).Host.ShouldBe(host);
}
