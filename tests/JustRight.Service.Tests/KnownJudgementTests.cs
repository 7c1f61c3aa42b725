using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Tests;

/// <summary>An install that was judged is told again as it is known, and never after something changed.</summary>
public sealed class KnownJudgementTests
{
    private const string Install = "quernstone-sql01";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_changes_is_told_at_once_though_many_ask_at_the_same_time()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync($"installs/{Install}/verify");
        var off = (await FitAsync(service)).Accounts.SelectMany(a => a.Rights).First(r => r.Verdict == "excess");
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(Cancel);
        var asking = Enumerable.Range(0, 3).Select(_ => Task.Run(async () =>
        {
            while (!stop.IsCancellationRequested) await FitAsync(service);
        }, Cancel)).ToList();
        try
        {
            for (var i = 0; i < 4; i++)
            {
                var made = await service.Http.PostAsJsonAsync(
                    $"/api/installs/{Install}/exceptions",
                    new ExceptionOrder(off.Id, "until the spring", DateOnly.FromDateTime(DateTime.UtcNow.AddDays(30))),
                    ContractsJson.Default.ExceptionOrder, Cancel);
                made.EnsureSuccessStatusCode();
                (await AcceptedAsync(service, off.Id)).ShouldNotBeNull();
                var number = (await made.Content.ReadFromJsonAsync(ContractsJson.Default.ExceptionView, Cancel))!.Number;
                (await service.Http.PostAsync($"/api/installs/{Install}/exceptions/{number}/end", null, Cancel))
                    .EnsureSuccessStatusCode();
                (await AcceptedAsync(service, off.Id)).ShouldBeNull();
            }
        }
        finally
        {
            await stop.CancelAsync();
            await Task.WhenAll(asking);
        }
    }

    [Fact]
    public async Task Another_text_of_an_install_is_judged_anew()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync($"installs/{Install}/verify");
        var before = await FitAsync(service);
        var text = (await service.GetAsync($"installs/{Install}", ContractsJson.Default.InstallView)).Text;
        var other = text.Replace("watched: fm-sql01", "watched: fm-sql02", StringComparison.Ordinal);
        other.ShouldNotBe(text);
        (await service.AddAsync("installs", "install.yaml", Encoding.UTF8.GetBytes(other))).EnsureSuccessStatusCode();
        (await FitAsync(service)).Accounts.SelectMany(a => a.Rights).Select(r => r.Place)
            .ShouldNotBe(before.Accounts.SelectMany(a => a.Rights).Select(r => r.Place));
    }

    [Fact]
    public async Task An_install_is_judged_once_until_something_changes_or_its_time_has_come()
    {
        var folder = Directory.CreateTempSubdirectory("justright-known-").FullName;
        var options = new DbContextOptionsBuilder<AppDb>().UseSqlite($"Data Source={folder}/known.db;Pooling=False").Options;
        var databases = new Databases(options);
        var clock = new MovableClock();
        var known = new KnownJudgements(databases, clock);
        var judged = 0;
        try
        {
            await using var db = databases.CreateDbContext();
            await db.Database.MigrateAsync(Cancel);
            db.Documents.Add(new DocumentRow
            {
                Kind = "install",
                Name = Install,
                File = "",
                Text = $"install: 1\nname: {Install}\nproduct: quernstone\nrelease: \"2.1\"\nestate: fennmoor\n",
                AddedBy = "",
            });
            await db.SaveChangesAsync(Cancel);

            await Task.WhenAll(Enumerable.Range(0, 5).Select(_ => AskAsync()));
            judged.ShouldBe(1);
            db.Surveys.Add(new SurveyRow { Estate = "fennmoor", Packed = [] });
            await db.SaveChangesAsync(Cancel);
            await AskAsync();
            await AskAsync();
            judged.ShouldBe(2);
            clock.Pass(TimeSpan.FromHours(2));
            await AskAsync();
            await AskAsync();
            judged.ShouldBe(3);
        }
        finally
        {
            Directory.Delete(folder, true);
        }

        Task AskAsync() => known.GetAsync(
            Install,
            async present =>
            {
                judged++;
                present.HasReached(clock.GetUtcNow().AddHours(1)); // from then on it would be another
                await Task.Yield();
                return null;
            },
            Cancel);
    }

    private sealed class Databases(DbContextOptions<AppDb> options) : IDbContextFactory<AppDb>
    {
        public AppDb CreateDbContext() => new(options);
    }

    private static Task<FitView> FitAsync(TestedService service) =>
        service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView);

    private static async Task<AcceptedView?> AcceptedAsync(TestedService service, string id) =>
        (await FitAsync(service)).Accounts.SelectMany(a => a.Rights).Single(r => r.Id == id).Accepted;
}
