using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;

namespace JustRight.Lab.Tests;

/// <summary>The Fennmoor demo from sheet to just right, without the service.</summary>
public sealed class DemoStoryTests(ITestOutputHelper output)
{
    [Fact]
    public async Task Thermograph_becomes_just_right_after_granting_and_removing()
    {
        using var lab = new DemoLab();
        var first = await lab.VerifyAsync("thermograph-dataroom");
        Print(first);
        first.Fit.Leaning.Barred.ShouldBe(1);
        first.Fit.Leaning.Unseen.ShouldBeGreaterThan(0);
        first.Fit.Leaning.Missing.ShouldBeGreaterThan(0);
        first.Fit.Leaning.Later.ShouldBe(2);

        var second = await lab.VerifyAsync("thermograph-dataroom"); // fm-temp02 is back
        second.Fit.Leaning.Unseen.ShouldBe(0);
        await lab.MakeAsync(second.Worklist.Give);
        var third = await lab.VerifyAsync("thermograph-dataroom");
        Print(third);
        third.Fit.Leaning.Missing.ShouldBe(0);
        third.Worklist.Give.ShouldBeEmpty();
        third.Fit.Leaning.TooMuch.ShouldBeTrue();

        await lab.MakeAsync(third.Worklist.Remove);
        var last = await lab.VerifyAsync("thermograph-dataroom");
        Print(last);
        last.Fit.Words.ShouldBe("just right, 3 later");
        last.Worklist.Remove.ShouldBeEmpty();
    }

    [Fact]
    public async Task Tallystick_shows_a_denial_that_no_grant_mends()
    {
        using var lab = new DemoLab();
        var first = await lab.VerifyAsync("tallystick-dataroom");
        Print(first);
        var denied = first.Fit.Accounts.Single(a => a.Account.Key == "counter").Judgements.Single(j => j.DeniedBy.Count > 0);
        denied.Reason.ShouldBe("denied by FENNMOOR\\no-service-hosts");
        first.Worklist.Give.ShouldNotContain(s => s.Change is GrantLogonRight);
    }

    [Fact]
    public async Task Roundsman_is_stopped_by_a_branch_that_does_not_inherit_until_it_is_mended()
    {
        using var lab = new DemoLab();
        var first = await lab.VerifyAsync("roundsman-dataroom");
        Print(first);
        first.Fit.Words.ShouldBe("3 missing, 1 barred");
        first.Worklist.Give.Count(s => s.Change is AddAccessRule).ShouldBe(3);
        await lab.MakeAsync(first.Worklist.Give);
        var second = await lab.VerifyAsync("roundsman-dataroom");
        Print(second);
        await lab.MakeAsync(second.Worklist.Remove);
        var third = await lab.VerifyAsync("roundsman-dataroom");
        Print(third);
        third.Fit.Words.ShouldBe("1 missing");
        var branch = third.Fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Unmet).Branch!;
        (branch.Can, branch.Cannot, branch.Failures.Single().At.Single()).ShouldBe((17, 9, "OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example"));
        third.Worklist.Give.ShouldBeEmpty();
        third.Worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("trace it");
    }

    private void Print((InstallFit Fit, Worklist Worklist) result)
    {
        output.WriteLine($"== {result.Fit.Words}");
        foreach (var judgement in result.Fit.Accounts.SelectMany(a => a.Judgements))
            output.WriteLine($"{judgement.Verdict,-7} {judgement.Account,-10} {judgement.Right} [{judgement.Reason}] {judgement.Paths.FirstOrDefault()} {string.Join("; ", judgement.Brings)}");
        foreach (var finding in result.Fit.Findings) output.WriteLine($"finding {finding.Place}: {finding.Text}");
        foreach (var step in result.Worklist.Give) output.WriteLine($"give {step.Number} {step.Change.Words} {step.Blocked}");
        foreach (var step in result.Worklist.Remove) output.WriteLine($"remove {step.Number} {step.Change.Words} {step.Why}");
        foreach (var left in result.Worklist.NotOffered) output.WriteLine($"not offered {left.For}: {left.Reason}");
    }
}

/// <summary>A lab of its own for a test, with the demo's sheets, estate and installs.</summary>
internal sealed class DemoLab : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-lab-").FullName;
    private readonly Estate _estate;

    public DemoLab()
    {
        File = LabFile.Open(Path.Combine(_folder, "lab.json"), Path.Combine(DemoData, "lab", "fennmoor.json"));
        Connectors = new EstateConnectors(new LabDirectory(File, TimeProvider.System), new LabHosts(File, TimeProvider.System), new LabInstances(File, TimeProvider.System));
        var (estate, faults) = EstateReader.Read(Bytes("estates/fennmoor.yaml"), "fennmoor.yaml");
        faults.ShouldBeEmpty();
        _estate = estate!;
    }

    public static string DemoData => Path.Combine(Checkout.Top, "demo-data");

    public LabFile File { get; }

    public EstateConnectors Connectors { get; }

    public async Task<(InstallFit Fit, Worklist Worklist)> VerifyAsync(string name)
    {
        var install = InstallReader.Read(Bytes($"installs/{name}.yaml"), name).Install!;
        var plan = PlanOf(install);
        var survey = await EstateSurveyor.TakeAsync(_estate, Connectors, new SurveyAims([.. plan.Accounts.Select(a => a.Name)], []), TimeProvider.System, _ => { }, TestContext.Current.CancellationToken);
        var view = new SurveyView(survey);
        var needs = new NeedsBook([plan]);
        var fit = new FitJudge(view, needs, _estate.Rules, DateTimeOffset.UtcNow).Judge(plan);
        return (fit, WorklistMaker.Make(fit, view, needs));
    }

    public async Task MakeAsync(IReadOnlyList<Step> steps)
    {
        foreach (var step in steps)
        {
            await Connectors.MakeAsync(step.Change, step.Change is CreateAccount ? NewPassword.Generate() : null, TestContext.Current.CancellationToken);
            (await Connectors.ObserveAsync(step.Change, TestContext.Current.CancellationToken)).State.ShouldBe(ObservedState.Done, step.Change.Words);
        }
    }

    public void Dispose() => Directory.Delete(_folder, true);

    private static byte[] Bytes(string path) => System.IO.File.ReadAllBytes(Path.Combine(DemoData, path));

    private Plan PlanOf(Install install)
    {
        var (sheet, faults) = SheetReader.Read(Bytes($"sheets/{install.Product}.yaml"), install.Product + ".yaml");
        faults.ShouldBeEmpty();
        var (plan, planFaults) = Planner.Make(sheet!, _estate, install, NameBook.Empty);
        planFaults.ShouldBeEmpty();
        return plan!;
    }
}
