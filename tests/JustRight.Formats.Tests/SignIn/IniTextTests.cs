using System.Text.Json;
using CsCheck;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Settings;
using JustRight.Formats.SignIn;

namespace JustRight.Formats.Tests.SignIn;

/// <summary>
/// INI has no standard: what a reader that is not ours makes of a file is what we meant, or the value is refused with a reason.
/// </summary>
public sealed class IniTextTests
{
    private static readonly string[] Odd =
    [
        "CN=O'Brien \\, reader,OU=People,DC=example", "DOMAIN\\name", "(&(cn=a\\2a*)(!(x=1)))", "100 %", "%(base)s", "$HOME",
        "${base}", "a ; comment", "a;b", "a #b", "a#b", "; all", "# all",
        "\"quoted\"", "'q'", " led", "trailed ", "a=b", "a:b", "",
        "x\ty", "two\nlines", "[section]", "smile 😀",
    ];

    public static TheoryData<string, bool, IniInterpolation> Readers => new()
    {
        { "RawConfigParser(", false, IniInterpolation.None },
        { "RawConfigParser(inline_comment_prefixes=(';', '#'), ", true, IniInterpolation.None },
        { "ConfigParser(", false, IniInterpolation.Percent },
        { "ConfigParser(inline_comment_prefixes=(';', '#'), ", true, IniInterpolation.Percent },
        { "ConfigParser(interpolation=configparser.ExtendedInterpolation(), ", false, IniInterpolation.Dollar },
    };

    [Theory]
    [MemberData(nameof(Readers))]
    public async Task A_reader_of_each_dialect_reads_what_was_meant(string reader, bool comments, IniInterpolation interpolation)
    {
        var ini = new IniReader(comments, interpolation, false);
        var values = Odd.Concat(Random()).ToList();
        FilledField[] fields = [.. values.Select((v, i) => new FilledField($"s{i % 3}/v{i}", [v], null, false))];
        var settings = Of(ini);
        var refused = SettingsFile.Refused(settings, fields).Select(r => r.Field.Name).ToHashSet();
        var read = await ReadAsync(
            $"configparser.{reader}delimiters=('=',), strict=True, empty_lines_in_values=False)",
            SettingsFile.Write(settings, fields));
        foreach (var field in fields.Where(f => !refused.Contains(f.Name)))
            read.GetValueOrDefault(field.Name).ShouldBe(field.Value, $"{field.Name} as {reader}");
        foreach (var name in refused) read.ShouldNotContainKey(name);
        refused.Count.ShouldBeInRange(4, values.Count / 2);
    }

    [Fact]
    public void Quotes_take_everything_but_line_ends()
    {
        var quoting = new IniReader(true, IniInterpolation.None, true);
        Written(" a \"b\" \\ ; c", quoting).ShouldBe("v = \" a \\\"b\\\" \\\\ ; c\"\n");
        WhyNot(" a ; b ", quoting).ShouldBeNull();
        WhyNot("a\nb", quoting).ShouldNotBeNull();
    }

    [Theory]
    [InlineData("a ; b", "begins a comment")]
    [InlineData("100 %", "begins a reference")]
    [InlineData("$HOME", "begins a reference")]
    [InlineData("\"a\"", "begins with a quote")]
    [InlineData(" a", "a blank at an end")]
    [InlineData("a\tb", "a control character")]
    [InlineData("DOMAIN\\name", null)]
    [InlineData("ou=People,dc=x", null)]
    public void Where_the_sheet_does_not_say_how_it_is_read_what_could_be_misread_is_refused(string value, string? why)
    {
        if (why is null) WhyNot(value, null).ShouldBeNull();
        else WhyNot(value, null).ShouldNotBeNull().ShouldContain(why);
        Written(value, null).ShouldBe(why is null ? $"v = {value}\n" : "; v: cannot be written here\n");
    }

    private static string Written(string value, IniReader? reader) => SettingsFile.Write(Of(reader), [Field(value)]);

    private static string? WhyNot(string value, IniReader? reader) =>
        SettingsFile.Refused(Of(reader), [Field(value)]).Select(r => r.Why).SingleOrDefault();

    private static FilledField Field(string value) => new("v", [value], null, false);

    private static SheetSettings Of(IniReader? reader) =>
        new("web", "x.ini", SettingsForm.Ini, [], default!) { Ini = reader };

    private static List<string> Random()
    {
        var values = new List<string>();
        Gen.String[Gen.Char["ab;#%$(){}\"'=: \\\t"], 0, 8].Array[300].Sample(values.AddRange, iter: 1, threads: 1);
        return values;
    }

    private static async Task<Dictionary<string, string>> ReadAsync(string reader, string text)
    {
        var file = Path.GetTempFileName();
        try
        {
            await File.WriteAllTextAsync(file, text);
            var script = $$"""
                import configparser, json
                read = {{reader}}
                read.optionxform = str
                read.read('{{file}}', encoding='utf-8')
                print(json.dumps({s + '/' + k: v for s in read.sections() for k, v in read.items(s)}))
                """;
            var end = await Programs.RunAsync("/usr/bin/python3", ["-c", script]);
            end.Code.ShouldBe(0, end.Error);
            return JsonSerializer.Deserialize<Dictionary<string, string>>(end.Output)!;
        }
        finally
        {
            File.Delete(file);
        }
    }
}
