namespace JustRight.Service.Tests;

/// <summary>What keeps the service from starting is told in one sentence, with an exit code of its own.</summary>
public sealed class StartFaultTests
{
    private static readonly string Program = Path.Combine(Checkout.Top, ".build", "service", "JustRight.Service.dll");

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_setting_that_cannot_be() =>
        await EndsAsync(
            2, "JustRight:Outbound:Allow: ", "--JustRight:Data", NewFolder(), "--JustRight:Outbound:Allow:0", "no network/99");

    [Theory]
    [InlineData("SignInLinks", "9", "JustRight:SignInLinks: 9 is not 0 to 5.")]
    [InlineData("SignInLinks", "many", "JustRight:SignInLinks")]
    [InlineData("TracesKept", "0", "JustRight:TracesKept: 0 is not 1 or more.")]
    [InlineData("PublicAdress", "https://fennmoor.example", "is no setting. Did you mean JustRight:PublicAddress?")]
    [InlineData("Tls:Proxis:0", "127.0.0.1", "is no setting. Did you mean JustRight:Tls:Proxies?")]
    [InlineData("Tls:Certificate", "/no/such.pem", "JustRight:Tls:Certificate cannot be read")]
    [InlineData("Keys:PassphraseFile", "/no/such", "JustRight:Keys:PassphraseFile cannot be read")]
    [InlineData("Console", "/proc", "JustRight:Console: there is no index.html in /proc.")]
    [InlineData("Mail:Tls", "yes", "'yes' is neither left out nor from-the-start")]
    [InlineData("Mail:SignInAs", "notices", "go together: one is missing")]
    [InlineData("Mail:Port", "70000", "JustRight:Mail:Port: 70000 is not 1 to 65535.")]
    [InlineData("RehearseHaltAt", "made", "is no step and stage, such as 4:made")]
    public async Task Each_setting_that_is_none_or_cannot_be(string name, string value, string says) =>
        await EndsAsync(2, says, "--JustRight:Data", NewFolder(), $"--JustRight:{name}", value);

    [Fact]
    public async Task A_folder_that_cannot_be_written() =>
        await EndsAsync(3, "The data folder cannot be written", "--JustRight:Data", "/proc/justright");

    [Fact]
    public async Task A_database_that_is_damaged()
    {
        var folder = await LeftBehindAsync();
        await using (var file = File.OpenWrite(Path.Combine(folder, "justright.db"))) file.Write(new byte[200]);
        await EndsAsync(4, "The database justright.db is damaged", "--JustRight:Data", folder);
    }

    [Fact]
    public async Task A_database_of_a_newer_release()
    {
        await using var service = await TestedService.StartProcessAsync();
        await service.StopAsync();
        await service.SqlAsync(
            "INSERT INTO __EFMigrationsHistory (MigrationId, ProductVersion) VALUES ('99991231235959_Later', '99.0')");
        await EndsAsync(4, "of a newer release (99991231235959_Later)", "--JustRight:Data", service.Data);
    }

    [Fact]
    public async Task A_database_that_breaks_while_it_runs_is_told_and_never_a_500()
    {
        await using var service = await PreparedData.Demo.StartProcessAsync();
        var file = Path.Combine(service.Data, "justright.db");
        foreach (var part in new[] { file, file + "-wal" })
        {
            await using var broken = File.OpenWrite(part);
            var bytes = new byte[broken.Length];
            new Random(1).NextBytes(bytes);
            broken.Position = Math.Min(4096, broken.Length);
            broken.Write(bytes.AsSpan((int)broken.Position));
        }

        var statuses = new HashSet<int>();
        foreach (var path in new[] { "installs", "sheets", "estates", "log", "secrets", "installs/thermograph-dataroom" })
        {
            using var answer = await service.Http.GetAsync("/api/" + path, Cancel);
            statuses.Add((int)answer.StatusCode);
        }

        statuses.ShouldNotContain(500);
        statuses.ShouldContain(503);
        using var health = await service.Http.GetAsync("/health", Cancel);
        ((int)health.StatusCode, await health.Content.ReadAsStringAsync(Cancel)).ShouldSatisfyAllConditions(
            h => h.Item1.ShouldBe(503), h => h.Item2.ShouldContain("is damaged"), h => h.Item2.ShouldContain("from a backup"));
        (await service.Http.GetAsync("/health/live", Cancel)).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task An_address_that_is_taken()
    {
        await using var service = await TestedService.StartProcessAsync();
        await EndsAsync(5, "address already in use", "--JustRight:Data", NewFolder(), "--urls", service.Address);
    }

    [Fact]
    public async Task A_folder_that_is_in_use()
    {
        await using var service = await TestedService.StartProcessAsync();
        await EndsAsync(3, "is in use by process", "--JustRight:Data", service.Data);
    }

    private static string NewFolder() => Directory.CreateTempSubdirectory("justright-start-").FullName;

    private static async Task<string> LeftBehindAsync()
    {
        await using var service = await TestedService.StartProcessAsync();
        await service.StopAsync();
        var folder = NewFolder();
        await Programs.MustRunAsync("cp", "-r", $"{service.Data}/.", folder);
        return folder;
    }

    /// <summary>The service ends with a code, and says why in one line: no dump of a program's insides.</summary>
    private static async Task EndsAsync(int code, string says, params string[] settings)
    {
        var end = await Programs.RunAsync(
            "dotnet", [Program, "--urls", $"http://127.0.0.1:{Loopback.FreePort()}", .. settings], cancel: Cancel);
        end.Code.ShouldBe(code, end.Output + end.Error);
        end.Error.Trim().ShouldSatisfyAllConditions(
            e => e.ShouldContain(says, Case.Insensitive), e => e.ShouldNotContain("\n"), e => e.ShouldNotContain("   at "));
        end.Output.ShouldNotContain("   at ");
    }
}
