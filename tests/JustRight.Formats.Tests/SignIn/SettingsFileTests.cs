using System.Globalization;
using System.Text.Json;
using System.Xml.Linq;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Settings;
using JustRight.Formats.SignIn;

namespace JustRight.Formats.Tests.SignIn;

/// <summary>What is written in each form is read back whole by a reader of that form that is not ours.</summary>
public sealed class SettingsFileTests
{
    private static readonly string[] Values =
    [
        "ldaps://fm-dc01.fennmoor.example:636", "CN=O'Brien \\, reader,OU=Größe <x> & \"y\",DC=example",
        "(&(cn=a\\2a*)(!(x=1)))",
        "DOMAIN\\name", "<secret: reader>", "a=b:c#d!e;f", "$HOME `id` $(id)", "smile 😀", "# no comment", "",
    ];

    [Fact]
    public async Task A_shell_reads_env()
    {
        var script = Write(SettingsForm.Env, Fields(i => $"NAME_{i}")) + string.Concat(
            Values.Select((_, i) => $"printf '%s\\0' \"$NAME_{i}\"\n"));
        (await RunAsync("bash", script)).Split('\0')[..^1].ShouldBe(Values);
    }

    [Fact]
    public void A_json_reader_reads_json()
    {
        using var document = JsonDocument.Parse(Write(SettingsForm.Json, Fields(i => $"door/in-{i % 2}/v{i}")));
        Values.Select((_, i) =>
            document.RootElement.GetProperty("door").GetProperty($"in-{i % 2}").GetProperty($"v{i}").GetString())
            .ShouldBe(Values);
    }

    [Fact]
    public void An_xml_reader_reads_xml()
    {
        var root = XDocument.Parse(Write(SettingsForm.Xml, Fields(i => $"settings/part{i % 3}/v{i}"))).Root!;
        Values.Select((_, i) => root.Element($"part{i % 3}")!.Element($"v{i}")!.Value).ShouldBe(Values);
    }

    [Fact]
    public void Properties_keep_every_character()
    {
        var lines = Write(SettingsForm.Properties, Fields(i => $"a.b {i}=x")).Split('\n')[..^1];
        lines.ShouldAllBe(l => l.All(char.IsAscii));
        lines.Select(l => Unescaped(l[(Separator(l) + 1)..])).ShouldBe(Values);
        lines.Select(l => Unescaped(l[..Separator(l)])).ShouldBe(Values.Select((_, i) => $"a.b {i}=x"));
    }

    [Fact]
    public void Ini_has_its_sections_once_and_what_is_not_known_as_a_comment()
    {
        FilledField[] fields = [
            new("people/base", ["ou=People"], "people-base", false), new("plain", ["1"], null, false),
            new("groups/base", [], "groups-base", false), new("people/filter", ["(cn=*)"], "people-filter", false)];
        Write(SettingsForm.Ini, fields)
            .ShouldBe("plain = 1\n\n[people]\nbase = ou=People\nfilter = (cn=*)\n\n[groups]\n; base: not known yet\n");
        Write(SettingsForm.List, fields).ShouldContain("groups/base    (not known yet)");
        Write(SettingsForm.Env, fields[2..3]).ShouldBe("# groups/base: not known yet\n");
        Write(SettingsForm.Xml, [new("a/b", [], null, false)]).ShouldContain("<!-- not known yet -->");
    }

    [Theory]
    [InlineData(SettingsForm.Env, "2x", "is not a variable name")]
    [InlineData(SettingsForm.Env, "A,A", "stands twice")]
    [InlineData(SettingsForm.Xml, "a/b,c/d", "the same element")]
    [InlineData(SettingsForm.Xml, "a/b c", "not a path of elements")]
    [InlineData(SettingsForm.Json, "a,a/b", "is both a value and a section")]
    [InlineData(SettingsForm.Ini, "a/b/c", "no section/name")]
    [InlineData(SettingsForm.Json, "servers/0/host,servers/1/host", null)]
    [InlineData(SettingsForm.Yaml, "servers/0,servers/2", "are not 0, 1, 2")]
    [InlineData(SettingsForm.Yaml, "servers/0,servers/name", "both a list and an object")]
    [InlineData(SettingsForm.Json, "0,1", "the file itself is none")]
    [InlineData(SettingsForm.Properties, "a,b=c", null)]
    public void Names_that_cannot_stand_in_a_file_are_refused(SettingsForm form, string names, string? wrong)
    {
        if (wrong is null) SettingsFile.WhatIsWrong(form, names.Split(',')).ShouldBeNull();
        else SettingsFile.WhatIsWrong(form, names.Split(',')).ShouldNotBeNull().ShouldContain(wrong);
    }

