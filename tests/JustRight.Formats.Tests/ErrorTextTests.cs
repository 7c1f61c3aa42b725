using System.Text;
using JustRight.Core.Faults;
using JustRight.Formats.Sheets;

namespace JustRight.Formats.Tests;

/// <summary>An error is read at 2 a.m.: one line that says where, what was found, what was expected, and the nearest spelling.</summary>
public sealed class ErrorTextTests
{
    [Theory]
    [InlineData(
        "on: console-server, through", "on: consol-server, through",
        "sheet.yaml:35:9: 'consol-server' is not declared. Found: 'consol-server'. Expected: a place of this sheet. Did you mean 'console-server'?")]
    [InlineData(
        "logon: service, on: console-server", "logon: servic, on: console-server",
        "sheet.yaml:36:18: 'logon' has an invalid value. Found: 'servic'. Expected: service, batch, interactive, remote, network. Did you mean 'service'?")]
    [InlineData(
        "    works-as: pool", "    work-as: pool",
        "sheet.yaml:39:5: 'work-as' is not a known key here. Expected: one of purpose, works-as, password-never-expires, password-cannot-change, password, kept-out, kept-out-through, needs, forbidden. Did you mean 'works-as'?")]
    [InlineData(
        "kind: database,", "kind: databse,",
        "sheet.yaml:10:28: 'kind' has an invalid value. Found: 'databse'. Expected: host, instance, database, branch. Did you mean 'database'?")]
    [InlineData(
        "when: store-is-remote", "when: store-is-remot",
        "sheet.yaml:43:68: 'store-is-remot' is not a fact, a question or a place of this sheet. Expected: a declared fact, question or place, or a place's host, release or engine. Did you mean 'store-is-remote'?")]
    public void A_fault_reads_well(string part, string instead, string text)
    {
        var faults = DemoFiles.Sheet(DemoFiles.With("sheets/thermograph.yaml", part, instead)).Faults;
        faults[0].ToString().ShouldBe(text);
    }

    [Fact]
    public void Long_values_are_quoted_short()
    {
        var faults = DemoFiles.Sheet(
            DemoFiles.With("sheets/thermograph.yaml", "count: 1 or more", $"count: {new string('9', 5000)}")).Faults;
        faults.ShouldHaveSingleItem().ToString().Length.ShouldBeLessThan(300);
    }

    [Fact]
    public void A_file_without_an_end_of_line_and_with_a_byte_order_mark_is_read()
    {
        var text = DemoFiles.Text("sheets/thermograph.yaml").TrimEnd();
        SheetReader.Read([.. Encoding.UTF8.Preamble, .. Encoding.UTF8.GetBytes(text)], "sheet.yaml").Faults.ShouldBeEmpty();
        SheetReader.Read(
            Encoding.UTF8.GetBytes(text.Replace("\n", "\r\n", StringComparison.Ordinal)), "sheet.yaml").Faults.ShouldBeEmpty();
    }

    [Fact]
    public void An_exception_carries_every_fault_and_names_the_first()
    {
        var faults = DemoFiles.Sheet(DemoFiles.With("sheets/thermograph.yaml", "source: ", "sorce: ")).Faults;
        var thrown = new FaultException(faults);
        thrown.Faults.Count.ShouldBe(2); // the unknown key, and the one that is missing for it
        thrown.Message.ShouldStartWith("2 faults; the first: sheet.yaml:");
        new FaultException([faults[0]]).Message.ShouldBe(faults[0].ToString());
    }

    [Theory]
    [InlineData("ab", "ba", 1)] // a swap is one slip
    [InlineData("", "abc", 3)]
    [InlineData("kitten", "sitting", 3)]
    [InlineData("same", "same", 0)]
    public void Distances_are_those_of_slips_of_the_pen(string a, string b, int distance)
    {
        Spelling.Distance(a, b).ShouldBe(distance);
        Spelling.Distance(b, a).ShouldBe(distance);
    }

    [Theory]
    [InlineData("sheet.yaml", 3, 5, "sheet.yaml:3:5")]
    [InlineData("sheet.yaml", 0, 0, "sheet.yaml")]
    public void A_place_is_written_so_that_editors_open_it(string file, int line, int column, string text) =>
        new Origin(file, line, column).ToString().ShouldBe(text);
}
