using JustRight.Contracts;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Traces;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Traces;

/// <summary>Settles what a trace order leaves open: the account of a service, the class, the branch.</summary>
internal sealed class TraceQuestions(Library library, FitService fitService, SurveyStore surveys)
{
    /// <summary>Settles an order, or says what is wrong with it.</summary>
    public async Task<(SettledTrace? Trace, ProblemHttpResult? Problem)> SettleAsync(
        Estate estate, TraceOrder order, CancellationToken cancel)
    {
        if (DirectoryActs.Of(order.Act ?? "") is not { } act)
            return (
                null,
                Problems.Bad(
                    "act", "This is not an act.", string.Join(", ", DirectoryActs.All.Select(a => a.Words)), order.Act,
                    [.. DirectoryActs.All.Select(a => a.Words)]));
        var attributes = order.Attributes ?? [];
        var objects = order.Objects ?? [];
        // given objects are judged as their own class: a class is asked for only where one of it is to be created in them
        var own = objects.Count > 0 && act.Act != DirectoryAct.Create;
        var of = own ? "" : order.Of ?? act.Class ?? "user";
        var start = new Origin("", 0, 0);
        var faults = SheetRules.CheckAct(act, attributes, of, start, "trace").ToList();
        if (faults.Count == 0
            && (await surveys.SchemaAsync(estate.Name, cancel)
                ?? (estate.IsSimulated ? BuiltInSchema.Schema : null)) is { } schema)
            faults.AddRange(DirectoryNeedRules.Check(act, attributes, of, schema, start));
        if (faults.Count > 0) return (null, Problems.Bad(faults));

        var names = await DirectoryNames.OfAsync(
            estate, [order.Account, .. objects, .. order.IfMemberOf ?? []], fitService, surveys, cancel);
        var (account, install, problem) = await AccountAsync(estate, order, names, cancel);
        if (problem is not null) return (null, problem);
        if (objects.Count > 0 && order.Below is not null)
            return (null, Problems.Bad("below", "Either a branch or objects, not both.", "one of them"));
        var below = objects.Count > 0 ? null
            : order.Below is { } named ? names.Branch(named)
            : await NeedBranchAsync(estate, account!, act, install, cancel) ?? estate.Domain.Root;
        if (objects.Count == 0 && below is null)
            return (
                null,
                Problems.Bad(
                    "below", "This is not a branch of the estate.",
                    "a branch of the estate, a distinguished name below the domain, or everywhere", order.Below,
                    [.. estate.Branches.Select(b => b.Key), Estate.WholeDomain]));
        var ifInheriting = new List<string>();
        foreach (var place in order.IfInheriting ?? [])
        {
            if (names.Branch(place) is not { } dn)
                return (
                    null,
                    Problems.Bad(
                        "ifInheriting", "This is not a branch of the estate.", "a branch of the estate or a distinguished name",
                        place, [.. estate.Branches.Select(b => b.Key)]));
            ifInheriting.Add(dn);
        }

        return (
            new SettledTrace(
                account!, act.Words, attributes, of, below, [.. objects.Select(names.Object)],
                [.. (order.IfMemberOf ?? []).Select(names.Principal)], ifInheriting), null);
    }

    private async Task<(string? Account, string? Install, ProblemHttpResult? Problem)> AccountAsync(
        Estate estate, TraceOrder order, DirectoryNames names, CancellationToken cancel)
    {
        if (order.Account is { Length: > 0 } account) return (names.Principal(account), null, null);
        if (order.Service is not { Length: > 0 } service)
            return (null, null, Problems.Bad("account", "Whose rights?", "an account, or the service that fails and its host"));
        var found = new List<(string Account, string Install, string Host)>();
        var known = new List<string>();
        foreach (var row in await library.ListAsync(Library.InstallKind, cancel))
        {
            if (Library.OpenInstall(row) is not ({ } install, _) || install.Estate != estate.Name) continue;
            if (await library.FindAsync(Library.SheetKind, install.Sheet, cancel) is not { } sheetRow) continue;
            if (Library.OpenSheet(sheetRow) is not ({ } sheet, _)) continue;
            known.AddRange(sheet.Services.Select(s => s.Name));
            foreach (var match in sheet.Services.Where(s => string.Equals(s.Name, service, StringComparison.OrdinalIgnoreCase)))
            {
                var (plan, _) = await fitService.PlanAsync(install.Name, cancel);
                var name = plan.Accounts.First(a => a.Key == match.RunsAs).Name;
                found.AddRange(HostsOf(install, match.On).Select(host => (name, install.Name, host)));
            }
        }

        var here = found.Where(f => order.Host is null || string.Equals(f.Host, order.Host, StringComparison.OrdinalIgnoreCase))
            .ToList();
        if (here.Count == 0 && found.Count > 0)
            return (
                null, null,
                Problems.Bad(
                    "host", $"{service} does not run there by any plan.", string.Join(", ", found.Select(f => f.Host).Distinct()),
                    order.Host, [.. found.Select(f => f.Host)]));
        if (here.Count == 0) return (null, null, Problems.NotFound("service", service, known));
        if (here.Select(h => h.Account).Distinct(StringComparer.OrdinalIgnoreCase).Count() > 1)
            return (
                null, null,
                Problems.Bad(
                    "host", $"{service} runs under several accounts: name the host.",
                    string.Join(", ", here.Select(h => $"{h.Host} ({h.Account})").Distinct())));
        return (here[0].Account, here[0].Install, null);
    }

    private static IReadOnlyList<string> HostsOf(Install install, string place) =>
        install.Places.TryGetValue(place, out var binding) ? binding.Values : [];

    /// <summary>The branch for which the account's own plans ask this act, when there is just one.</summary>
    private async Task<string?> NeedBranchAsync(
        Estate estate, string account, DirectoryActRow act, string? install, CancellationToken cancel)
    {
        var branches = (await fitService.PlansOfAsync(estate.Name, cancel))
            .Where(p => install is null || p.Install == install)
            .SelectMany(p =>
                p.Accounts.Where(a => string.Equals(a.Name, account, StringComparison.OrdinalIgnoreCase))
                    .SelectMany(a => p.GrantsOf(a.Key)))
            .Select(g => g.Right.Below).OfType<BranchAsked>().Where(r => r.Act == act.Act).Select(r => r.Branch)
            .Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        return branches.Count == 1 ? branches[0] : null;
    }
}
