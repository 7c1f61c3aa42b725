using JustRight.Core.Adoptions;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Adoptions;

/// <summary>An adoption in Just Right, with who began it and when.</summary>
public sealed record KeptAdoption(Adoption Adoption, string By, DateTimeOffset At, DateTimeOffset? FinishedAt);

/// <summary>Keeps adoptions and what people said of their items.</summary>
public sealed class AdoptionStore(IDbContextFactory<AppDb> databases, LogStore log, TimeProvider time)
{
    /// <summary>The adoptions, by name.</summary>
    public async Task<IReadOnlyList<KeptAdoption>> ListAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return [.. (await db.Adoptions.AsNoTracking().OrderBy(a => a.Name).ToListAsync(cancel)).Select(Of)];
    }

    /// <summary>An adoption, or null.</summary>
    public async Task<KeptAdoption?> FindAsync(string name, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Adoptions.AsNoTracking().FirstOrDefaultAsync(a => a.Name == name, cancel) is { } row ? Of(row) : null;
    }

    /// <summary>Begins an adoption, or gives one that was begun other accounts.</summary>
    public Task BeginAsync(Adoption adoption, string who, CancellationToken cancel) => log.AddWithAsync(
        db =>
        {
            var row = db.Adoptions.FirstOrDefault(a => a.Name == adoption.Name);
            if (row is null)
                db.Adoptions.Add(row = new AdoptionRow { Name = adoption.Name, Estate = adoption.Estate, Json = "", By = who, At = time.GetUtcNow() });
            (row.Estate, row.Json) = (adoption.Estate, StoredJson.Write(adoption));
        },
        who, "adopt", adoption.Name, $"{adoption.Title}: {string.Join(", ", adoption.Accounts.Select(a => a.Name))}", cancel);

    /// <summary>The last answer to each item.</summary>
    public async Task<IReadOnlyDictionary<string, AdoptionAnswer>> AnswersAsync(string name, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.AdoptionAnswers.AsNoTracking().Where(a => a.Adoption == name).OrderBy(a => a.Id).ToListAsync(cancel);
        return rows.GroupBy(r => r.Item)
            .ToDictionary(
                g => g.Key,
                g => g.Last() is var r ? new AdoptionAnswer(r.Item, AdoptionWords.Of(r.Word)!.Value, r.Why, r.By, r.At) : null!);
    }

    /// <summary>Writes down what somebody said of items.</summary>
    public Task AnswerAsync(
        string name, IReadOnlyList<AdoptionItem> items, AdoptionWord word, string? why, string who,
        CancellationToken cancel) => log.AddWithAsync(
        db => db.AdoptionAnswers.AddRange(
            items.Select(i =>
                new AdoptionAnswerRow
                {
                    Adoption = name,
                    Item = i.Id,
                    Word = AdoptionWords.Text(word),
                    Why = why,
                    By = who,
                    At = time.GetUtcNow(),
                })),
        who, "adopt", name,
        $"{AdoptionWords.Text(word)}: {string.Join(", ", items.Select(i => $"{i.Account.Name}: {i.Right}"))}{(why is null ? "" : $"; {why}")}",
        cancel);

    /// <summary>Notes that the sheet and the install were written into the books.</summary>
    public Task FinishAsync(string name, string who, CancellationToken cancel) => log.AddWithAsync(
        db =>
        {
            var row = db.Adoptions.First(a => a.Name == name);
            (row.FinishedAt, row.FinishedBy) = (time.GetUtcNow(), who);
        },
        who, "adopt", name, "written into the books", cancel);

    private static KeptAdoption Of(AdoptionRow row) => new(StoredJson.Read<Adoption>(row.Json), row.By, row.At, row.FinishedAt);
}
