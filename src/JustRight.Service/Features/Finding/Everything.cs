using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Summaries;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Lists;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Finding;

/// <summary>Looks for words in everything: of each kind a few are told, and how much there is in all.</summary>
internal sealed class Everything(Library library, EstateContents contents, LogPages log, IDbContextFactory<AppDb> databases)
{
    private const int OfEach = 5;

    /// <summary>What contains all words, each of them somewhere.</summary>
    public async Task<FoundPage> FindAsync(string[] words, CancellationToken cancel)
    {
        var found = new Found();
        var search = string.Join(' ', words);
        await using var db = await databases.CreateDbContextAsync(cancel);
        await InstallsAsync(found, db, search, cancel);
        foreach (var row in await library.ListAsync(Library.SheetKind, cancel))
            if (SoughtWords.AreIn(words, row.Name, Library.OpenSheet(row).Document?.Title))
                found.Add(new FoundView("sheet", row.Name, "", Library.OpenSheet(row).Document?.Title ?? ""));
        foreach (var row in await library.ListAsync(Library.EstateKind, cancel))
        {
            if (Library.OpenEstate(row).Document is not { } estate) continue;
            if (SoughtWords.AreIn(words, estate.Name, estate.Title, estate.Domain.DnsName))
                found.Add(new FoundView("estate", estate.Name, "", estate.Title));
            await InEstateAsync(found, estate, words, cancel);
        }

        await RunsAsync(found, db, search, cancel);
        var entries = await log.ReadAsync(search, null, OfEach, cancel);
        foreach (var entry in entries.Items)
            found.Show(new FoundView(
                "log", $"{entry.Number}", "", $"{entry.Who}: {entry.Action} {entry.Subject} {entry.Detail}".TrimEnd(), entry.At));
        found.Count("log", entries.Total);
        return new FoundPage(found.Items, found.Counts);
    }

    private static async Task InstallsAsync(Found found, AppDb db, string search, CancellationToken cancel)
    {
        var matching = db.Summaries.AsNoTracking()
            .About(search);
        foreach (var row in await matching.OrderBy(s => s.Install).Take(OfEach).ToListAsync(cancel))
            found.Show(new FoundView("install", row.Install, row.Estate, $"{row.Title}, {row.Stage}; next: {row.Next}"));
        found.Count("install", await matching.CountAsync(cancel));
    }

    private async Task InEstateAsync(Found found, Estate estate, string[] words, CancellationToken cancel)
    {
        foreach (var host in (await contents.HostsAsync(estate, cancel)).Where(h => EstateContents.Matches(h, words)))
            found.Add(new FoundView(
                "host", host.Name, estate.Name, string.Join(", ", host.Installs.Prepend(host.System).Where(w => w.Length > 0))));
        foreach (var instance in estate.Instances.Where(i => SoughtWords.AreIn(words, i.Name, i.Host, i.Engine)))
            found.Add(new FoundView("instance", instance.Name, estate.Name, $"{instance.Engine} on {instance.Host}"));
        foreach (var account in (await contents.AccountsAsync(estate, cancel)).Where(a => EstateContents.Matches(a, words)))
            found.Add(new FoundView(
                "account", account.Name, estate.Name,
                $"{account.State}; {string.Join(", ", account.Uses.Select(u => $"{u.Account} of {u.Install}"))}"));
        foreach (var group in (await contents.GroupsAsync(estate, cancel)).Where(g => EstateContents.Matches(g, words)))
            found.Add(new FoundView("group", group.Name, estate.Name, $"{group.State}; {string.Join(", ", group.Installs)}"));
    }

    private static async Task RunsAsync(Found found, AppDb db, string search, CancellationToken cancel)
    {
        var matching = db.Jobs.AsNoTracking().Where(j => JobKinds.GoOn.Contains(j.Kind))
            .About(search);
        foreach (var job in await matching.OrderByDescending(j => j.Id).Take(OfEach).ToListAsync(cancel))
            found.Show(new FoundView(
                "run", job.Id, "", $"{job.Kind.Word()} of {job.Subject} by {job.StartedBy}, {job.State.Word()}", job.CreatedAt));
        found.Count("run", await matching.CountAsync(cancel));
    }

    /// <summary>What was found so far.</summary>
    private sealed class Found
    {
        private readonly List<FoundView> _items = [];
        private readonly Dictionary<string, int?> _counts = new(StringComparer.Ordinal);

        public IReadOnlyList<FoundView> Items => _items;

        public IReadOnlyList<FoundCountView> Counts =>
            [.. _counts.Where(c => c.Value != 0).Select(c => new FoundCountView(c.Key, c.Value))];

        /// <summary>Counts one more, and tells it while there are few of its kind.</summary>
        public void Add(FoundView one)
        {
            var before = _counts.GetValueOrDefault(one.Kind, 0) ?? 0;
            _counts[one.Kind] = before + 1;
            if (before < OfEach) Show(one);
        }

        /// <summary>Tells one that is counted otherwise.</summary>
        public void Show(FoundView one) => _items.Add(one);

        /// <summary>Says how much there is of a kind; null for too much to count.</summary>
        public void Count(string kind, int? total) => _counts[kind] = total;
    }
}
