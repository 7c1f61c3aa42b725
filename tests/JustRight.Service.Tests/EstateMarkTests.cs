using JustRight.Core.Changes;
using JustRight.Core.Runs;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Tests;

/// <summary>Everything that installs are judged by is counted where it is saved, and nothing else is.</summary>
public sealed class EstateMarkTests : IAsyncLifetime
{
    private const string Mine = "fennmoor", Other = "moorside", All = Mine + " " + Other;
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-marks-").FullName;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        await using var db = Open();
        await db.Database.MigrateAsync(Cancel);
        db.Documents.AddRange(
            Document("estate", Mine, ""), Document("estate", Other, ""), Document("sheet", "quernstone@3", ""),
            Document("install", "sql01", Text(Mine)), Document("install", "sql09", Text(Other)),
            Document("install", "unreadable", "%"));
        db.Jobs.Add(Job("a", "sql01"));
        db.Jobs.Add(Job("b", Mine));
        db.Exceptions.Add(Exception("sql01"));
        await db.SaveChangesAsync(Cancel);
    }

    public ValueTask DisposeAsync()
    {
        Directory.Delete(_folder, true);
        return ValueTask.CompletedTask;
    }

    public static TheoryData<string, Func<AppDb, object>, string, string> Cases => new()
    {
        // what changes, how, whose installs are judged anew, whose are planned anew
        { "an estate", db => db.Documents.First(d => d.Name == Mine).Text = "x", Mine, Mine },
        { "a sheet of two estates", db => db.Documents.First(d => d.Kind == "sheet").Text = "x", All, All },
        { "a sheet of nobody", db => db.Documents.Add(Document("sheet", "brinebook@1", "")), "", "" },
        { "an install", db => db.Documents.First(d => d.Name == "sql01").Text += "\n", Mine, Mine },
        { "an install that is removed", db => db.Documents.Remove(db.Documents.First(d => d.Name == "sql09")), Other, Other },
        { "a version of a document", db => db.DocumentVersions.Add(Version()), "", "" },
        { "a new install", db => db.Documents.Add(Document("install", "sql02", Text(Other))), Other, Other },
        { "an install that moves", db => db.Documents.First(d => d.Name == "sql01").Text = Text(Other), All, All },
        { "a survey", db => db.Surveys.Add(new SurveyRow { Estate = Other, Packed = [] }), Other, Other },
        { "a settled name", db => db.SettledNames.Add(Name()), All, All },
        { "a person's word", db => db.Confirmations.Add(Word("sql09")), Other, "" },
        { "an exception", db => db.Exceptions.Add(Exception("sql01")), Mine, "" },
        { "the end of an exception", db => db.Exceptions.First().EndedBy = "Maud Ferris", Mine, "" },
        { "an account disabled by an install's run", db => Step(db, "a", 1).State = RunStepState.Made, Mine, "" },
        { "an account enabled by an estate's run", db => Step(db, "b", 1).State = RunStepState.Made, Mine, "" },
        { "another step", db => Step(db, "a", 2).State = RunStepState.Made, "", "" },
        { "what is said of a step", db => Step(db, "a", 1).After = "disabled", "", "" },
        { "an entry of the log", db => db.Log.Add(new LogRow
            { Number = 1, Who = "Maud Ferris", Action = "confirm", Subject = "sql01", Detail = "", Hash = "" }), "", "" },
        { "what was judged", db => db.Summaries.First().Next = "nothing", "", "" },
    };

    [Theory]
    [MemberData(nameof(Cases))]
    public async Task A_change_is_counted_for_the_estates_that_it_concerns(
        string what, Func<AppDb, object> change, string judged, string planned)
    {
        var before = await CountsAsync();
        await using (var db = Open())
        {
            change(db);
            await db.SaveChangesAsync(Cancel);
        }

        var after = await CountsAsync();
        string.Join(' ', after.Where(a => a.Value.Changed != before[a.Key].Changed).Select(a => a.Key)).ShouldBe(judged, what);
        string.Join(' ', after.Where(a => a.Value.Replanned != before[a.Key].Replanned).Select(a => a.Key))
            .ShouldBe(planned, what);
    }

    [Fact]
    public async Task A_change_that_is_not_kept_is_not_counted()
    {
        var before = await CountsAsync();
        await using (var db = Open())
        {
            await using var transaction = await db.Database.BeginTransactionAsync(Cancel);
            db.Documents.First(d => d.Name == "sql01").Text = Text(Other);
            await db.SaveChangesAsync(Cancel);
        }

        (await CountsAsync()).ShouldBe(before);
    }

    [Fact]
    public async Task An_install_is_in_the_list_as_soon_as_it_is_kept()
    {
        await using var db = Open();
        (await db.Summaries.OrderBy(s => s.Install).Select(s => $"{s.Install} {s.Estate} {s.Sheet} {s.Stage}")
            .ToListAsync(Cancel))
            .ShouldBe(["sql01 fennmoor quernstone@3 retiring", "sql09 moorside quernstone@3 retiring", "unreadable   "]);
    }

    [Fact]
    public async Task An_install_that_is_removed_leaves_the_list()
    {
        await using var db = Open();
        db.Documents.Remove(db.Documents.First(d => d.Name == "sql01"));
        await db.SaveChangesAsync(Cancel);
        (await db.Summaries.Select(s => s.Install).ToListAsync(Cancel)).ShouldNotContain("sql01");
    }

    [Fact]
    public async Task Nothing_can_be_saved_without_being_counted()
    {
        await using var db = Open();
        Should.Throw<NotSupportedException>(() => db.SaveChanges());
    }

    private AppDb Open()
    {
        var options = new DbContextOptionsBuilder<AppDb>();
        AppDb.KeptIn(Path.Combine(_folder, "marks.db"), options);
        return new AppDb(options.Options);
    }

    private async Task<SortedDictionary<string, (long Changed, long Replanned)>> CountsAsync()
    {
        await using var db = Open();
        var marks = await db.EstateMarks.Where(m => m.Estate != "").ToListAsync(Cancel);
        return new(marks.ToDictionary(m => m.Estate, m => (m.Changed, m.Replanned)), StringComparer.Ordinal);
    }

    private static StepRow Step(AppDb db, string job, int number) => db.Steps.First(s => s.JobId == job && s.Number == number);

    private static string Text(string estate) =>
        $"install: 1\nname: sql\nproduct: quernstone\nrelease: \"3\"\nestate: {estate}\nstage: retiring\n";

    private static DocumentRow Document(string kind, string name, string text) =>
        new() { Kind = kind, Name = name, File = $"{name}.yaml", Text = text, AddedBy = "Maud Ferris" };

    private static DocumentVersionRow Version() => new()
    {
        Kind = "install",
        Name = "sql01",
        Number = 1,
        File = "sql01.yaml",
        Text = "",
        By = "Maud Ferris",
    };

    private static JobRow Job(string id, string subject) => new()
    {
        Id = id,
        Kind = JobKind.Grant,
        Subject = subject,
        State = JobState.Running,
        StartedBy = "Maud Ferris",
        Steps =
        [
            Step(1, id == "a" ? new DisableAccount("fennmoor.example", "svc-quern")
                : new EnableAccount("fennmoor.example", "svc-quern")),
            Step(2, new DeleteGroup("fennmoor.example", "app-quern", "CN=app-quern,DC=fennmoor,DC=example")),
        ],
    };

    private static StepRow Step(int number, Change change) => new()
    {
        JobId = "",
        Number = number,
        ChangeJson = ChangeJson.Write(change),
        Words = "",
        Team = "directory",
        Place = "fennmoor.example",
        State = RunStepState.Waiting,
    };

    private static SettledNameRow Name() =>
        new() { Install = "sql01", Estate = Mine, Kind = NamedKind.Account, Key = "agent", Name = "svc-quern-agent" };

    private static ConfirmationRow Word(string install) => new()
    {
        Install = install,
        GrantId = "agent/x",
        Account = "agent",
        Role = "Clerk",
        Principal = "svc-quern-agent",
        Lets = "",
        SeenBy = "Maud Ferris",
        WrittenBy = "Maud Ferris",
    };

    private static ExceptionRow Exception(string install) => new()
    {
        Install = install,
        Target = "agent/x",
        Words = "",
        Why = "until the release",
        By = "Maud Ferris",
        WrittenBy = "Maud Ferris",
    };
}
