using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Bench;

/// <summary>A made-up instance: 5,000 logins, 300 roles, 200 databases with 500 users each, and one install whose hundred accounts need something of it.</summary>
internal sealed class SyntheticInstance(double size)
{
    private const int Accounts = 100;
    private static readonly Sid DomainSid = Sid.Parse("S-1-5-21-1-2-3");
    private static readonly Origin Line = new("synthetic.yaml", 1, 1);
    private static readonly DateTimeOffset At = new(2026, 11, 25, 0, 0, 0, TimeSpan.Zero);
    private readonly int _logins = (int)(5_000 * size);
    private readonly int _databases = (int)(200 * size);

    /// <summary>The plan: each account needs a permission of the instance, and a role and a permission in a database.</summary>
    public Plan Plan()
    {
        var accounts = Enumerable.Range(0, Accounts)
            .Select(i => new PlannedAccount($"a{i}", Name(i), null, "", "", WorksAs.Service, false, true, Line)).ToList();
        var grants = accounts.SelectMany((a, i) => new Right[]
        {
            new InstancePermissionRight("i", "VIEW SERVER STATE"), new DatabaseRoleRight(
                "i", Database(i % _databases), "db_datareader"), new DatabasePermissionRight(
                "i", Database(i % _databases), "EXECUTE", "SCHEMA::s"),
        }.Select(r =>
            new PlannedGrant(
                $"{a.Key}/{r.Key}", a.Key, r, "store", null, GivenBy.Us, Until.Always, Team.Database, null, null,
                Line))).ToList();
        return new Plan(
            "bases", "sample@1", "Sample", "synthetic", "FENNMOOR", "fennmoor.example", Stage.Installed, [], [], accounts, grants,
            [], [], []);
    }

    /// <summary>The survey: half the logins are groups with ten members.</summary>
    public Survey Survey()
    {
        var principals = Enumerable.Range(0, _logins).Select(i => i % 2 == 0
            ? new DirectoryPrincipal(SidOf(i), PrincipalKind.User, Name(i), $"CN={Name(i)},DC=x")
            : new DirectoryPrincipal(
                SidOf(i), PrincipalKind.Group, Name(i),
                $"CN={Name(i)},DC=x")
            {
                Members = [.. Enumerable.Range(1, 10).Select(m =>
                    SidOf(((i * 7) + (m * 2)) % _logins / 2 * 2))]
            }).ToList();
        var directory = new DirectorySnapshot("FENNMOOR", DomainSid, "dc", At, principals, [], null);
        var logins = Enumerable.Range(0, _logins).Select(i => new InstanceLogin(SidOf(i), Name(i))).ToList();
        var roles = Enumerable.Range(0, 300)
            .Select(r =>
                new RoleMembers(
                    $"role{r}", [.. Enumerable.Range(0, 10).Select(m => SidOf(((r * 17) + m) % _logins))],
                    r % 3 == 0 && r > 0 ? [$"role{r - 1}"] : []))
            .ToList();
        var instance = new InstanceSnapshot(
            "i", "sqlserver", At, null, logins, roles, [.. Enumerable.Range(0, _databases).Select(Read)])
        {
            Permissions = [
                .. Enumerable.Range(0, 300)
                    .Select(r => new PermissionEntry("VIEW SERVER STATE", PermissionState.Grant, default, $"role{r}")),
                new PermissionEntry("VIEW ANY DATABASE", PermissionState.Grant, default, "public")],
        };
        return new Survey("synthetic", At, false, directory, [], [instance]);
    }

    private DatabaseSnapshot Read(int number)
    {
        var users = Enumerable.Range(0, 500).Select(u => ((number * 31) + u) % _logins).Distinct().ToList();
        return new DatabaseSnapshot(
            Database(number), SidOf(number), null, [.. users.Select(u => new InstanceLogin(SidOf(u), Name(u)))],
            [
                new RoleMembers("db_datareader", [.. users.Take(250).Select(SidOf)], []),
                new RoleMembers("db_datawriter", [.. users.Skip(250).Select(SidOf)], [])])
        {
            Permissions = [
                .. users.Take(100)
                    .Select(u => new PermissionEntry("EXECUTE", PermissionState.Grant, SidOf(u), null) { On = "SCHEMA::s" }),
                new PermissionEntry("SELECT", PermissionState.Deny, SidOf(users[0]), null)],
        };
    }

    private static Sid SidOf(int number) => DomainSid.Append((uint)(1_000 + number));

    private static string Name(int number) => string.Create(CultureInfo.InvariantCulture, $"p{number:00000}");

    private static string Database(int number) => string.Create(CultureInfo.InvariantCulture, $"db{number:000}");
}
