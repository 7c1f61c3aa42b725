using CsCheck;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Tests.Access;

/// <summary>Descriptors between bytes, model and text: round trips, refusals, and readers that nothing can break.</summary>
public sealed class DescriptorTests
{
    private const int Overhead = 2048; // what an answer or a refusal costs however short the input

    [Fact]
    public void Bytes_and_model_are_the_same() => RandomAccess.Descriptor(RandomAccess.AnyAce).Sample(d =>
    {
        var bytes = DescriptorBytes.Write(d);
        var again = DescriptorBytes.Read(bytes);
        again.ShouldBe(d);
        DescriptorBytes.Write(again).ShouldBe(bytes);
    });

    [Fact]
    public void Text_and_model_are_the_same() => RandomAccess.Descriptor(RandomAccess.KnownAce).Sample(d =>
    {
        var text = Sddl.Write(d)!;
        Sddl.Read(text).ShouldBe(d);
        Sddl.Write(Sddl.Read(text.ToLowerInvariant().Replace("s-1", "S-1", StringComparison.Ordinal))).ShouldBe(text);
    });

    [Fact]
    public void An_entry_that_is_not_understood_has_no_text_and_survives_in_bytes()
    {
        var strange = new Ace((AceType)0x42, AceFlags.ContainerInherit, AccessRights.None, default) { RawBody = "C0FFEE" };
        var descriptor = new SecurityDescriptor(
            DescriptorControl.DaclPresent | DescriptorControl.SelfRelative, default, default, Acl.Of([strange]), null);
        Sddl.Write(descriptor).ShouldBeNull();
        DescriptorBytes.Read(DescriptorBytes.Write(descriptor)).Entries.ShouldBe([strange]);
        strange.ToString().ShouldContain("type 66");
    }

    [Theory]
    [InlineData("", false, false)]
    [InlineData("D:NO_ACCESS_CONTROL", true, false)]
    [InlineData("D:", true, true)]
    public void Absent_null_and_empty_lists_are_three_things(string text, bool present, bool list)
    {
        var read = DescriptorBytes.Read(DescriptorBytes.Write(Sddl.Read(text)));
        (read.HasDacl, read.Dacl is not null).ShouldBe((present, list));
        Sddl.Write(read).ShouldBe(text);
    }

    [Fact]
    public void Fuzzed_bytes_are_read_or_refused() =>
        Gen.Select(
            RandomAccess.Descriptor(RandomAccess.AnyAce), Gen.Select(Gen.Int[0, 500], Gen.Byte).Array[0, 6], Gen.Int[0, 60])
            .Sample((d, edits, cut) =>
    {
        var bytes = DescriptorBytes.Write(d);
        foreach (var (at, value) in edits) bytes[at % bytes.Length] = value;
        ReadsOrRefuses(bytes.Length - Math.Min(cut, bytes.Length), input => DescriptorBytes.Read(bytes.AsSpan(0, input)));
    });

    [Fact]
    public void Any_bytes_are_read_or_refused() =>
        Gen.Byte.Array[0, 300].Sample(bytes => ReadsOrRefuses(bytes.Length, _ => DescriptorBytes.Read(bytes)));

    [Fact]
    public void Fuzzed_text_is_read_or_refused() =>
        Gen.Select(
            RandomAccess.Descriptor(RandomAccess.KnownAce),
            Gen.Select(Gen.Int[0, 900], Gen.Char["OGDSAIPRW:;()-0x9 \0"]).Array[0, 6])
            .Sample((d, edits) =>
    {
        var text = Sddl.Write(d)!.ToCharArray();
        if (text.Length == 0) return;
        foreach (var (at, value) in edits) text[at % text.Length] = value;
        ReadsOrRefuses(text.Length * 2, _ => Sddl.Read(text));
    });

    [Fact]
    public void Any_text_is_read_or_refused() => Gen.String.Sample(text => ReadsOrRefuses(text.Length * 2, _ => Sddl.Read(text)));

    [Theory]
    [InlineData("D:(;;GA;;;WD)", "an empty type")]
    [InlineData("D:(A;;0xZZ;;;WD)", "a mask that is no number")]
    [InlineData("D:(A;;0x1FFFFFFFF;;;WD)", "a mask of more than 32 bits")]
    [InlineData("D:(AD;;GA;;;WD)", "two types in one")]
    [InlineData("D:(A;;GA;;;WD)x", "text after the end")]
    [InlineData("D:(A;;GA;;;WD", "no closing bracket")]
    [InlineData("D:(A;;GA;;;QQ)", "an unknown name")]
    [InlineData("D:(A;;GA;;;DA)", "a domain's group without the domain")]
    [InlineData("D:(A;;GA;bf967aba-0de6-11d0-a285-00aa003049e2;;WD)", "a GUID in a plain entry")]
    [InlineData("D:(OA;;GA;not-a-guid;;WD)", "no GUID")]
    [InlineData("D:(A;QQ;GA;;;WD)", "an unknown flag")]
    [InlineData("D:(A;;GAR;;;WD)", "half a right")]
    [InlineData("O:", "no owner")]
    [InlineData("O:WDO:WD", "two owners")]
    [InlineData("X:WD", "an unknown part")]
    public void Malformed_text_is_refused(string text, string why) =>
        Should.Throw<DescriptorFormatException>(() => Sddl.Read(text), why);

    [Fact]
    public void Names_of_a_domain_are_read_with_its_SID()
    {
        var domain = Sid.Parse("S-1-5-21-1-2-3");
        var read = Sddl.Read(
            "O:DAG:duD:AI(OA;CIIO;RPWP;bf9679c0-0de6-11d0-a285-00aa003049e2;bf967a9c-0de6-11d0-a285-00aa003049e2;ea)", domain);
        read.Owner.ToString().ShouldBe("S-1-5-21-1-2-3-512");
        read.Group.Rid.ShouldBe(513u);
        read.Entries[0].Trustee.Rid.ShouldBe(519u);
        Sddl.Write(read)!.ShouldBe(
            "O:S-1-5-21-1-2-3-512G:S-1-5-21-1-2-3-513D:AI(OA;CIIO;RPWP;bf9679c0-0de6-11d0-a285-00aa003049e2;bf967a9c-0de6-11d0-a285-00aa003049e2;S-1-5-21-1-2-3-519)");
    }

    [Fact]
    public void An_entry_may_be_longer_than_its_content_and_not_shorter()
    {
        var bytes = DescriptorBytes.Write(Sddl.Read("D:(A;;RP;;;WD)"));
        byte[] padded = [.. bytes, 0, 0, 0, 0];
        padded[22] += 4; // the list
        padded[30] += 4; // the entry
        Sddl.Write(DescriptorBytes.Read(padded)).ShouldBe("D:(A;;RP;;;WD)");
        bytes[30] -= 4;
        Should.Throw<DescriptorFormatException>(() => DescriptorBytes.Read(bytes));
    }

    /// <summary>Only the readers' own exception, and memory in proportion to the input.</summary>
    private static void ReadsOrRefuses(int inputBytes, Action<int> read)
    {
        Try(read, inputBytes); // what is made once, such as what an exception of a place needs, is not the input's
        var before = GC.GetAllocatedBytesForCurrentThread();
        Try(read, inputBytes);
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan((10L * inputBytes) + Overhead);
    }

    private static void Try(Action<int> read, int inputBytes)
    {
        try
        {
            read(inputBytes);
        }
        catch (DescriptorFormatException)
        {
            // refused
        }
    }
}