    [Fact]
    public void A_yaml_reader_reads_yaml()
    {
        var read = (Dictionary<object, object>)new YamlDotNet.Serialization.DeserializerBuilder().Build()
            .Deserialize(Write(SettingsForm.Yaml, Fields(i => $"door/in-{i % 2}/v{i}")))!;
        var door = (Dictionary<object, object>)read["door"];
        Values.Select((_, i) => ((Dictionary<object, object>)door[$"in-{i % 2}"])[$"v{i}"]).ShouldBe(Values);
    }

    [Theory]
    [InlineData(SettingsForm.Json)]
    [InlineData(SettingsForm.Yaml)]
    public void What_knows_types_has_numbers_truths_lists_and_places_in_lists(SettingsForm form)
    {
        FilledField[] fields =
        [
            new("servers/0/port", ["636"], "port", false) { As = ValueKind.Number },
            new("servers/0/host", ["fm-dc01"], "host", false),
            new("servers/1/port", ["636"], "port", false),
            new("nested", ["yes"], "nested-groups", false) { As = ValueKind.YesNo },
            new("referrals", ["no"], "referrals", false) { As = ValueKind.YesNo },
            new("bases", ["OU=a,DC=x", "OU=b,DC=x"], "people-base", false) { As = ValueKind.List },
            new("joined", ["OU=a,DC=x", "OU=b,DC=x"], "people-base", false) { Separator = " | " },
            new("unknown", [], "bind-name", false),
        ];
        var text = Write(form, fields);
        // YAML 1.2 has JSON in it: the same reader tells whether both say the same
        using var read = JsonDocument.Parse(form == SettingsForm.Json ? text : AsJson(text));
        var root = read.RootElement;
        root.GetProperty("servers")[0].GetProperty("port").GetInt32().ShouldBe(636);
        root.GetProperty("servers")[1].GetProperty("port").GetString().ShouldBe("636");
        root.GetProperty("servers").GetArrayLength().ShouldBe(2);
        root.GetProperty("nested").GetBoolean().ShouldBeTrue();
        root.GetProperty("referrals").GetBoolean().ShouldBeFalse();
        root.GetProperty("bases").EnumerateArray().Select(b => b.GetString()).ShouldBe(["OU=a,DC=x", "OU=b,DC=x"]);
        root.GetProperty("joined").GetString().ShouldBe("OU=a,DC=x | OU=b,DC=x");
        root.GetProperty("unknown").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    private static string AsJson(string yaml) => new YamlDotNet.Serialization.SerializerBuilder().JsonCompatible().Build()
        .Serialize(new YamlDotNet.Serialization.DeserializerBuilder().WithAttemptingUnquotedStringTypeDeserialization().Build()
            .Deserialize(new StringReader(yaml)));

    private static string Write(SettingsForm form, IReadOnlyList<FilledField> fields, IniReader? ini = null) =>
        SettingsFile.Write(new SheetSettings("web", "a file", form, [], default!) { Ini = ini }, fields);

    private static FilledField[] Fields(Func<int, string> name) =>
        [.. Values.Select((v, i) => new FilledField(name(i), [v], null, false))];

    /// <summary>Where the name ends: the first equals sign with no backslash before it.</summary>
    private static int Separator(string line)
    {
        for (var i = 0; ; i++)
        {
            if (line[i] == '\\') i++;
            else if (line[i] == '=') return i;
        }
    }

    private static string Unescaped(string text)
    {
        var result = new System.Text.StringBuilder();
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] != '\\') result.Append(text[i]);
            else if (text[++i] == 'u')
                result.Append((char)int.Parse(text.AsSpan(i + 1, 4), NumberStyles.HexNumber, CultureInfo.InvariantCulture))
                    .Append(Skip(ref i));
            else result.Append(text[i]);
        }

        return result.ToString();

        static string Skip(ref int at)
        {
            at += 4;
            return "";
        }
    }

    private static async Task<string> RunAsync(string program, string input) =>
        (await Programs.RunAsync(program, [], input)).Output;
}
