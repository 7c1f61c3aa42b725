using JustRight.Core.Changes;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Databases;

/// <summary>
/// Whom a database goes to that an account owns which shall not: whom the organization names, if that can own it.
/// </summary>
public sealed class NewOwnerTests
{
    private const string Poller = @"FENNMOOR\svc-poller", Dba = @"FENNMOOR\svc-dba";

    [Theory]
    [InlineData("sa")]
    [InlineData(Dba)]
    public void It_goes_to_whom_the_organization_names_and_undone_comes_back(string owner)
    {
        var change = Scene(owner, dbaIsUser: false).Run().Worklist.Remove.Select(s => s.Change).OfType<ChangeDatabaseOwner>()
            .ShouldHaveSingleItem();
        change.ShouldBe(new ChangeDatabaseOwner("fm-sql01", "Store", owner, Poller));
        change.Inverse.ShouldBe(new ChangeDatabaseOwner("fm-sql01", "Store", Poller, owner));
    }

    [Theory]
    [InlineData(null, false,
        "only the organization can choose another owner: name one under rules: new-owners: { fm-sql01: … }")]
    [InlineData(@"FENNMOOR\svc-nobody", false, @"FENNMOOR\svc-nobody cannot own fm-sql01/Store: it has no login at fm-sql01")]
    [InlineData(Dba, true, @"FENNMOOR\svc-dba cannot own fm-sql01/Store: it is a user there, and an owner cannot be one too")]
    public void Whom_nobody_named_or_who_cannot_own_it_is_told(string? owner, bool dbaIsUser, string reason)
    {
        var (_, worklist) = Scene(owner, dbaIsUser).Run();
        worklist.Remove.ShouldNotContain(s => s.Change is ChangeDatabaseOwner);
        worklist.NotOffered.Select(n => n.Reason).ShouldContain(reason);
    }

    private static FitScene Scene(string? owner, bool dbaIsUser)
    {
        var scene = new FitScene
        {
            Rules = new OrganizationRules([], null, [])
            {
                NewOwners = owner is null ? new Dictionary<string, string>() : new() { ["fm-sql01"] = owner },
            },
        };
        scene.Account().Account("svc-dba", planned: false).Instance("fm-sql01", []);
        return scene.OfInstance("fm-sql01", i => i with
        {
            Logins = [new(scene.SidOf("svc-poller"), Poller), new(scene.SidOf("svc-dba"), Dba)],
            Databases = [.. i.Databases.Select(d => d with
            {
                Owner = scene.SidOf("svc-poller"),
                Users = dbaIsUser ? [new InstanceLogin(scene.SidOf("svc-dba"), Dba)] : [],
            })],
        });
    }
}
