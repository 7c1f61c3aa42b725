using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Simulation.Laying;

namespace JustRight.Service.Features.Rehearsals;

/// <summary>
/// Plays the setup of a product in a rehearsal: what its sheet says that setup makes and gives is there in the simulation, and
/// the
/// install is installed. No run of ours does that, and none can undo it.
/// </summary>
internal sealed class SetupPlay(
    Library library, FitService fitService, SimulationStore simulations, ConnectorStore connectorStore, SecretGate gate,
    TimeProvider time)
{
    /// <summary>Plays the setup of an install.</summary>
    public async Task<SetupPlayedView> PlayAsync(DocumentRow install, string who, CancellationToken cancel)
    {
        var (plan, estate) = await fitService.PlanAsync(install.Name, cancel);
        var connectors = await connectorStore.OpenAsync(estate, cancel);
        simulations.Open(estate).Change(state => EstateState.LaySetup(state, estate, plan));
        var (made, left) = (new List<string>(), new List<string>());
        foreach (var step in await StepsAsync(plan, estate, connectors, left, cancel))
        {
            try
            {
                await connectors.MakeAsync(step.Change, await PasswordAsync(estate, step.Change, cancel), cancel);
                made.Add(step.Change.Words);
            }
            catch (ConnectorException e)
            {
                left.Add($"{step.Change.Words}: {e.Message}");
            }
        }

        var text = StageLine(install);
        await library.SaveTogetherAsync(
            [new NewDocument(Library.InstallKind, install.Name, install.File, text)], _ => { },
            new LogSaid("rehearse", install.Name, $"setup played: {made.Count} made, {left.Count} left"), who, cancel);
        return new SetupPlayedView(install.Name, made, left);
    }

    /// <summary>The steps that would give what setup gives, if it were ours to give.</summary>
    private async Task<IReadOnlyList<Step>> StepsAsync(
        Plan plan, Estate estate, EstateConnectors connectors, List<string> left, CancellationToken cancel)
    {
        var ofSetup = plan.Grants.Where(g => g.GivenBy == GivenBy.Setup).Select(g => g.Id).ToHashSet(StringComparer.Ordinal);
        var ours = plan with
        {
            Stage = Stage.Installed,
            Grants = [.. plan.Grants.Select(g => g with { GivenBy = GivenBy.Us, MadeBySetup = false })],
        };
        var view = AllEngines.View(await EstateSurveyor.TakeAsync(
            estate, connectors, new SurveyAims([], []), time, _ => { }, cancel));
        var needs = new NeedsIndex([ours]);
        var fit = new FitJudge(view, needs, estate.Rules, new Present(time.GetUtcNow())).Judge(ours);
        var steps = WorklistMaker.Make(fit, view, needs, null).Give;
        var wanted = new HashSet<int>();
        foreach (var step in steps.Where(s => s.For.Any(ofSetup.Contains))) Want(step);
        var absent = steps.Where(s => s.Change is CreateAccount or CreateGroup).Select(s => s.Number).ToHashSet();
        foreach (var step in steps)
        {
            if (!absent.Contains(step.Number) && !step.HangsOn.Any(absent.Contains) && step.Blocked is null) continue;
            absent.Add(step.Number);
            if (wanted.Remove(step.Number) && step.For.Any(ofSetup.Contains))
                left.Add(
                    $"{step.Change.Words}: {step.Blocked ?? $"what it needs is not there yet: justright grant {plan.Install}"}");
        }

        return [.. steps.Where(s => wanted.Contains(s.Number))];

        void Want(Step step)
        {
            if (!wanted.Add(step.Number)) return;
            foreach (var on in step.HangsOn) Want(steps.First(s => s.Number == on));
        }
    }

    private async Task<NewPassword?> PasswordAsync(Estate estate, Change change, CancellationToken cancel) =>
        AskedPasswords.Of(change) is { } account
            ? await gate.PasswordOfAsync(PasswordSubject.Of(estate, account), null, cancel)
            : null;

    private static string StageLine(DocumentRow install) =>
        Formats.Installs.StageLine.Set(install.Text, Stage.Installed.Word(), install.File) is ({ } text, _) ? text : install.Text;
}
