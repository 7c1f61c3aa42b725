using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests;

/// <summary>What implies what, how wide it reaches, who is in which role, and what places give.</summary>
public sealed class RightsTests
{
    private static readonly Sid A = Sid.Parse("S-1-5-21-1-2-3-1001");
    private static readonly Sid B = Sid.Parse("S-1-5-21-1-2-3-1002");

    public static TheoryData<Right, string[]> Implications => new()
    {
        { R.Role("dbcreator"), ["instance-role:sysadmin@fm-sql01"] },
        { R.Role("sysadmin"), [] },
        { R.Db("db_datareader"), ["database-role:db_owner@fm-sql01/store", "instance-role:sysadmin@fm-sql01"] },
        { R.Db("db_owner"), ["instance-role:sysadmin@fm-sql01"] },
        { R.Db("db_denydatareader"), [] }, // nobody is among the denied by power
        { R.Role("pourers"), [] }, // nor in a role that somebody made
        { R.Db("clerks"), [] },
        { R.Db("SQLAgentUserRole", "msdb"), [
            "database-role:sqlagentreaderrole@fm-sql01/msdb", "database-role:sqlagentoperatorrole@fm-sql01/msdb",
            "database-role:db_owner@fm-sql01/msdb", "instance-role:sysadmin@fm-sql01"] },
        { R.Db("SQLAgentOperatorRole", "msdb"), ["database-role:db_owner@fm-sql01/msdb", "instance-role:sysadmin@fm-sql01"] },
        { R.Admin(), [] },
        { R.Service(), [] },
        { R.InGroup("ops"), [] },
    };

    [Theory]
    [MemberData(nameof(Implications))]
    public void Stronger_rights_are_known(Right weak, string[] strong) => weak.Above.Select(r => r.Key).ShouldBe(strong);

    public static TheoryData<Right, Right> Narrower => new()
    {
        { R.Service(), R.Admin() },
        { R.Db("db_datareader"), R.Db("db_owner") },
        { R.Db("db_owner"), R.Role("dbcreator") },
        { R.Role("dbcreator"), R.Role("securityadmin") },
        { R.Role("securityadmin"), R.Role("sysadmin") },
        { R.Db("db_owner"), R.Db("db_owner", "msdb") }, // the system database's owner can become anything
        { R.Role("sysadmin"), R.InGroup("Domain Admins") },
        { R.InGroup("ops"), R.InGroup("Domain Admins") },
    };

    [Theory]
    [MemberData(nameof(Narrower))]
    public void Reach_orders_rights(Right narrow, Right wide)
    {
        narrow.Reach.Points.ShouldBeLessThan(wide.Reach.Points);
        wide.Reach.Reason.ShouldNotBeEmpty();
    }

    [Fact]
    public void Several_small_rights_reach_less_than_one_wide_one_and_more_than_one_of_them()
    {
        var one = RightReach.Together([R.Db("db_datareader")]).Points;
        var two = RightReach.Together([R.Db("db_datareader"), R.Db("db_owner")]).Points;
        two.ShouldBeGreaterThan(one);
        two.ShouldBeLessThan(RightReach.Together([R.Role("sysadmin")]).Points);
        RightReach.Together([]).Points.ShouldBe(0);
    }

    [Fact]
    public void Roles_nest_and_rings_end()
    {
        RoleMembers[] roles = [
            new("inner", [A], []), new("middle", [], ["inner"]), new("outer", [B], ["MIDDLE", "outer"]),
            new("ring", [], ["outer"]), new("outer2", [], ["ring"])];
        var held = RoleClosure.Of(roles).Where(r => r.Sid == A).ToList();
        held.Select(r => r.Role).ShouldBe(["inner", "middle", "outer", "ring", "outer2"]);
        held[2].Steps.Select(s => s.Name).ShouldBe(["inner", "middle"]);
        RoleClosure.Of([new("a", [A], ["b"]), new("b", [], ["a"])]).Select(r => r.Role).ShouldBe(["a", "b"]);
    }

    [Fact]
    public void Rights_are_the_same_whatever_the_case_and_differ_by_place()
    {
        new LocalGroupRight("FM-TEMP01", "administrators").ShouldBe(R.Admin());
        (R.Admin() == R.Admin("fm-temp02")).ShouldBeFalse();
        R.Admin().Kind.ShouldBe(NeedKind.LocalGroup);
        new HashSet<Right> { R.Admin(), new LocalGroupRight("fm-TEMP01", "ADMINISTRATORS") }.Count.ShouldBe(1);
    }

    [Theory]
    [InlineData("SeServiceLogonRight", "service", false)]
    [InlineData("sedenybatchlogonright", "batch", true)]
    [InlineData("SeRemoteInteractiveLogonRight", "remote", false)]
    public void Constants_of_log_on_rights_are_read(string constant, string type, bool denies) =>
        LogonRights.OfConstant(constant).ShouldBe((type, denies));

    [Fact]
    public void A_privilege_is_no_log_on_right_and_an_unknown_type_is_refused()
    {
        LogonRights.OfConstant("SeTcbPrivilege").ShouldBeNull();
        Should.Throw<ArgumentException>(() => LogonRights.Constant("telepathy"));
    }

    [Fact]
    public void A_role_without_a_login_or_user_gives_nothing_and_an_owner_is_dbo()
    {
        var at = DateTimeOffset.UnixEpoch;
        var instance = new InstanceSnapshot(
            "fm-sql01", "sqlserver", at, null, [new InstanceLogin(A, "a")], [new RoleMembers("dbcreator", [A, B], [])],
            [new DatabaseSnapshot(
                "Store", B, null, [new InstanceLogin(A, "a")], [new RoleMembers("db_datareader", [A, B], [])])]);
        var directory = new DirectorySnapshot("FENNMOOR", Sid.Parse("S-1-5-21-1-2-3"), "dc", at, [], [], null);
        var index = AllEngines.View(new Survey("e", at, true, directory, [], [instance])).Index;
        index.To(A).Select(t => t.Right.Key)
            .ShouldBe([
                "instance-permission:connect sql@fm-sql01", "instance-role:dbcreator@fm-sql01",
                "database-permission:connect@fm-sql01/store", "database-role:db_datareader@fm-sql01/store"]);
        index.To(B).Select(t => t.Right.Key)
            .ShouldBe(["database-owner:@fm-sql01/store", "database-role:db_owner@fm-sql01/store"]);
        index.To(B).Last().Steps[0].Name.ShouldBe("owner of fm-sql01/Store");
    }
}
