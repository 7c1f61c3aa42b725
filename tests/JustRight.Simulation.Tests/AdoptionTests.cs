using System.Text;
using JustRight.Connectors;
using JustRight.Core.Adoptions;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Engines;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;
using JustRight.Formats.Adoptions;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;

namespace JustRight.Simulation.Tests;

/// <summary>Adopting what is already there: what is drafted from what the demo's accounts hold, read again, says just what they hold.</summary>
public sealed class AdoptionTests(ITestOutputHelper output)
{
    private static readonly DateTimeOffset Now = new(2026, 11, 26, 12, 0, 0, TimeSpan.Zero);

    public static TheoryData<string> Accounts { get; } =
        [
            "svc-archive", "svc-reports", "svc-sql01", "svc-tally", "svc-roundsman", "svc-nightjobs", "svc-whey-sender",
            "svc-whey-rec", "svc-quern", "svc-curd-fitter", "svc-curd-book", "svc-curd-labeller", "svc-curd-lookup$",
            "svc-curd-cards", "svc-millrace"];

    [Theory]
    [MemberData(nameof(Accounts))]
    public async Task What_is_all_needed_is_just_right_and_what_is_not_needed_is_too_much(string account)
    {
        var (adoption, view, findings, estate) = await FindAsync(account);
        findings.Missing.ShouldBeEmpty();
        var sayable = findings.Items.Where(i => i.WhyNot is null).ToList();

        var needed = Judge(
            adoption, view, findings, estate, findings.Items.ToDictionary(i => i.Id, i => Answer(i, AdoptionWord.Needed)));
        // What it does not hold after all: what a deny or a stop of inheritance takes from it, and what it would need on a server that takes over.
        var places = findings.Items.Select(i => i.Right.AtInstance).ToHashSet();
        needed.Where(j =>
            j.Grant is object && j.Right.OfService is null && j.Verdict == Verdict.Missing && j.DeniedBy.Count == 0
                && j.Branch is null && places.Contains(j.Right.AtInstance))
            .ShouldBeEmpty();
        needed.Where(j => j.Verdict == Verdict.Excess).Select(j => j.Right.Key)
            .ShouldBeSubsetOf(findings.Items.Where(i => i.WhyNot is not null).Select(i => i.Right.Key));
        foreach (var item in sayable.Where(i => i.Right is not EntryRight))
            needed.ShouldContain(j => j.Grant is object && j.Right == item.Right && j.Paths.Count > 0, item.Id);

        var notNeeded = Judge(
            adoption, view, findings, estate, findings.Items.ToDictionary(i => i.Id, i => Answer(i, AdoptionWord.NotNeeded)));
        notNeeded.Where(j => j.Verdict is Verdict.Excess or Verdict.Forbidden).Count()
            .ShouldBeGreaterThanOrEqualTo(Math.Min(1, findings.Items.Count));
        notNeeded.Where(j => j.Grant is object && j.Right.OfService is null).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_nobody_is_sure_of_is_kept_and_the_sheet_says_so()
    {
        var (adoption, view, findings, estate) = await FindAsync("svc-archive");
        var unsure = findings.Items[0];
        var answers = findings.Items.Skip(2).ToDictionary(i => i.Id, i => Answer(i, AdoptionWord.Needed));
        answers[unsure.Id] = Answer(unsure, AdoptionWord.NotSure);
        var text = DraftWriter.Sheet(AdoptionDraft.Make(adoption, findings, answers, estate));
        text.ShouldContain("not sure (Jory Lind, 2026-11-26)");
        text.ShouldContain("not answered yet: found ");
        Judge(adoption, view, findings, estate, answers)
            .ShouldContain(j => j.Right == unsure.Right && j.Verdict != Verdict.Excess);
    }

    [Fact]
    public async Task Spots_where_the_same_is_held_are_one_place_and_what_a_forbidden_group_brings_is_said_to()
    {
        var (adoption, _, findings, estate) = await FindAsync("svc-curd-book");
        var draft = AdoptionDraft.Make(
            adoption, findings, findings.Items.ToDictionary(i => i.Id, i => Answer(i, AdoptionWord.Needed)), estate);
        draft.Places.Single(p => p.Kind == Core.Sheets.PlaceKind.Host).Spots.ShouldBe(["fm-book01", "fm-book02"]);
        draft.Services.ShouldHaveSingleItem().Name.ShouldBe("CurdBook");

        var (_, _, archive, _) = await FindAsync("svc-archive");
        archive.Items.Where(i => i.Forbidden is not null).ShouldNotBeEmpty();
        archive.Items.Where(i => i.Forbidden is not null)
            .ShouldAllBe(i => i.HeldBy.Contains("Domain Admins", StringComparison.Ordinal) || i.Paths.Count > 1);
    }

    [Fact]
    public async Task An_entry_of_the_directory_becomes_the_act_it_stands_for()
    {
        var (_, _, findings, _) = await FindAsync("svc-millrace");
        findings.Items.SelectMany(i => i.Needs).Select(n => (n.Value, string.Join(',', n.Attributes), n.Of, n.Place))
            .ShouldContain(("write attributes", "telephoneNumber", "user", "people"));
        var (_, _, elsewhere, _) = await FindAsync("svc-roundsman");
        elsewhere.Items.Single(i => i.Right is EntryRight).WhyNot.ShouldBe(
            "no branch of the estate is OU=Highfield,OU=People,OU=Fennmoor,DC=fennmoor,DC=example: name it under 'branches' first");
    }

    [Fact]
    public async Task An_account_that_is_not_there_is_said_to_be_missing()
    {
        var (_, _, findings, _) = await FindAsync("svc-nobody");
        findings.Missing.ShouldBe(["svc-nobody"]);
        findings.Items.ShouldBeEmpty();
    }

    private static AdoptionAnswer Answer(AdoptionItem item, AdoptionWord word) => new(item.Id, word, null, "Jory Lind", Now);

    private static async Task<(Adoption, SurveyView, AdoptionFindings, Core.Estates.Estate)> FindAsync(string account)
    {
        using var simulation = new DemoSimulation();
        var adoption = new Adoption(
            "found", "found", "1.0", "Found: \"quoted\", and more", "fennmoor",
            [new AdoptedAccount("one", account, "was there before us", "service")]);
        await Survey(); // hosts that restart answer the second time
        var view = AllEngines.View(await Survey());
        return (adoption, view, AdoptionFinder.Find(adoption, view, new NeedsIndex([]), simulation.Estate), simulation.Estate);

        Task<Core.Surveys.Survey> Survey() =>
            EstateSurveyor.TakeAsync(
                simulation.Estate, simulation.Connectors, new SurveyAims([account, "Domain Admins"], []), TimeProvider.System,
                _ => { }, TestContext.Current.CancellationToken);
    }

    private List<Judgement> Judge(
        Adoption adoption, SurveyView view, AdoptionFindings findings, Core.Estates.Estate estate, Dictionary<string,
        AdoptionAnswer> answers)
    {
        var draft = AdoptionDraft.Make(adoption, findings, answers, estate);
        var (text, wish) = (DraftWriter.Sheet(draft), DraftWriter.Install(draft));
        output.WriteLine(text);
        var (sheet, faults) = SheetReader.Read(Encoding.UTF8.GetBytes(text), "found.yaml");
        faults.ShouldBeEmpty();
        var (install, installFaults) = InstallReader.Read(Encoding.UTF8.GetBytes(wish), "found-install.yaml");
        installFaults.ShouldBeEmpty();
        var (plan, planFaults) = Planner.Make(
            sheet!, estate, install!, NameIndex.Empty with { Schema = view.Tree?.Schema ?? BuiltInSchema.Schema });
        planFaults.ShouldBeEmpty();
        return [.. new FitJudge(
            view, new NeedsIndex([plan!]), estate.Rules,
            new Present(DateTimeOffset.UtcNow)).Judge(plan!).Accounts.SelectMany(a => a.Judgements)];
    }
}
