using System.Text;
using CsCheck;
using JustRight.Formats.Hosts;

namespace JustRight.Formats.Tests.Hosts;

/// <summary>Templates of policies [MS-GPSB 2.2]: what is not ours stays as it was, to the byte.</summary>
public sealed class SecurityTemplateTests
{
    private const string Text = "[Unicode]\r\nUnicode=yes\r\n[Version]\r\nsignature=\"$CHICAGO$\"\r\nRevision=1\r\n[System Access]\r\nMinimumPasswordLength = 14\r\n; a remark\r\n[Privilege Rights]\r\n" +
        "SeBatchLogonRight = *S-1-5-32-544,FENNMOOR\\svc-nächtlich\r\nSeDenyBatchLogonRight =\r\nsedebugprivilege = \"Administrators\" , *S-1-5-18\r\n[Something New]\r\nkept = as it is\r\n";

    public static TheoryData<string> Encodings => ["utf-16", "utf-16BE", "utf-8", "utf-8 without a mark"];

    [Theory]
    [MemberData(nameof(Encodings))]
    public void It_is_read_and_written_back_byte_for_byte(string name)
    {
        var bytes = Bytes(name, Text);
        var template = SecurityTemplate.Read(bytes);
        template.ToBytes().ShouldBe(bytes);
        template.Rights().Select(r => $"{r.Constant}: {string.Join('|', r.Entries)}")
            .ShouldBe([
                @"SeBatchLogonRight: *S-1-5-32-544|FENNMOOR\svc-nächtlich", "SeDenyBatchLogonRight: ",
                "sedebugprivilege: Administrators|*S-1-5-18"]);
    }

    [Fact]
    public void What_it_says_of_local_groups_is_read()
    {
        const string text = "[Group Membership]\r\n*S-1-5-32-544__Memberof =\r\n*S-1-5-32-544__Members = *S-1-5-21-1-2-3-512,FENNMOOR\\svc-line\r\n"
            + "; *S-1-5-32-545__Members = nobody\r\n\"FENNMOOR\\line keepers__memberof\" = Administrators, Line Writers\r\n[Version]\r\nx__Members = y";
        SecurityTemplate.Read(Encoding.UTF8.GetBytes(text)).Groups()
            .Select(r => $"{r.Act} {r.Name}: {string.Join('|', r.Entries)}").ShouldBe(
            [
                "MemberOf *S-1-5-32-544: ", @"Members *S-1-5-32-544: *S-1-5-21-1-2-3-512|FENNMOOR\svc-line",
                @"MemberOf FENNMOOR\line keepers: Administrators|Line Writers",
            ]);
        SecurityTemplate.Read(Encoding.UTF8.GetBytes(Text)).Groups().ShouldBeEmpty();
    }

    [Theory]
    [MemberData(nameof(Encodings))]
    public void A_new_list_replaces_the_old_one_and_nothing_else(string name)
    {
        var changed = SecurityTemplate.Read(
            SecurityTemplate.Read(Bytes(name, Text)).With("SeBatchLogonRight", ["*S-1-5-32-544", "*S-1-5-21-1-2-3-1001"])
                .ToBytes());
        changed.ToString()
            .ShouldBe(Text.Replace(
                @"*S-1-5-32-544,FENNMOOR\svc-nächtlich", "*S-1-5-32-544,*S-1-5-21-1-2-3-1001", StringComparison.Ordinal));
        changed.With("SeBatchLogonRight", ["*S-1-5-32-544", @"FENNMOOR\svc-nächtlich"]).ToBytes().ShouldBe(Bytes(name, Text));
    }

    [Fact]
    public void A_right_that_was_not_named_is_added_and_taken_out_again()
    {
        var template = SecurityTemplate.Read(Bytes("utf-16", Text));
        var with = template.With("SeServiceLogonRight", ["*S-1-5-80-0"]);
        with.Rights().Single(r => r.Constant == "SeServiceLogonRight").Entries.ShouldBe(["*S-1-5-80-0"]);
        with.With("SeServiceLogonRight", null).ToString().ShouldBe(Text);
        SecurityTemplate.Empty.With("SeBatchLogonRight", []).Rights().ShouldHaveSingleItem().Entries.ShouldBeEmpty();
        SecurityTemplate.Read(Bytes("utf-8", "[Version]\nRevision=1\n")).With("SeBatchLogonRight", ["x"]).ToString()
            .ShouldBe("[Version]\nRevision=1\n[Privilege Rights]\nSeBatchLogonRight = x\n");
    }

    [Fact]
    public void What_is_no_text_is_refused()
    {
        Should.Throw<InvalidDataException>(() => SecurityTemplate.Read([0xC3, 0x28]));
        Should.Throw<InvalidDataException>(() => SecurityTemplate.Read(Encoding.Unicode.GetBytes(Text)));
    }

    private static readonly Gen<string> Line = Gen.OneOf(
        Gen.OneOfConst(
            "[Privilege Rights]", "[privilege rights]", "[Version]", "", "; remark", "Revision=1",
            "SeBatchLogonRight = *S-1-5-32-544", "SeAuditPrivilege=", "no sign", "[", "=x"),
        Gen.String[Gen.Char["aS=[];, ü*"], 0, 12]);

    [Fact]
    public void Any_text_survives_and_a_list_that_is_set_is_the_list_that_is_read() =>
        Gen.Select(
            Line.Array[0, 12], Gen.OneOfConst("SeBatchLogonRight", "SeAuditPrivilege"),
            Gen.OneOfConst("*S-1-1-0", "*S-1-5-32-544", "x y").List[0, 3])
            .Sample((lines, right, entries) =>
        {
            var template = SecurityTemplate.Read(Bytes("utf-16", string.Join("\r\n", lines)));
            template.ToString().ShouldBe(string.Join("\r\n", lines));
            var read = template.With(right, entries);
            read.Rights().Where(r => r.Constant.Equals(right, StringComparison.OrdinalIgnoreCase))
                .ShouldHaveSingleItem().Entries.ShouldBe(entries);
            read.Rights().Where(r => !r.Constant.Equals(right, StringComparison.OrdinalIgnoreCase)).Select(r => r.Constant)
                .ShouldBe(template.Rights().Where(r =>
                    !r.Constant.Equals(right, StringComparison.OrdinalIgnoreCase)).Select(r => r.Constant));
            read.With(right, null).Rights().ShouldNotContain(r => r.Constant.Equals(right, StringComparison.OrdinalIgnoreCase));
        });

    private static byte[] Bytes(string name, string text)
    {
        Encoding encoding = name switch { "utf-16" => Encoding.Unicode, "utf-16BE" => Encoding.BigEndianUnicode, "utf-8" => Encoding.UTF8, _ => new UTF8Encoding(false) };
        return [.. encoding.Preamble, .. encoding.GetBytes(text)];
    }
}
