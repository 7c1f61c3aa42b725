using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.Tests;

/// <summary>A survey reads every part, and notes each that fails without losing the others. The stand-ins fail where a real thing would be hard to make fail.</summary>
public sealed class EstateSurveyorTests
{
    private static readonly Origin Line = new("estate.yaml", 1, 1);

    [Fact]
    public async Task A_part_that_fails_is_noted_with_its_reason_and_the_others_are_read()
    {
        var survey = await TakeAsync(new Directory(), new Hosts("fm-temp02"), null);
        survey.Directory.Unread.ShouldBeNull();
        survey.Hosts.Single(h => h.Name == "fm-temp01").Unread.ShouldBeNull();
        survey.Hosts.Single(h => h.Name == "fm-temp02").Unread.ShouldBe("fm-temp02 does not answer");
        survey.Hosts.Single(h => h.Name == "fm-far").Unread.ShouldBe("the estate says that fm-far is not reached (reach: none)");
        survey.Instances.ShouldHaveSingleItem().Unread.ShouldBe("the estate says that fm-sql01 is not reached (reach: none)");
        survey.UnreadParts().Select(c => c.Place).ShouldBe(["fm-temp02", "fm-far", "fm-sql01"]);
    }

    [Fact]
    public async Task A_directory_that_fails_does_not_lose_the_hosts()
    {
        var survey = await TakeAsync(new Directory { Failure = "no answer" }, new Hosts(), null);
        survey.Directory.Unread.ShouldBe("no answer");
        survey.Hosts.Single(h => h.Name == "fm-temp01").Unread.ShouldBeNull();
    }

    [Fact]
    public async Task Forbidden_groups_and_names_are_asked_for_wherever_they_are_once_each()
    {
        var directory = new Directory();
        await TakeAsync(directory, new Hosts(), null);
        directory.Asked!.Names.ShouldBe(["svc-poller", "domain admins"]);
    }

    [Fact]
    public async Task Progress_names_each_place_once()
    {
        var places = new List<string>();
        await TakeAsync(new Directory(), new Hosts(), p => places.Add($"{p.Done}/{p.Total} {p.Place}"));
        places[0].ShouldBe("0/5 fennmoor.example");
        places[^1].ShouldBe("4/5 fm-sql01");
        places.Select(p => p[..3])
            .ShouldBe(["0/5", "1/5", "2/5", "3/5", "4/5"], "the count goes up by one, in whatever order the hosts answer");
        places[1..4].Select(p => p[4..]).Order().ShouldBe(["fm-far", "fm-temp01", "fm-temp02"]);
    }

    private static Task<Survey> TakeAsync(Directory directory, Hosts hosts, Action<SurveyProgress>? progress)
    {
        var estate = new Estate(
            "fennmoor", "Fennmoor", new Domain("fennmoor.example", "FENNMOOR"), new DirectoryReach(
                Reach.Simulation, null, 636, null, null, null, Line),
            [new Branch("x", DistinguishedName.Parse("OU=x,DC=fennmoor,DC=example"), Line)],
            new Naming("", "", "", "x", "x", new Dictionary<string, string>(), new Dictionary<string, Origin>(), Line),
            [
                new EstateHost("fm-temp01", Reach.Simulation, Line), new EstateHost("fm-temp02", Reach.Simulation, Line),
                new EstateHost("fm-far", Reach.None, Line)],
            [new EstateInstance("fm-sql01", "fm-temp01", "sqlserver", null, Reach.Simulation, Line)],
            new OrganizationRules([new ForbiddenHolding("Domain Admins", null, [], null, "rule", Line)], null, []), Line);
        return EstateSurveyor.TakeAsync(
            estate,
            new EstateConnectors(
                directory, new HostRouter(estate, new Dictionary<Reach, IHostConnector> { [Reach.Simulation] = hosts }),
                new InstanceRouter(estate, null, new Dictionary<string, IInstanceConnector>())),
            new SurveyAims(["svc-poller", "domain admins", "SVC-POLLER"], []), TimeProvider.System, progress ?? (_ => { }),
            TestContext.Current.CancellationToken);
    }

    private sealed class Directory : IDirectoryConnector
    {
        public string? Failure { get; init; }

        public DirectoryScope? Asked { get; private set; }

        public Task<DirectorySnapshot> ReadAsync(DirectoryScope scope, CancellationToken cancel)
        {
            Asked = scope;
            return Failure is null
                ? Task.FromResult(new DirectorySnapshot(
                    "FENNMOOR", Sid.Parse("S-1-5-21-1-2-3"), "dc", DateTimeOffset.UnixEpoch, [], [], null))
                : Task.FromException<DirectorySnapshot>(new ConnectorException(ConnectorFailure.Unreachable, Failure));
        }

        public Task<DirectorySchema> SchemaAsync(CancellationToken cancel) => throw new NotSupportedException();

        public Task<IReadOnlyList<Core.Replicas.ReplicaObject>> ReadReplicasAsync(string dn, CancellationToken cancel) =>
            throw new NotSupportedException();

        public Task<Core.Replicas.AccountUse> ReadUseAsync(string account, CancellationToken cancel) =>
            throw new NotSupportedException();

        public Task<IReadOnlySet<string>> NamesInUseAsync(IReadOnlyCollection<string> names, CancellationToken cancel) =>
            throw new NotSupportedException();

        public Task<Observation> ObserveAsync(DirectoryChange change, CancellationToken cancel) =>
            throw new NotSupportedException();

        public Task MakeAsync(DirectoryChange change, NewPassword? password, CancellationToken cancel) =>
            throw new NotSupportedException();
    }

    private sealed class Hosts(params string[] failing) : IHostConnector
    {
        public Task<HostSnapshot> ReadAsync(string host, CancellationToken cancel) => failing.Contains(host)
            ? Task.FromException<HostSnapshot>(new ConnectorException(ConnectorFailure.Unreachable, $"{host} does not answer"))
            : Task.FromResult(new HostSnapshot(host, DateTimeOffset.UnixEpoch, null, [], [], []));

        public Task<Observation> ObserveAsync(HostChange change, CancellationToken cancel) => throw new NotSupportedException();

        public Task MakeAsync(HostChange change, NewPassword? password, CancellationToken cancel) =>
            throw new NotSupportedException();
    }
}
