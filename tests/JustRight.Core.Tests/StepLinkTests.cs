using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests;

/// <summary>What hangs on what: a step needs what others make, and one that is blocked stops only what hangs on it.</summary>
public sealed class StepLinkTests
{
    private const string D = "FENNMOOR";
    private const string Poller = @"FENNMOOR\svc-poller";
    private const string Services = "OU=Services,DC=fennmoor,DC=example";
    private static readonly Origin Line = new("sheet.yaml", 7, 9);

    public static TheoryData<string, Change[], string> Lists => new()
    {
        {
            "what is made in a branch, and who is put into what is made",
            [
                new CreateBranch(D, Services), new CreateBranch(D, $"OU=Probes,{Services}"),
                new CreateGroup(D, "g-ops", $"CN=g-ops,{Services}", GroupScope.Global, ""),
                new CreateAccount(D, "svc-poller", $"CN=svc-poller,OU=Probes,{Services}", "svc-poller@x", "", true),
                new AddMember(D, "g-ops", "svc-poller"), new AddMember(D, "Backup Operators", "svc-poller"),
            ],
            "1: | 2: 1 | 3: 1 | 4: 2 | 5: 3 4 | 6: 4"
        },
        {
            "a service runs as an account that may log on, and restarts when it is set",
            [
                new CreateAccount(D, "svc-poller", $"CN=svc-poller,{Services}", "svc-poller@x", "", true),
                new GrantLogonRight("fm-temp01", "service", Poller), new GrantLogonRight("fm-temp02", "service", Poller),
                new SetServiceAccount("fm-temp01", "Poll", Poller, "LocalSystem"),
                new RestartService("fm-temp01", "Poll", Poller),
            ],
            "1: | 2: 1 | 3: 1 | 4: 1 2 | 5: 4"
        },
        {
            "a policy's list counts after a refresh of its hosts",
            [
                new ChangePolicyList(
                    D, "{1}", "Jobs", "SeServiceLogonRight", ["*S-1-5-32-544", "svc-poller"], ["*S-1-5-32-544"], Poller,
                    ["fm-temp01"]),
                new RefreshPolicy("fm-temp01") { Expect = [new ExpectedHolder("SeServiceLogonRight", Poller, true)] },
                new RefreshPolicy("fm-temp02") { Expect = [new ExpectedHolder("SeServiceLogonRight", Poller, true)] },
                new SetServiceAccount("fm-temp01", "Poll", Poller, "LocalSystem"),
            ],
            "1: | 2: 1 | 3: | 4: 2"
        },
        {
            "a login before its users, and a user before what it holds",
            [
                new CreateLogin("fm-sql01", Poller), new CreateDatabaseUser("fm-sql01", "Store", Poller),
                new AddInstanceRoleMember("fm-sql01", "dbcreator", Poller),
                new AddDatabaseRoleMember("fm-sql01", "Store", "db_datareader", Poller),
                new GrantDatabasePermission("fm-sql01", "Other", "SELECT", null, Poller), new CreateLogin("fm-sql02", Poller),
            ],
            "1: | 2: 1 | 3: 1 | 4: 2 | 5: 1 | 6:"
        },
        {
            "a user goes after what it holds, a login after its users, an account after all",
            [
                new DisableAccount(D, "svc-poller"), new RemoveDatabaseRoleMember("fm-sql01", "Store", "db_datareader", Poller),
                new RemoveLocalGroupMember("fm-temp01", "Administrators", Poller),
                new DropDatabaseUser("fm-sql01", "Store", Poller),
                new DropLogin("fm-sql01", Poller), new DeleteAccount(D, "svc-poller", $"CN=svc-poller,{Services}"),
            ],
            "1: | 2: | 3: | 4: 2 | 5: 4 | 6: 1 3 5"
        },
    };

    [Theory]
    [MemberData(nameof(Lists))]
    public void A_step_hangs_on_those_that_make_what_it_needs(string what, Change[] changes, string links)
    {
        var linked = Step.Linked([.. changes.Select((c, i) => Of(i + 1, c))]);
        string.Join(" | ", linked.Select(s => $"{s.Number}: {string.Join(' ', s.HangsOn)}".TrimEnd())).ShouldBe(links, what);
    }

    [Fact]
    public void What_is_blocked_stops_only_what_hangs_on_it()
    {
        Change[] changes =
        [
            new CreateAccount(D, "svc-poller", $"CN=svc-poller,{Services}", "svc-poller@x", "", true),
            new AddLocalGroupMember("fm-temp01", "Administrators", Poller),
            new SetServiceStart("fm-temp01", "Poll", ServiceStart.Automatic, ServiceStart.Manual),
            new AddLocalGroupMember("fm-temp01", "Administrators", @"FENNMOOR\svc-other"),
        ];
        var list = new Worklist([.. changes.Select((c, i) => Of(i + 1, c))], [], [], []);
        list.Blocking(c => c is DirectoryChange ? "the directory is only read here" : null).Give.Select(s => s.Blocked).ShouldBe(
        [
            "the directory is only read here",
            @"it hangs on a step that is blocked: create the account FENNMOOR\svc-poller",
            null,
            null,
        ]);
    }

    private static Step Of(int number, Change change) => new(number, change, [], "", null, Line);
}
