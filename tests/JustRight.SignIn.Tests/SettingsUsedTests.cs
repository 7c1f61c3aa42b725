using System.Text.Json;
using System.Xml.Linq;
using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Settings;
using JustRight.Formats.SignIn;

namespace JustRight.SignIn.Tests;

/// <summary>
/// In each form: what a reader that is not ours finds in the file is all that an ordinary client needs to bind, to search, and to
/// let the right people in.
/// </summary>
public abstract class SettingsUsedTests(IPeopleServer server)
{
    private static readonly string[] Asked =
    [
        SettingKeys.Host, SettingKeys.Port, SettingKeys.Authorities, SettingKeys.BindName, SettingKeys.PeopleBase,
        SettingKeys.PeopleFilter, SettingKeys.SignInFilter, SettingKeys.RoleGroup,
    ];

    [Collection("the controller's address")]
    public sealed class OnStaff(StaffServer server) : SettingsUsedTests(server), IClassFixture<StaffServer>;

    public sealed class OnContractors(ContractorsServer server) : SettingsUsedTests(server), IClassFixture<ContractorsServer>;

    [Fact]
    public async Task An_ordinary_client_gets_on_with_each_form()
    {
        var scene = new SignInTestScene(server);
        using (var connection = server.Write()) scene.Write(connection);
        foreach (var form in Enum.GetValues<SettingsForm>())
        {
            SettingsField[] fields = [.. Asked.Select(k => new SettingsField(
                NameIn(form, k), k, null, new Dictionary<string, string>(), new Origin("test", 1, 1))
            {
                Role = k == SettingKeys.RoleGroup ? "driver" : null,
                As = k == SettingKeys.Port && form is SettingsForm.Json or SettingsForm.Yaml ? ValueKind.Number : ValueKind.Text,
            })];
            var plan = scene.Plan(WireSecurity.Tls);
            plan = plan with
            {
                Wants = plan.Wants with
                {
                    Settings = [new SheetSettings("web", "a file", form, fields, new Origin("test", 1, 1))
                    {
                        Ini = new IniReader(true, IniInterpolation.Percent, false),
                    }],
                },
                Roles = [new("driver", "Driver", [new("roster-drivers", $"{scene.GroupDn("roster-drivers")}")], "emil")],
            };
            var file = SettingsMaker.Make(plan).Files.ShouldHaveSingleItem();
            SettingsFile.Refused(file.Is, file.Fields).ShouldBeEmpty($"{form}");
            await UseAsync(form, await ReadAsync(form, SettingsFile.Write(file.Is, file.Fields)), scene);
        }
    }

    private async Task UseAsync(SettingsForm form, Dictionary<string, string> read, SignInTestScene scene)
    {
        string Of(string key) => read[NameIn(form, key)];
        var address = $"ldaps://{Of(SettingKeys.Host)}:{Of(SettingKeys.Port)}";
        Task<IReadOnlyList<string>?> SearchAsync(string name, string password, string baseDn, string filter) =>
            LdapTools.SearchAsync(address, Of(SettingKeys.Authorities), name, password, baseDn, filter);

        var bind = Of(SettingKeys.BindName);
        (await SearchAsync(bind, SignInTestScene.BindPassword, Of(SettingKeys.PeopleBase), Of(SettingKeys.PeopleFilter)))
            .ShouldNotBeNull($"{form}").Count.ShouldBe(5, $"{form}");
        var typed = Of(SettingKeys.SignInFilter);
        var anna = (await SearchAsync(
            bind, SignInTestScene.BindPassword, Of(SettingKeys.PeopleBase),
            typed.Replace("{0}", "anna", StringComparison.Ordinal)))
            .ShouldNotBeNull($"{form}").ShouldHaveSingleItem($"{form}");
        (await SearchAsync(anna, SignInTestScene.PersonPassword, anna, "(objectClass=*)")).ShouldNotBeNull($"{form}");
        (await SearchAsync(anna, "not the password", anna, "(objectClass=*)")).ShouldBeNull($"{form}");
        (await SearchAsync(
            bind, SignInTestScene.BindPassword, Of(SettingKeys.PeopleBase),
            typed.Replace("{0}", FilterValue.Of("*").Escaped, StringComparison.Ordinal))).ShouldBe([], $"{form}");
        (await SearchAsync(
            bind, SignInTestScene.BindPassword, Of(SettingKeys.RoleGroup),
            $"(member={FilterValue.Of(scene.DnOf("emil")).Escaped})")).ShouldNotBeNull($"{form}").Count.ShouldBe(1, $"{form}");
    }

    private static string NameIn(SettingsForm form, string key) => form switch
    {
        SettingsForm.Env => "S_" + key.Replace('-', '_').ToUpperInvariant(),
        SettingsForm.List or SettingsForm.Properties => "directory." + key,
        SettingsForm.Ini or SettingsForm.Json or SettingsForm.Xml or SettingsForm.Yaml => "directory/" + key,
    };

    private static async Task<Dictionary<string, string>> ReadAsync(SettingsForm form, string text)
    {
        switch (form)
        {
            case SettingsForm.List:
                var width = text.Split('\n')[..^1].Max(l => l.IndexOf("  ", StringComparison.Ordinal)) + 2;
                return text.Split('\n')[..^1].ToDictionary(l => l[..width].Trim(), l => l[width..].Trim());
            case SettingsForm.Ini:
                var python = """
                    import configparser, json, sys
                    read = configparser.ConfigParser(inline_comment_prefixes=(';', '#'))
                    read.optionxform = str
                    read.read_string(sys.stdin.read())
                    print(json.dumps({s + '/' + k: v for s in read.sections() for k, v in read.items(s)}))
                    """;
                return JsonSerializer.Deserialize<Dictionary<string, string>>(
                    (await Programs.RunAsync("/usr/bin/python3", ["-c", python], text)).Output)!;
            case SettingsForm.Env:
                var values = (await Programs.RunAsync("bash", [], text + string.Concat(
                    Asked.Select(k => $"printf '%s\\0' \"${NameIn(form, k)}\"\n")))).Output.Split('\0');
                return Asked.Select((k, i) => (k, i)).ToDictionary(a => NameIn(form, a.k), a => values[a.i]);
            case SettingsForm.Json:
                using (var json = JsonDocument.Parse(text))
                    return json.RootElement.GetProperty("directory").EnumerateObject()
                        .ToDictionary(p => "directory/" + p.Name, p => p.Value.ToString());
            case SettingsForm.Xml:
                return XDocument.Parse(text).Root!.Elements().ToDictionary(e => "directory/" + e.Name.LocalName, e => e.Value);
            case SettingsForm.Properties:
                return text.Split('\n')[..^1].Select(l => l.Split('=', 2))
                    .ToDictionary(l => l[0], l => l[1].Replace("\\\\", "\\", StringComparison.Ordinal));
            case SettingsForm.Yaml:
                var reader = new YamlDotNet.Serialization.DeserializerBuilder().Build();
                var yaml = (Dictionary<object, object>)reader.Deserialize(text)!;
                return ((Dictionary<object, object>)yaml["directory"]).ToDictionary(
                    p => $"directory/{p.Key}", p => (string)p.Value);
        }

        throw new InvalidOperationException($"Unknown form {form}.");
    }
}
