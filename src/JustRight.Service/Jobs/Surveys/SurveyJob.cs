using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Surveys;
using JustRight.Service.Data.Adoptions;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Summaries;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Notifications;
using JustRight.Service.Jobs.Queue;

namespace JustRight.Service.Jobs.Surveys;

/// <summary>Takes a survey of an estate, for itself or to verify an install.</summary>
internal sealed class SurveyJob(
    Library library, FitService fitService, DriftKeeper drift, ConnectorStore connectors, SurveyStore surveys, PeopleStore people,
    AdoptionStore adoptions, SummaryKeeper summaries, JobFeed feed, LogStore log, TimeProvider time) : IJobHandler
{
    /// <inheritdoc/>
    public IReadOnlyList<JobKind> Kinds => [JobKind.Survey, JobKind.Verify];

    /// <inheritdoc/>
    public async Task<JobOutcome> RunAsync(AppDb db, JobRow job, CancellationToken cancel)
    {
        var estate = job.Kind == JobKind.Survey
            ? Library.ReadEstate((await library.FindAsync(Library.EstateKind, job.Subject, cancel))!)
            : (await fitService.PlanAsync(job.Subject, cancel)).Estate;
        await TakeAsync(estate, job.Id, job.StartedBy, cancel);
        if (job.Kind == JobKind.Survey) return JobOutcome.Done($"{estate.Name} was surveyed");
        var judged = await fitService.JudgeAsync(job.Subject, cancel);
        await log.AddAsync(job.StartedBy, "verify", job.Subject, judged!.Fit.Words, cancel);
        return JobOutcome.Done(judged.Fit.Words);
    }

    /// <summary>
    /// Reads the people of each directory that they sign in with; what cannot be read is kept as unread, with the reason.
    /// </summary>
    private async Task ReadPeopleAsync(Estate estate, string job, CancellationToken cancel)
    {
        foreach (var directory in estate.PeopleDirectories)
        {
            feed.Tell(job, new JobEvent(JobState.Running.Word(), 0, 0, $"reading the people of {directory.Key}", null));
            var readAs = directory.SignInAs ?? (directory.Reach == Reach.Simulation ? "the simulation" : "");
            PeopleSnapshot snapshot;
            try
            {
                using var session = await connectors.OpenPeopleForSurveyAsync(estate, directory, cancel);
                snapshot = await Task.Run(
                    () => PeopleSurvey.Read(
                        session, directory, readAs, time.GetUtcNow(),
                        count => feed.Tell(
                            job,
                            new JobEvent(
                                JobState.Running.Word(), 0, 0, $"reading the people of {directory.Key}: {count} so far", null))),
                    cancel);
            }
            catch (ConnectorException e)
            {
                snapshot = PeopleSnapshot.NotRead(directory.Key, directory.Family, readAs, time.GetUtcNow(), e.Message);
            }

            await people.SaveAsync(estate.Name, snapshot, cancel);
        }
    }

    /// <summary>Settles names and reads the estate.</summary>
    public async Task TakeAsync(Estate estate, string job, string who, CancellationToken cancel)
    {
        var reach = await connectors.OpenAsync(estate, cancel);
        try
        {
            await fitService.SettleNamesAsync(estate, reach, cancel);
        }
        catch (ConnectorException)
        {
            // The survey below meets the same failure and records it as unseen; names stay unsettled.
        }

        var plans = await fitService.PlansOfAsync(estate.Name, cancel);
        var names = plans.SelectMany(p =>
            p.Accounts.Select(a => a.Name).Concat(p.Groups.Select(g => g.Name))
                .Concat(p.Forbidden.Select(b => b.Group).Where(g => g.Length > 0))
                .Concat(p.SignIn?.Memberships.Where(m => m.Placed).Select(m => m.Member) ?? []))
            .ToList();
        names.AddRange(plans.SelectMany(p => p.Grants).Select(g => g.Right.DomainGroup).OfType<string>());
        names.AddRange((await adoptions.ListAsync(cancel)).Where(a => a.Adoption.Estate == estate.Name).SelectMany(a =>
            a.Adoption.Accounts.Select(o => o.Name)));
        names.AddRange(estate.Rules.Forbidden.Select(b => b.Group).OfType<string>());
        // A group managed account is of use only where the host's computer account may fetch its password.
        if (names.Any(n => n.EndsWith('$'))) names.AddRange(estate.Hosts.Select(h => ServiceIdentity.ComputerAccount(h.Name)));
        // Where a host's computer account stands decides which policies govern it; and it may stand in for an account of ours.
        names.AddRange(plans.SelectMany(p =>
            p.Grants.Select(g => g.Right.OnHost).OfType<string>()
                .Concat(p.Services.Select(s => s.Host))).Distinct(StringComparer.OrdinalIgnoreCase)
            .Select(ServiceIdentity.ComputerAccount));
        var branches = plans.SelectMany(p => p.Grants).Select(g => g.Right.Below?.Branch).OfType<string>()
            .Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        var survey = await EstateSurveyor.TakeAsync(
            estate, reach, new SurveyAims(names, branches)
            {
                ServiceNames = [.. plans.SelectMany(p => p.Grants).Select(g => g.Right.ServiceNameAsked).OfType<string>()],
            }, time, p =>
                feed.Tell(job, new JobEvent(JobState.Running.Word(), p.Done, p.Total, $"reading {p.Place}", null)), cancel);
        var fits = await summaries.SurveyedAsync(estate.Name, () => surveys.SaveAsync(survey, cancel), cancel);
        await drift.KeepAsync(estate, fits, who, cancel);
        await surveys.LetGoAsync(estate.Name, cancel);
        await ReadPeopleAsync(estate, job, cancel);
        var unseen = survey.UnreadParts().Count();
        await log.AddAsync(
            who, "survey", estate.Name,
            unseen == 0 ? "everything was read" : $"{unseen} {(unseen == 1 ? "part" : "parts")} could not be read", cancel);
    }
}
