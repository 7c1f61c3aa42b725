using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json;
using JustRight.Contracts;

namespace JustRight.Cli.Tests;

/// <summary>
/// The built client against a service that is not ours, or was taken over: whatever is answered, nothing is written outside of
/// the folder that was asked for, nothing acts on the terminal, and each fault is one line.
/// </summary>
public sealed class HostileServiceTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-hostile-").FullName;
    private readonly HttpListener _listener = new();
    private readonly string _address = $"http://127.0.0.1:{Loopback.FreePort()}";
    private string _answer = "";
    private byte[] _file = [];

    public HostileServiceTests()
    {
        _listener.Prefixes.Add(_address + "/");
        _listener.Start();
        _ = ServeAsync();
    }

    public void Dispose()
    {
        _listener.Close();
        Directory.Delete(_folder, recursive: true);
    }

    [Theory]
    [InlineData("../outside")]
    [InlineData("..")]
    [InlineData("/tmp/outside")]
    [InlineData("a\\b")]
    [InlineData("a\u001b[2Jb")]
    [InlineData("")]
    public async Task A_name_that_leads_elsewhere_is_refused(string name)
    {
        Answer(name);
        _file = Zip(("page.html", "x"));
        var end = await RunAsync("handover", "any", "--to", Path.Combine(_folder, "to"));
        (end.Code, end.Error).ShouldSatisfyAllConditions(
            e => e.Code.ShouldBe(3), e => e.Error.ShouldContain("is no plain name: nothing is written"));
        end.Error.ShouldNotContain('\u001b');
        Files().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_name_in_a_bundle_that_leads_elsewhere_is_refused()
    {
        Answer("host-one");
        _file = Zip(("../../outside", "x"));
        var end = await RunAsync("handover", "any", "--to", Path.Combine(_folder, "to"));
        end.Code.ShouldBe(3);
        Files().ShouldBeEmpty();
    }

    [Fact]
    public async Task Links_are_not_followed()
    {
        Answer("host-one");
        _file = Zip(("page.html", "new"));
        var (to, elsewhere) = (Path.Combine(_folder, "to"), Path.Combine(_folder, "elsewhere"));
        Directory.CreateDirectory(elsewhere);
        Directory.CreateDirectory(to);
        Directory.CreateSymbolicLink(Path.Combine(to, "host-one"), elsewhere);
        (await RunAsync("handover", "any", "--to", to)).ShouldSatisfyAllConditions(
            e => e.Code.ShouldBe(2), e => e.Error.ShouldContain("is a link: it is not followed"));
        Directory.Delete(Path.Combine(to, "host-one"));

        Directory.CreateDirectory(Path.Combine(to, "host-one"));
        File.WriteAllText(Path.Combine(elsewhere, "kept"), "old");
        File.CreateSymbolicLink(Path.Combine(to, "host-one", "page.html"), Path.Combine(elsewhere, "kept"));
        (await RunAsync("handover", "any", "--to", to)).Code.ShouldBe(2);
        File.ReadAllText(Path.Combine(elsewhere, "kept")).ShouldBe("old");
    }

    [Theory]
    [InlineData("<html>Welcome</html>", "handover", "any")]
    [InlineData("[1, 2]", "install", "list")]
    [InlineData("[{}]", "install", "list")]
    [InlineData("null", "install", "list")]
    [InlineData("", "sheet", "list")]
    [InlineData("{\"certainly\": \"not\"}", "estate", "list")]
    public async Task An_answer_that_is_none_of_ours_is_one_line_and_code_3(string answer, params string[] command)
    {
        _answer = answer;
        var end = await RunAsync(command);
        end.Code.ShouldBe(3, end.Output + end.Error);
        end.Error.ShouldContain($"{_address} answered ");
        end.Error.Trim().Split('\n').Length.ShouldBe(2, "what, and what to do");
        end.Error.ShouldNotContain("   at ");
    }

    [Fact]
    public async Task What_would_act_on_the_terminal_is_shown_as_an_escape()
    {
        _answer = """
            {"items":[{"number":1,"at":"2026-11-29T10:00:00Z",
              "who":"a\u001b]0;title\u0007b","action":"gr\u202eant",
              "subject":"x\u009b31m","detail":"line\u2028end","hash":"0"}],
              "before":null,"total":1}
            """;
        var end = await RunAsync("log", "list");
        end.Code.ShouldBe(0, end.Error);
        end.Output.ShouldContain(@"a\u001B]0;title\u0007b");
        end.Output.ShouldContain(@"gr\u202Eant");
        end.Output.Replace("\n", "", StringComparison.Ordinal).ShouldNotContain(
            c => char.IsControl(c) || c == '\u202e' || c == '\u2028');
        var json = await RunAsync("log", "list", "--json");
        json.Output.ShouldContain(@"gr\u202Eant");
        var entry = JsonDocument.Parse(json.Output).RootElement.GetProperty("items")[0];
        entry.GetProperty("action").GetString().ShouldBe("gr\u202eant");
    }

    private void Answer(string folder) => _answer = JsonSerializer.Serialize(
        [new HandoverView("any", "host", "fm-temp01", false, true, DateTimeOffset.UtcNow, folder, "lead", [], [], [], [])],
        ContractsJson.Default.IReadOnlyListHandoverView);

    private Task<ProgramEnd> RunAsync(params string[] command) => Programs.RunAsync(
        ClientRun.Program, command, environment: [
            ("JUSTRIGHT_ADDRESS", _address), ("JUSTRIGHT_TOKEN", "jr_none"),
            ("JUSTRIGHT_SETTINGS", Path.Combine(_folder, "none.json")),
            ("COLUMNS", "200"),
        ], cancel: TestContext.Current.CancellationToken);

    private List<string> Files() =>
        [.. Directory.GetFiles(_folder, "*", SearchOption.AllDirectories), .. Directory.GetFiles(Path.GetTempPath(), "outside*")];

    private static byte[] Zip(params (string Name, string Text)[] files)
    {
        using var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, text) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        }

        return packed.ToArray();
    }

    private async Task ServeAsync()
    {
        try
        {
            while (true)
            {
                var http = await _listener.GetContextAsync();
                var isFile = http.Request.Url!.AbsolutePath.Contains("/handovers/", StringComparison.Ordinal);
                var bytes = isFile ? _file : Encoding.UTF8.GetBytes(_answer);
                http.Response.ContentType = isFile ? "application/zip" : "application/json";
                await http.Response.OutputStream.WriteAsync(bytes);
                http.Response.Close();
            }
        }
        catch (Exception e) when (e is HttpListenerException or ObjectDisposedException)
        {
            // The test is over.
        }
    }
}
