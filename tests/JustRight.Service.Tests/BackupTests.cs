using System.Formats.Tar;
using System.IO.Compression;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;
using Microsoft.Data.Sqlite;

namespace JustRight.Service.Tests;

/// <summary>
/// Backups of a running service, and what they restore: whole, of one moment, and with nothing secret unless encrypted.
/// </summary>
public sealed class BackupTests : IDisposable
{
    private const string Marker = "Kein-Käse-für-Fremde-7";

    /// <summary>The demo with a grant made, so that passwords wait to be handed over, and with a secret.</summary>
    private static readonly PreparedData WithSecrets = new(async service =>
    {
        await service.AddDemoAsync();
        for (var i = 0; i < 2; i++) await service.RunAsync($"installs/{Killing.Install}/verify");
        (await service.GrantAllAsync(Killing.Install)).State.ShouldBe("done");
        await service.SetSecretAsync("night", Marker);
    });

    private readonly string _folder = Directory.CreateTempSubdirectory("justright-backup-").FullName;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Fact]
    public async Task Without_a_recipient_nothing_secret_is_in_it_and_the_rest_is_restored()
    {
        await using var service = await WithSecrets.StartAsync();
        var hidden = await SecretsOfAsync(service.Data);
        hidden.Count.ShouldBeGreaterThan(2);
        var backup = await BackUpAsync(service, null);
        var parts = Unpack(backup);
        parts.Keys.ShouldBe(["manifest.json", "justright.db", "simulation/fennmoor.json"], ignoreOrder: true);
        var all = Encoding.Latin1.GetString([.. parts.Values.SelectMany(p => p)]);
        foreach (var secret in hidden.Append(Marker)) all.ShouldNotContain(secret);
        all.ShouldNotContain("CfDJ8", customMessage: "what the keys encrypt begins so");

        await using var restored = await RestoredAsync(service, backup);
        (await NamesAsync(restored)).ShouldBe(await NamesAsync(service));
        (await restored.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView)).ShouldBeEmpty();
        var log = (await restored.GetAsync("log?take=500", ContractsJson.Default.LogPage)).Items;
        log.Single(l => l.Action == "restore").Detail.ShouldContain("without secrets");
        (await restored.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
        (await restored.RunAsync($"installs/{Killing.Install}/verify")).State.ShouldBe("done");
    }

    [Fact]
    public async Task With_a_recipient_everything_is_restored_with_its_key_and_nothing_without()
    {
        await using var service = await WithSecrets.StartAsync();
        var (certificate, key) = NewKey("keeper");
        var backup = await BackUpAsync(service, certificate);
        Unpack(backup).Keys.ShouldContain("secrets.p7m");
        Directory.Exists(Path.Combine(service.Data, "backup-in-making")).ShouldBeFalse("no copy of a key is left");
        var all = Encoding.Latin1.GetString([.. Unpack(backup).Values.SelectMany(p => p)]);
        all.ShouldNotContain("CfDJ8");

        var into = Path.Combine(_folder, "no-key");
        (await RestoreAsync(backup, into)).ShouldSatisfyAllConditions(
            e => e.Code.ShouldBe(7), e => e.Error.ShouldContain("give its certificate and key (--key)"));
        (await RestoreAsync(backup, into, "--key", NewKey("somebody-else").Key)).ShouldSatisfyAllConditions(
            e => e.Code.ShouldBe(7), e => e.Error.ShouldContain("cannot be opened with"));
        Directory.GetFileSystemEntries(_folder).ShouldNotContain(f => f.Contains("no-key", StringComparison.Ordinal),
            "nothing half done");

        await using (var without = await RestoredAsync(service, backup, "--without-secrets"))
            (await without.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView)).ShouldBeEmpty();

        await using var restored = await RestoredAsync(service, backup, "--key", key);
        (await restored.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView)).ShouldContain(s => s.Name == "night");
        (await restored.GetAsync("log/check", ContractsJson.Default.LogCheckView)).ShouldSatisfyAllConditions(
            c => c.Sound.ShouldBeTrue(c.Fault), c => c.Heads.ShouldBeGreaterThan(0));
        (await ShownAsync(restored)).ShouldBe(await ShownAsync(service), "the kept password is the same");
    }

    [Fact]
    public async Task Under_load_and_after_kills_each_backup_is_of_one_moment()
    {
        await using var service = await WithSecrets.StartProcessAsync();
        var (certificate, key) = NewKey("keeper");
        var backups = new List<string>();
        for (var round = 0; round < 3; round++)
        {
            using var stop = CancellationTokenSource.CreateLinkedTokenSource(Cancel);
            var load = Enumerable.Range(0, 4).Select(n => LoadAsync(service, n, stop.Token)).ToList();
            for (var i = 0; i < 2; i++) backups.Add(await BackUpAsync(service, certificate));
            var cutOff = BackUpAsync(service, certificate);
            await Task.Delay(TimeSpan.FromMilliseconds(20 * round), Cancel);
            await service.KillAsync();
            await Should.ThrowAsync<Exception>(cutOff);
            await stop.CancelAsync();
            await Task.WhenAll(load);
            await service.RestartAsync();
            Directory.Exists(Path.Combine(service.Data, "backup-in-making")).ShouldBeFalse("what was cut off is gone");
        }

        backups.Add(await BackUpAsync(service, certificate));
        long entries = 0;
        foreach (var backup in backups)
        {
            await using var restored = await RestoredAsync(service, backup, "--key", key);
            var check = await restored.GetAsync("log/check", ContractsJson.Default.LogCheckView);
            check.Sound.ShouldBeTrue(check.Fault);
            check.Entries.ShouldBeGreaterThan(entries);
            entries = check.Entries;

            // A secret and its entry in the log are written together: each is there with the other, or neither.
            var secrets = await restored.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView);
            var logged = await LoggedAsync(restored.Data);
            secrets.Select(s => s.Name).Where(n => n.StartsWith("load-", StringComparison.Ordinal)).ShouldBe(
                logged, ignoreOrder: true);
        }
    }

    [Theory]
    [InlineData("another byte", "is not what was backed up")]
    [InlineData("cut off", "")]
    [InlineData("no backup", "")]
    [InlineData("a part more", "'../outside' does not belong into it")]
    [InlineData("a part less", "'justright.db' is missing")]
    [InlineData("newer", "was made by a newer release")]
    public async Task What_is_no_whole_backup_is_refused_and_nothing_is_made(string what, string says)
    {
        await using var service = await TestedService.StartAsync();
        var backup = await BackUpAsync(service, null);
        var parts = Unpack(backup);
        var broken = Path.Combine(_folder, "broken");
        switch (what)
        {
            case "another byte":
                parts["justright.db"][5000] ^= 1;
                Pack(broken, parts);
                break;
            case "cut off":
                File.WriteAllBytes(broken, File.ReadAllBytes(backup)[..^2000]);
                break;
            case "no backup":
                File.WriteAllText(broken, "not one at all");
                break;
            case "a part more":
                parts["../outside"] = [1];
                Pack(broken, parts);
                break;
            case "a part less":
                parts.Remove("justright.db");
                Pack(broken, parts);
                break;
            case "newer":
                var manifest = Encoding.UTF8.GetString(parts["manifest.json"]);
                parts["manifest.json"] = Encoding.UTF8.GetBytes(
                    manifest.Replace("\"layout\": 1", "\"layout\": 2", StringComparison.Ordinal));
                Pack(broken, parts);
                break;
        }

        var end = await RestoreAsync(broken, Path.Combine(_folder, "into"));
        end.Code.ShouldBe(8, end.Output + end.Error);
        end.Error.Trim().ShouldSatisfyAllConditions(e => e.ShouldContain(says), e => e.ShouldNotContain("\n"));
        Directory.GetFileSystemEntries(_folder).Select(Path.GetFileName).Order().ShouldBe(["1.backup", "broken"]);
    }

    [Fact]
    public async Task A_folder_that_holds_something_is_not_restored_into()
    {
        await using var service = await TestedService.StartAsync();
        var backup = await BackUpAsync(service, null);
        var end = await RestoreAsync(backup, service.Data);
        (end.Code, end.Error).ShouldSatisfyAllConditions(e => e.Code.ShouldBe(3), e => e.Error.ShouldContain("is not empty"));
    }

    /// <summary>Sets secrets until it is stopped.</summary>
    private static async Task LoadAsync(TestedService service, int who, CancellationToken stop)
    {
        try
        {
            for (var i = 0; !stop.IsCancellationRequested; i++)
            {
                var secret = new SecretValue(new string('x', 1 + (i % 900)));
                using var set = await service.Http.PutAsJsonAsync(
                    $"/api/secrets/load-{who}-{i}", secret, ContractsJson.Default.SecretValue, stop);
            }
        }
        catch (Exception e) when (e is HttpRequestException or OperationCanceledException)
        {
            // It was killed, or is to stop.
        }
    }

    private async Task<string> BackUpAsync(TestedService service, string? certificate)
    {
        var order = new BackupOrder { Recipient = certificate };
        using var made = await service.Http.PostAsJsonAsync("/api/backup", order, ContractsJson.Default.BackupOrder, Cancel);
        made.EnsureSuccessStatusCode();
        var bytes = await made.Content.ReadAsByteArrayAsync(Cancel);
        var file = Path.Combine(_folder, $"{Directory.GetFiles(_folder, "*.backup").Length + 1}.backup");
        await File.WriteAllBytesAsync(file, bytes, Cancel);
        return file;
    }

    private static Task<ProgramEnd> RestoreAsync(string backup, string into, params string[] more) => Programs.RunAsync(
        "dotnet",
        [
            Path.Combine(Checkout.Top, ".build", "service", "JustRight.Service.dll"), "restore", "--from", backup, "--into", into,
            .. more,
        ],
        cancel: Cancel);

    /// <summary>A service on what a backup restores.</summary>
    private async Task<TestedService> RestoredAsync(TestedService service, string backup, params string[] more)
    {
        var into = Path.Combine(_folder, $"restored-{Guid.NewGuid():N}");
        (await RestoreAsync(backup, into, more)).Ended("restore");
        return await TestedService.StartOnCopyAsync(into, service.Token, false, []);
    }

    private static async Task<IReadOnlyList<string>> NamesAsync(TestedService service) =>
        [.. (await service.InstallsAsync())
            .Select(i => $"{i.Name} {i.Stage}")];

    /// <summary>A kept password, shown.</summary>
    private static async Task<string> ShownAsync(TestedService service)
    {
        var kept =
            await service.GetAsync($"installs/{Killing.Install}/passwords", ContractsJson.Default.IReadOnlyListPasswordView);
        var name = kept.First(p => p.HandedOverAt is null).Account.Split('\\')[1];
        using var shown = await service.Http.PostAsync($"/api/estates/fennmoor/passwords/{name}/show", null, Cancel);
        shown.EnsureSuccessStatusCode();
        return (await shown.Content.ReadFromJsonAsync(ContractsJson.Default.ShownPassword, Cancel))!.Password;
    }

    /// <summary>The secrets of the load that the log says were set.</summary>
    private static Task<IReadOnlyList<string>> LoggedAsync(string data) =>
        ReadAsync(data, "SELECT DISTINCT Subject FROM Log WHERE Action = 'secret' AND Subject LIKE 'load-%'");

    /// <summary>All that is kept encrypted.</summary>
    private static Task<IReadOnlyList<string>> SecretsOfAsync(string data) => ReadAsync(
        data, "SELECT Protected FROM Secrets UNION SELECT Protected FROM Passwords WHERE Protected IS NOT NULL");

    private static async Task<IReadOnlyList<string>> ReadAsync(string data, string sql)
    {
        var found = new List<string>();
        await using var db =
            new SqliteConnection($"Data Source={Path.Combine(data, "justright.db")};Pooling=False;Mode=ReadOnly");
        await db.OpenAsync(Cancel);
        await using var read = db.CreateCommand();
        read.CommandText = sql;
        await using var rows = await read.ExecuteReaderAsync(Cancel);
        while (await rows.ReadAsync(Cancel)) found.Add(rows.GetString(0));
        return found;
    }

    /// <summary>A certificate in PEM, and a file with it and its key.</summary>
    private (string Certificate, string Key) NewKey(string name)
    {
        using var authority = new TestAuthority(name);
        var folder = Directory.CreateTempSubdirectory("justright-key-").FullName;
        var (certificate, key) = (Path.Combine(folder, "certificate.pem"), Path.Combine(folder, "key.pem"));
        authority.Issue(certificate, key, [name], 30);
        var both = Path.Combine(folder, "both.pem");
        File.WriteAllText(both, File.ReadAllText(certificate) + File.ReadAllText(key));
        return (File.ReadAllText(certificate), both);
    }

    private static Dictionary<string, byte[]> Unpack(string file)
    {
        using var tar = new TarReader(new GZipStream(File.OpenRead(file), CompressionMode.Decompress));
        var parts = new Dictionary<string, byte[]>(StringComparer.Ordinal);
        while (tar.GetNextEntry(copyData: true) is { } entry)
        {
            using var content = new MemoryStream();
            entry.DataStream?.CopyTo(content);
            parts.Add(entry.Name, content.ToArray());
        }

        return parts;
    }

    private static void Pack(string file, Dictionary<string, byte[]> parts)
    {
        using var tar = new TarWriter(new GZipStream(File.Create(file), CompressionLevel.Fastest), TarEntryFormat.Pax);
        foreach (var (name, content) in parts)
            tar.WriteEntry(new PaxTarEntry(TarEntryType.RegularFile, name) { DataStream = new MemoryStream(content) });
    }
}
