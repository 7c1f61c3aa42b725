using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.Runs;
using JustRight.Core.SecretUses;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Jobs.Surveys;
using JustRight.Service.Jobs.Traces;

namespace JustRight.Service.Jobs.Runs;

/// <summary>Opens the estate of runs of changes: of a worklist, of a remedy, of a protection.</summary>
internal sealed class ChangeWorks(
    Library library, FitService fitService, TraceJob traces, ConnectorStore connectorStore, SecretStore secrets, SecretGate gate,
    SurveyJob surveys) : IRunWorks
{
    /// <inheritdoc/>
    public IReadOnlyList<JobKind> Kinds => [JobKind.Grant, JobKind.Fix, JobKind.Protect];

    /// <summary>The work of a run, also of one that undoes another.</summary>
    public async Task<IRunWork> OpenAsync(JobRow job, CancellationToken cancel)
    {
        var ofInstall = await library.FindAsync(Library.InstallKind, job.Subject, cancel) is not null && job.OrderJson is null;
        var estate = ofInstall
            ? (await Fits.PlanAsync(job.Subject, cancel)).Estate
            : Library.ReadEstate((await library.FindAsync(Library.EstateKind, job.Subject, cancel))!);
        return new Work(this, job, ofInstall, estate, await connectorStore.OpenAsync(estate, cancel));
    }

    private sealed class Work(ChangeWorks all, JobRow job, bool ofInstall, Estate estate, EstateConnectors connectors) : IRunWork
    {
        private NewPassword? _password;

        public Estate Estate => estate;

        public Task BeginAsync(CancellationToken cancel) => Task.CompletedTask; // each step is looked at anyway

        public async Task<Looked> LookAsync(StepRow step, bool begun, CancellationToken cancel)
        {
            var change = ChangeOf(step);
            var before = await connectors.ObserveAsync(change, cancel);
            if (before.State == ObservedState.NotDone) _password = await PasswordAsync(change, cancel);
            return new Looked(before.State, before.Seen);
        }

        /// <summary>
        /// A connection may break after the change was made and before that was said: only looking again tells.
        /// </summary>
        public async Task MakeAsync(StepRow step, CancellationToken cancel)
        {
            var change = ChangeOf(step);
            try
            {
                await connectors.MakeAsync(change, _password, cancel);
            }
            catch (ConnectorException e) when (e.Failure == ConnectorFailure.Unreachable)
            {
                try
                {
                    if ((await connectors.ObserveAsync(change, cancel)).State == ObservedState.Done) return;
                }
                catch (ConnectorException)
                {
                    throw new ConnectorException(
                        e.Failure,
                        $"{e.Message} Whether it was made is not known, because it could not be checked: try it again when the "
                        + "place answers; it is checked first.",
                        e);
                }

                throw;
            }
        }

        public async Task<Looked> LookAgainAsync(StepRow step, CancellationToken cancel)
        {
            var after = await connectors.ObserveAsync(ChangeOf(step), cancel);
            return new Looked(after.State, after.Seen);
        }

        public Task<Looked> LookAtSaidAsync(StepRow step, CancellationToken cancel) => LookAgainAsync(step, cancel);

        /// <summary>The estate is read anew, unless more is to come: half a run is no state to judge.</summary>
        public async Task<string> RestAsync(Run run, RunNext next, CancellationToken cancel)
        {
            var left = job.Words is null ? "" : $"; {job.Words.Replace("\n", "; ", StringComparison.Ordinal)}";
            if (next.Wait is not (RunWait.Over or RunWait.Decision))
                return $"{run.Words()}; step {next.Step!.Number} waits for "
                    + (next.Wait == RunWait.Person ? "a person" : "its host's time of restarts") + left;
            await all.Surveys.TakeAsync(estate, job.Id, job.StartedBy, cancel);
            var now = ofInstall ? (await all.Fits.JudgeAsync(job.Subject, cancel))!.Fit.Words
                : job.OrderJson == JobKinds.ProtectionOrder ? null
                : await TraceAgainAsync(cancel);
            return $"{run.Words()}{(now is null ? "" : $"; now {now}")}{left}";
        }

        /// <summary>After fixing, or undoing that, the same question is asked again.</summary>
        private async Task<string> TraceAgainAsync(CancellationToken cancel)
        {
            var again = await all.Traces.TraceAsync(
                job.Id, job.Subject, StoredJson.Read<SettledTrace>(job.OrderJson!), cancel);
            job.ResultJson = StoredJson.Write(again);
            return again.View.Words;
        }

        private async Task<NewPassword?> PasswordAsync(Change change, CancellationToken cancel) => change switch
        {
            CreateAccount account => await all.Secrets.NewPasswordAsync(
                job.Subject, PasswordSubject.Of(estate, $"{account.Domain}\\{account.Name}"), cancel),
            SetServiceAccount { NeedsPassword: true } set =>
                await all.Gate.PasswordOfAsync(
                    PasswordSubject.Of(estate, set.Account),
                    EstateSecretUses.OfServiceAccount(estate, set.Host, set.Account), cancel)
                ?? throw new ConnectorException(
                    ConnectorFailure.SignIn,
                    $"the password of {set.Account} is not known here: set it with justright secret set "
                    + $"{SecretStore.NameFor(set.Account)}, and try again."),
            _ => null,
        };

        private static Change ChangeOf(StepRow step) => ChangeJson.Read(step.ChangeJson!);
    }

    private FitService Fits { get; } = fitService;

    private TraceJob Traces { get; } = traces;

    private SecretStore Secrets { get; } = secrets;

    private SecretGate Gate { get; } = gate;

    private SurveyJob Surveys { get; } = surveys;
}
