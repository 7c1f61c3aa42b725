using System.Text;
using CsCheck;
using JustRight.Core.Faults;
using JustRight.Formats.Ldif;

namespace JustRight.Formats.Tests;

/// <summary>LDIF as clients write it: read back as it was written, and refused with the line where it is not sound.</summary>
public sealed class LdifReaderTests
{
    private static readonly Gen<LdifEntry> Entries =
        from dn in Gen.Char["abc äß,=\\: "].Array[0, 30]
        from values in Gen.Select(
            Gen.OneOfConst("cn", "member;range=0-1499", "objectSid", "description"),
            Gen.Byte.Array[0, 200].Array[1, 3]).Array[0, 4]
        select new LdifEntry(
            dn.Length == 0 ? "" : "CN=" + new string(dn),
            values.DistinctBy(v => v.Item1).ToDictionary(v => v.Item1, v => (IReadOnlyList<byte[]>)v.Item2), Origin.None);

    [Fact]
    public void What_was_written_is_read() =>
        Entries.Array[1, 5].Where(e => e.DistinctBy(x => x.Dn, StringComparer.OrdinalIgnoreCase).Count() == e.Length)
            .Sample(entries =>
    {
        var (read, faults) = Read(Text(entries));
        faults.ShouldBeEmpty();
        read.Select(Show).ShouldBe(entries.Select(Show));
    });

    [Fact]
    public void Whatever_the_text_only_faults_come_out() => Gen.OneOf(
        Gen.String[0, 200],
        from at in Gen.Int[0, 90]
        from wrong in Gen.Char
        select "version: 1\n\ndn: CN=a,DC=x\ncn: a\ndescription:: YQ==\n b\n\ndn: CN=b,DC=x\nmember: CN=a,DC=x\n".Insert(
            Math.Min(at, 85), wrong.ToString())).Sample(text =>
        {
            var (entries, faults) = Read(text);
            (entries.Count > 0 || faults.Count > 0).ShouldBeTrue();
            faults.ShouldAllBe(f => f.At.Line > 0);
        });

    [Fact]
    public void Folded_lines_comments_options_line_ends_and_several_files_in_a_row_are_read()
    {
        var (entries, faults) = Read(
            "version: 1\r\n# who wrote it,\r\n  and why\r\ndn: CN=Long,\r\n DC=x\r\ncn:Long\r\nmember;range=0-1: CN=a\r\nsecret: never kept\r\n\r\n\r\n# refldap://other/\r\n\r\nversion: 1\r\ndn:: Q049w6Q=\r\nCN: ä\r\ndescription:\r\n");
        faults.ShouldBeEmpty();
        entries.Select(Show).ShouldBe(["CN=Long,DC=x|cn=Long|member;range=0-1=CN=a", "CN=ä|CN=ä|description="]);
        entries[1].At.ToString().ShouldBe("file.ldif:14:1");
    }

    [Fact]
    public void An_object_that_comes_twice_is_put_together_unless_it_differs()
    {
        Read("dn: CN=a\ncn: a\n\ndn: cn=A\ncn: a\ndescription: more\n").Entries.Select(Show)
            .ShouldBe(["CN=a|cn=a|description=more"]);
        Read("dn: CN=a\ncn: a\n\ndn: CN=a\ncn: b\n").Faults.ShouldHaveSingleItem().ToString()
            .ShouldBe("file.ldif:4:1: CN=a is in this file twice, with different values of cn. Expected: an export from one time and one domain controller.");
    }

    [Theory]
    [InlineData("", "ldif-empty", 1)]
    [InlineData(" carried on\n", "ldif-line", 1)]
    [InlineData("version: 2\ndn: CN=a\n", "ldif-version", 1)]
    [InlineData("dn: CN=a\nno colon here\n", "ldif-line", 2)]
    [InlineData("dn: CN=a\nchangetype: delete\n", "ldif-change", 2)]
    [InlineData("dn: CN=a\ncn:: not base 64!\n", "ldif-base64", 2)]
    [InlineData("dn: CN=a\ncn:< file:///etc/passwd\n", "ldif-elsewhere", 2)]
    [InlineData("dn: somebody\n", "not-a-dn", 1)]
    [InlineData("dn: CN=a\n\nsearch: 2\nresult: 0 Success\n", "ldif-record", 3)]
    public void What_is_not_sound_is_refused_with_its_line(string text, string code, int line) =>
        Read(text).Faults.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(f => f.Code.ShouldBe(code), f => f.At.Line.ShouldBe(line));

    [Fact]
    public void A_hopeless_file_ends_after_twenty_faults() =>
        Read(string.Concat(Enumerable.Repeat("nonsense\n", 1000))).Faults.Count.ShouldBe(20);

    private static (IReadOnlyList<LdifEntry> Entries, IReadOnlyList<Fault> Faults) Read(string text)
    {
        using var lines = new StringReader(text);
        return LdifReader.Read(lines, "file.ldif", a => a != "secret");
    }

    private static string Text(LdifEntry[] entries)
    {
        using var text = new StringWriter();
        LdifEntry.Write(entries, text);
        return text.ToString();
    }

    private static string Show(LdifEntry entry) =>
        $"{entry.Dn}|{string.Join('|', entry.Values.OrderBy(v => v.Key, StringComparer.Ordinal).Select(v => $"{v.Key}={string.Join('+', v.Value.Select(Encoding.Latin1.GetString))}"))}".Replace(
            "Ã¤", "ä", StringComparison.Ordinal);
}
