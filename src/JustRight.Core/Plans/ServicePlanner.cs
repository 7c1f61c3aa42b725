using JustRight.Core.Engines;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>Lays the services of a sheet over the hosts: what each must run as, when it starts, and what it waits for.</summary>
internal static class ServicePlanner
{
    /// <summary>The services, one for each host of its place.</summary>
    public static IReadOnlyList<PlannedService> Services(Sheet sheet, PlaceMap places) =>
        [.. sheet.Services.SelectMany(s =>
            places[s.On]
                .Select(spot => new PlannedService(s.Name, spot.Host, s.On, s.RunsAs, s.Start, s.After, s.GivenBy, s.At)))];

    /// <summary>What is asked of the services, as grants of the accounts they run as.</summary>
    public static IEnumerable<PlannedGrant> Grants(IEnumerable<PlannedService> services)
    {
        foreach (var service in services)
        {
            yield return Ask(Of(ServiceAspect.Identity), $"{service.Name} runs as it");
            yield return Ask(Of(ServiceAspect.Restarted), $"{service.Name} was restarted as it");
            if (service.Start is { } start)
                yield return Ask(
                    Of(ServiceAspect.Start) with { Start = start }, $"{service.Name} starts {ServiceWords.Of(start)}");
            if (service.After.Count > 0)
                yield return Ask(
                    Of(ServiceAspect.Order) with { After = service.After },
                    $"{service.Name} waits for {string.Join(" and ", service.After)}");

            ServiceAsked Of(ServiceAspect aspect) => new(service.Host, service.Name, aspect);

            PlannedGrant Ask(ServiceAsked asked, string words)
            {
                var right = AllEngines.OfService(asked, words);
                return new PlannedGrant(
                    $"{service.Account}/{right.Key}", service.Account, right, service.Place, null, service.GivenBy, Until.Always,
                    Team.Host, null, null, service.At);
            }
        }
    }
}
