using System.Net.Http.Json;
using JustRight.Contracts;
using Microsoft.Data.Sqlite;

namespace JustRight.Service.Tests;

/// <summary>
/// What lies in the data folder: for one service at a time, closed to others, and encrypted where the keys are.
/// </summary>
public sealed class DataFolderTests
{
    private const UnixFileMode Owner = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_second_service_on_the_same_folder_says_who_holds_it()
    {
        await using var service = await TestedService.StartProcessAsync();
        var (code, said) = await EndedAsync(service.Data);
        code.ShouldNotBe(0);
        said.ShouldContain($"The data folder {service.Data} is in use by process ");
        said.ShouldContain(Environment.MachineName);
        (await service.Http.GetStringAsync("/health", Cancel)).ShouldContain("Healthy");
        await service.KillAsync();
        await service.RestartAsync(); // a killed one holds nothing
    }

    [Fact]
    public async Task Keys_are_closed_to_others_and_a_passphrase_encrypts_those_that_were_there()
    {
        await using var service = await TestedService.StartAsync();
        await service.SetSecretAsync("host-key", "Marker-1");
        var keys = Path.Combine(service.Data, "keys");
        new DirectoryInfo(keys).UnixFileMode.ShouldBe(Owner | UnixFileMode.UserExecute);
        Files(keys).ShouldAllBe(f => new FileInfo(f).UnixFileMode == Owner);
        Files(keys).ShouldContain(f => File.ReadAllText(f).Contains("masterKey", StringComparison.Ordinal));
        (await service.Http.GetStringAsync("/health", Cancel)).ShouldContain("The keys are not encrypted");
        await service.StopAsync();

        var passphrase = Path.Combine(service.Data, "passphrase");
        await File.WriteAllTextAsync(passphrase, "a passphrase for the tests\n", Cancel);
        await service.RestartAsync("--JustRight:Keys:PassphraseFile", passphrase);
        Files(keys).ShouldAllBe(f => !File.ReadAllText(f).Contains("<masterKey", StringComparison.Ordinal));
        (await service.Http.GetStringAsync("/health", Cancel)).ShouldContain("The keys are encrypted");
        await service.SetSecretAsync("host-key", "Marker-2");
        await service.StopAsync();

        await service.RestartAsync("--JustRight:Keys:PassphraseFile", passphrase);
        await service.StopAsync();
        await File.WriteAllTextAsync(passphrase, "another passphrase altogether", Cancel);
        (await EndedAsync(service.Data, "--JustRight:Keys:PassphraseFile", passphrase)).Said.ShouldContain("cannot be decrypted");
        (await EndedAsync(service.Data)).Said.ShouldContain("cannot be decrypted");
    }

    [Fact]
    public async Task Without_its_keys_the_service_does_not_start_as_if_it_were_well()
    {
        await using var service = await TestedService.StartAsync();
        await service.SetSecretAsync("host-key", "Marker-1");
        await service.StopAsync();
        Directory.Delete(Path.Combine(service.Data, "keys"), recursive: true);
        var (code, said) = await EndedAsync(service.Data);
        code.ShouldNotBe(0);
        said.ShouldContain("1 of 1 secrets and 0 of 0 kept passwords cannot be decrypted");
        said.ShouldContain("Restore them from the backup");

        await service.RestartAsync("--JustRight:Keys:DropUnreadable", "true");
        (await service.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView)).ShouldBeEmpty();
        (await service.Http.GetStringAsync("/api/log", Cancel)).ShouldContain("dropped: 1 secrets and 0 kept passwords");
    }

    [Fact]
    public async Task The_key_of_a_password_is_destroyed_when_it_was_handed_over()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync("installs/thermograph-dataroom/verify");
        await service.GrantAllAsync("thermograph-dataroom");
        var keys = Path.Combine(service.Data, "keys", "passwords");
        var before = Files(keys).Count;
        before.ShouldBeGreaterThan(0);
        const string list = "installs/thermograph-dataroom/passwords";
        var kept = await service.GetAsync(list, ContractsJson.Default.IReadOnlyListPasswordView);
        var waiting = kept.First(p => p.HandedOverAt is null);
        var account = waiting.Account.Split('\\')[1];
        using var shown = await service.Http.PostAsync($"/api/estates/fennmoor/passwords/{account}/show", null, Cancel);
        var password = await shown.Content.ReadFromJsonAsync(ContractsJson.Default.ShownPassword, Cancel);
        password!.Password.Length.ShouldBeGreaterThanOrEqualTo(32);
        Files(keys).Count.ShouldBe(before - 1);
        await using var db = new SqliteConnection($"Data Source={Path.Combine(service.Data, "justright.db")};Mode=ReadOnly");
        await db.OpenAsync(Cancel);
        await using var command = db.CreateCommand();
        command.CommandText = "SELECT COUNT(*) FROM Passwords WHERE Protected IS NOT NULL AND KeyName IS NULL";
        (await command.ExecuteScalarAsync(Cancel)).ShouldBe(0L);
    }

    private static List<string> Files(string folder) => [.. Directory.GetFiles(folder, "*", SearchOption.AllDirectories)];

    /// <summary>Starts a service that is expected to end, and returns what it said.</summary>
    private static async Task<(int Code, string Said)> EndedAsync(string data, params string[] settings)
    {
        var end = await Programs.RunAsync(
            "dotnet",
            [
                Path.Combine(Checkout.Top, ".build", "service", "JustRight.Service.dll"),
                "--urls", $"http://127.0.0.1:{Loopback.FreePort()}",
                "--JustRight:Data", data, .. settings,
            ],
            cancel: Cancel);
        return (end.Code, end.Output + end.Error);
    }
}
