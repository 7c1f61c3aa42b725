namespace JustRight.Cli.Tests;

/// <summary>The built client against the built service: how it signs in, refuses and explains.</summary>
public sealed class ClientTests() : ClientScene(() => TestedService.StartAsync())
{
    [Fact]
    public async Task Every_broken_sheet_ends_with_code_2_and_its_place()
    {
        var file = Path.Combine(Service.Data, "broken.yaml");
        foreach (var broken in BrokenSheets.All)
        {
            await File.WriteAllBytesAsync(file, broken.Bytes);
            var result = await RunAsync("sheet", "add", file);
            result.Code.ShouldBe(2, broken.Name);
            result.Error.ShouldContain($"broken.yaml:{broken.Line}:{broken.Column}", Case.Sensitive, broken.Name);
        }

        (await RunAsync("sheet", "list")).Out.ShouldContain("No sheets yet");
    }

    [Theory]
    [InlineData(2, "Required", "verify")]
    [InlineData(2, "Unrecognized", "verfy")]
    [InlineData(2, "There is no install called 'nothing'", "verify", "nothing")]
    [InlineData(2, "cannot be read", "sheet", "check", "no-such-file.yaml")]
    [InlineData(2, "not a sign-in link", "token", "claim", "nonsense")]
    [InlineData(2, "1 to 500", "log", "list", "--take", "0")]
    [InlineData(3, "does not answer", "install", "list", "--address", "http://127.0.0.1:1")]
    [InlineData(2, "is not an address", "install", "list", "--address", "here")]
    public async Task Errors_say_what_and_end_with_their_code(int code, string says, params string[] arguments)
    {
        var result = await RunAsync(arguments);
        result.Code.ShouldBe(code);
        result.Error.ShouldContain(says);
        result.Out.ShouldBeEmpty();
    }

    [Fact]
    public async Task Without_a_token_it_says_how_to_get_one()
    {
        File.Delete(Settings);
        var result = await RunAsync("install", "list");
        result.Code.ShouldBe(2);
        result.Error.ShouldContain("justright token claim");
    }

    [Fact]
    public async Task The_token_lies_in_a_file_that_only_its_owner_can_read()
    {
        if (!OperatingSystem.IsWindows()) File.GetUnixFileMode(Settings).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
        (await RunAsync("token", "list")).Out.ShouldNotContain("jr_");
    }

    [Fact]
    public async Task Help_shows_examples()
    {
        foreach (var command in new[] { "verify", "grant", "why", "plan", "survey" })
            (await RunAsync(command, "--help")).Out.ShouldContain($"justright {command} ");
    }
}
