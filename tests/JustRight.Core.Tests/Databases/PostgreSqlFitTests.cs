using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Databases;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Undo;

namespace JustRight.Core.Tests.Databases;

/// <summary>
/// An instance <c>p</c> of the PostgreSQL family with a database <c>Store</c>, a schema <c>s</c> and a table <c>s.t</c>, seen
/// from the account <c>a</c>, who signs in by its ticket as the role of its name. What roles may do is proved against a real server
/// elsewhere; here it is what becomes of it: verdicts, paths, what is excess, and the steps.
/// </summary>
public sealed class PostgreSqlFitTests
{
    private static readonly Origin Line = new("scene", 1, 1);
    private static readonly Sid Domain = Sid.Parse("S-1-5-21-1-2-3");
    private static readonly PostgreSqlSecurable Table = PostgreSqlSecurable.OfObject("s", "t");
    private static readonly RoleMembershipRight Readers = new("p", "readers");
    private static readonly DatabasePrivilegeRight SelectTable = new("p", "Store", "SELECT", "OBJECT::s.t");
    private static readonly DatabaseOwnershipRight Owner = new("p", "Store");

    private readonly PostgreSqlCatalog _catalog = new(
        [
            new("postgres", RoleAttributes.Superuser | RoleAttributes.Login | RoleAttributes.Inherit),
            new("readers", RoleAttributes.Inherit), new("team", RoleAttributes.Inherit),
            new("a", RoleAttributes.Login | RoleAttributes.Inherit)],
        [],
        [new(
            "Store", "postgres", [new(null, "CONNECT", false)], null, [new("s", "postgres", [])], [new(Table, "postgres", [])])],
        [new("hostgssenc", ["all"], ["all"], SignInAddress.All, "gss", ["map=m", "include_realm=true"])],
        [new("m", @"/^(.*)@X\.EXAMPLE$", @"\1")]);

    [Fact]
    public void A_role_is_held_through_roles_nested_in_each_other_with_the_whole_path()
    {
        var judged = Judge(_catalog with { Memberships = [Into("a", "team"), Into("team", "readers")] }, Readers);
        judged.Verdict.ShouldBe(Verdict.Met);
        judged.Paths.ShouldHaveSingleItem().ToString().ShouldBe(@"FENNMOOR\a -> p role a -> team -> readers on p");
    }

    [Theory]
    [InlineData("nothing", "a does not hold it")]
    [InlineData("no inheritance", "it is in readers, and has its rights only after SET ROLE")]
    [InlineData("no login", "it holds the right, and its role at p lacks LOGIN")]
    [InlineData("no map", "a does not hold it")]
    [InlineData("map unread", "the roles of accounts at p could not be read: no right")]
    public void A_role_that_is_of_no_use_is_not_met_and_the_reason_says_why(string what, string reason)
    {
        var catalog = what switch
        {
            "no inheritance" => _catalog with { Memberships = [Into("a", "readers") with { Inherit = false }] },
            "no login" => _catalog with
            {
                Roles = [.. _catalog.Roles.Select(r => r.Name == "a" ? r with { Attributes = RoleAttributes.Inherit } : r)],
                Memberships = [Into("a", "readers")],
            },
            "no map" => _catalog with { NameMap = [], Memberships = [Into("a", "readers")] },
            "map unread" => _catalog with { SignInUnread = "no right" },
            _ => _catalog,
        };
        var judged = Judge(catalog, Readers);
        judged.Verdict.ShouldBe(what == "map unread" ? Verdict.Unseen : Verdict.Missing);
        Fit(catalog, Readers).View.UnreadParts.Select(c => c.Place)
            .ShouldBe(what == "map unread" ? ["the roles of accounts at p"] : []);
        judged.Reason.ShouldBe(reason);
    }

    [Theory]
    [InlineData("pg_read_all_data", true, "implied by pg_read_all_data on p")]
    [InlineData("pg_read_all_data", false, "a does not hold it")] // FIT-CASES 43: only after SET ROLE
    public void A_role_that_is_taken_on_first_brings_nothing_along(string role, bool inherits, string reason)
    {
        var judged = Judge(Among(role, inherits), SelectTable);
        judged.Reason.ShouldBe(reason);
        judged.Verdict.ShouldBe(inherits ? Verdict.Met : Verdict.Missing);
    }

    [Theory]
    [InlineData("pg_read_all_data", true, "held")]
    [InlineData("pg_write_all_data", true, "held")]
    [InlineData("pg_read_all_data", false, "it holds the right, and lacks USAGE on the schema s")]
    [InlineData("pg_write_all_data", false, "it holds the right, and lacks USAGE on the schema s")]
    public void Who_reads_or_writes_all_data_may_use_every_schema_unless_it_takes_that_role_on_first(
        string role, bool inherits, string reason)
    {
        var among = Among(role, inherits);
        var store = among.Databases[0];
        var given = store with { Objects = [store.Objects[0] with { Entries = [new("a", "SELECT", false)] }] };
        Judge(among with { Databases = [given] }, SelectTable).Reason.ShouldBe(reason);
    }

    private PostgreSqlCatalog Among(string role, bool inherits) => _catalog with
    {
        Roles = [.. _catalog.Roles, new(role, RoleAttributes.Inherit)],
        Memberships = [Into("a", role) with { Inherit = inherits }],
    };

    [Theory]
    [InlineData("SELECT", "it holds the right, and lacks USAGE on the schema s")]
    [InlineData("SELECT USAGE", null)]
    [InlineData("USAGE", "a does not hold it")]
    [InlineData("SELECT USAGE shut", "it holds the right, and lacks CONNECT on p/Store")]
    [InlineData("reader", "implied by pg_read_all_data on p")]
    [InlineData("superuser shut", "implied by SUPERUSER on p")]
    public void A_table_is_reached_only_when_every_door_before_it_is_open(string given, string? reason)
    {
        var judged = Judge(Giving(given), SelectTable);
        judged.Reason.ShouldBe(reason ?? "held");
        judged.Verdict.ShouldBe(reason is null
            || reason.StartsWith("implied", StringComparison.Ordinal) ? Verdict.Met : Verdict.Missing);
    }

    [Theory]
    [InlineData("an entry", "held")]
    [InlineData("everybody", "held")]
    [InlineData("the table", "implied by SELECT on OBJECT::s.t on p/Store")]
    [InlineData("ownership", "held")]
    [InlineData("nothing", "a does not hold it")]
    public void A_column_is_reached_by_its_own_entry_or_by_the_tables(string given, string reason)
    {
        var (column, table) = (
            new PostgreSqlSecurable(SecurableClass.Column, "s", "t", "c"), Table);
        var entries = given switch
        {
            "an entry" => [new("a", "SELECT", false)],
            "everybody" => [new(null, "SELECT", false)],
            "ownership" => [new("a", "SELECT", false)],
            _ => Array.Empty<PrivilegeEntry>(),
        };
        var catalog = Giving("USAGE");
        var things = new PostgreSqlObject[]
        {
            new(table, given == "ownership" ? "a" : "postgres", given == "the table" ? [new("a", "SELECT", false)] : []),
            new(column, "postgres", entries),
        };
        var judged = Judge(
            catalog with { Databases = [catalog.Databases[0] with { Objects = things }] },
            DatabasePrivilegeRight.Parse("p", "Store", "SELECT on COLUMN::s.t.c"));
        judged.Reason.ShouldBe(reason);
        judged.Verdict.ShouldBe(given == "nothing" ? Verdict.Missing : Verdict.Met);
    }

    [Fact]
    public void What_is_owned_is_excess_with_what_comes_along()
    {
        var catalog = Giving("USAGE");
        var owned = catalog with
        {
            Databases = [catalog.Databases[0] with
            {
                Objects = [new(Table, "a", [new("a", "SELECT", false), new("a", "DELETE", false)])],
            }],
        };
        var excess = Fit(owned).Fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Excess);
        excess.Right.ToString().ShouldBe("OWNER on OBJECT::s.t on p/Store");
        excess.Brings.ShouldBe(["DELETE on OBJECT::s.t on p/Store", "SELECT on OBJECT::s.t on p/Store"], ignoreOrder: true);
        var needed = Fit(owned, SelectTable).Fit.Accounts[0].Judgements;
        needed.Single(j => j.Grant is not null).Verdict.ShouldBe(Verdict.Met);
        Worklist(owned).Remove.ShouldBeEmpty("only the organization chooses another owner");
    }

    [Theory]
    [InlineData("role", "it holds the right, and its role at p may have no connection (its limit is 0)")]
    [InlineData("database", "it holds the right, and p/Store takes no connection (its limit is 0)")]
    [InlineData("shut", "p/Store takes no connections")]
    [InlineData("role superuser", "implied by SUPERUSER on p")]
    [InlineData("database superuser", "implied by SUPERUSER on p")]
    [InlineData("shut superuser", "p/Store takes no connections")]
    public void A_limit_of_no_connections_keeps_out(string what, string reason)
    {
        var catalog = Giving($"SELECT USAGE {(what.EndsWith("superuser", StringComparison.Ordinal) ? "superuser" : "")}");
        var door = what.StartsWith("database", StringComparison.Ordinal) ? DatabaseDoor.ForSuperusers
            : what.StartsWith("shut", StringComparison.Ordinal) ? DatabaseDoor.Shut : DatabaseDoor.Open;
        var isSuperuser = what.EndsWith("superuser", StringComparison.Ordinal);
        var store = catalog.Databases[0] with { Door = door };
        var judged = Judge(
            catalog with
            {
                Databases = [isSuperuser ? store with { Objects = [store.Objects[0] with { Entries = [] }] } : store],
                Roles = [.. catalog.Roles.Select(r =>
                    r with { NoConnections = r.Name == "a" && what.StartsWith("role", StringComparison.Ordinal) })],
            },
            SelectTable);
        judged.Reason.ShouldBe(reason);
    }

    [Fact]
    public void What_an_account_may_as_one_role_never_counts_with_what_it_may_as_another()
    {
        var catalog = Giving("SELECT") with
        {
            NameMap = [new("m", @"/^(.*)@X\.EXAMPLE$", @"\1"), new("m", "a@X.EXAMPLE", "b")],
        };
        catalog = catalog with
        {
            Roles = [.. catalog.Roles, new("b", RoleAttributes.Login | RoleAttributes.Inherit)],
            Databases = [catalog.Databases[0] with { Schemas = [new("s", "postgres", [new("b", "USAGE", false)])] }],
        };
        Judge(catalog, SelectTable).Reason.ShouldBe("it holds the right, and lacks USAGE on the schema s");
        var usage = new DatabasePrivilegeRight("p", "Store", "USAGE", "SCHEMA::s");
        Judge(catalog, usage).Paths.ShouldHaveSingleItem().ToString()
            .ShouldBe(@"FENNMOOR\a -> p role b -> USAGE on SCHEMA::s on p/Store");
        var both = catalog with
        {
            Databases = [catalog.Databases[0] with
            {
                Schemas = [new("s", "postgres", [new("b", "USAGE", false)])],
                Objects = [new(Table, "postgres", [new("a", "SELECT", false), new("b", "SELECT", false)])],
            }],
        };
        Judge(both, SelectTable).Verdict.ShouldBe(Verdict.Met, "as b it has both");
    }

    [Theory]
    [InlineData("SELECT on OBJECT::s.T", "there is no object s.T in p/Store; did you mean 's.t'?")]
    [InlineData("SELECT on OBJECT::elsewhere.u", "there is no object elsewhere.u in p/Store")]
    [InlineData(
        "SELECT on OBJECT::pg_catalog.pg_authid",
        "of the engine's own only what was changed is read, and OBJECT::pg_catalog.pg_authid was not")]
    [InlineData("CREATE on TABLESPACE::fast", "what is given on TABLESPACE::fast is not read")]
    public void What_is_not_there_is_told_apart_from_what_is_not_read(string need, string reason) =>
        Judge(Giving("USAGE"), DatabasePrivilegeRight.Parse("p", "Store", need)).Reason.ShouldBe(reason);

    [Theory]
    [InlineData(RoleAttributes.None, "postgres", true)]
    [InlineData(RoleAttributes.BypassRowSecurity, "postgres", false)]
    [InlineData(RoleAttributes.None, "a", false)]
    public void Row_security_is_a_caution_for_whoever_does_not_own_the_table(RoleAttributes besides, string owner, bool warns)
    {
        var catalog = Giving("SELECT USAGE");
        var store = catalog.Databases[0];
        var judged = Judge(
            catalog with
            {
                Roles = [.. catalog.Roles.Select(r => r.Name == "a" ? r with { Attributes = r.Attributes | besides } : r)],
                Databases = [store with { Objects = [store.Objects[0] with { Owner = owner, HidesRows = true }] }],
            },
            SelectTable);
        judged.Verdict.ShouldBe(Verdict.Met);
        judged.Notes.ShouldBe(warns ? ["OBJECT::s.t has row security: its policies may hide rows"] : []);
    }

    [Fact]
    public void A_database_is_called_exactly()
    {
        var judged = Judge(Giving("SELECT USAGE"), new DatabasePrivilegeRight("p", "store", "SELECT", "OBJECT::s.t"));
        judged.Reason.ShouldBe("there is no database p/store; did you mean 'Store'?");
    }

    [Fact]
    public void Nobody_but_a_superuser_changes_the_engines_own_tables()
    {
        var thing = PostgreSqlSecurable.OfObject("pg_catalog", "pg_class");
        var catalog = Giving("");
        var given = catalog with
        {
            Databases = [catalog.Databases[0] with
            {
                Schemas = [new("pg_catalog", "postgres", [new(null, "USAGE", false)])],
                Objects = [new(thing, "postgres", [new("a", "UPDATE", false), new("a", "SELECT", false)])],
            }],
        };
        Judge(given, new DatabasePrivilegeRight("p", "Store", "SELECT", thing.Words)).Reason.ShouldBe("held");
        Judge(given, new DatabasePrivilegeRight("p", "Store", "UPDATE", thing.Words)).Reason
            .ShouldBe("it holds the right, and superusers alone change the engine's own tables");
    }

    [Fact]
    public void Who_has_a_roles_rights_first_after_set_role_is_helped_by_inheriting()
    {
        var catalog = _catalog with
        {
            Memberships = [Into("a", "readers") with { Inherit = false }],
            Roles = [.. _catalog.Roles.Select(r => r.Name == "a" ? r with { Attributes = RoleAttributes.Login } : r)],
        };
        Steps(catalog, Readers).ShouldBe(["grant INHERIT on p to a"]);
        Steps(catalog with { Memberships = [] }, Readers)
            .ShouldBe(["grant INHERIT on p to a", "add a to the role readers of p"]);
        var later = _catalog with { Memberships = [Into("a", "readers") with { Inherit = false }] };
        Worklist(later, Readers).Give.ShouldHaveSingleItem().Blocked.ShouldNotBeNull().ShouldContain("WITH INHERIT TRUE");
    }

    [Fact]
    public void What_is_beyond_the_needs_is_excess_but_not_the_doors_to_what_is_needed()
    {
        var catalog = Giving("SELECT USAGE") with
        {
            Memberships = [Into("a", "readers")],
            Roles = [.. _catalog.Roles.Select(r =>
                r.Name == "a" ? r with { Attributes = r.Attributes | RoleAttributes.CreateDatabase } : r)],
        };
        Excess(catalog, SelectTable).ShouldBe(["CREATEDB on p", "readers on p"]);
        Excess(catalog, SelectTable, Readers, new RoleAttributeRight("p", "CREATEDB")).ShouldBeEmpty();
        Excess(Giving("superuser"), SelectTable).ShouldBe(["SUPERUSER on p"]);
    }

    [Fact]
    public void What_comes_along_with_a_role_that_is_needed_is_not_excess()
    {
        var catalog = _catalog with { Memberships = [Into("a", "readers"), Into("readers", "team")] };
        Excess(catalog, Readers).ShouldBeEmpty();
        Excess(catalog).ShouldBe(["readers on p", "team on p"]);
    }

    [Fact]
    public void Who_can_do_what_is_listed_for_whoever_signs_in()
    {
        var (_, view, _) = Fit(
            Giving("SELECT USAGE") with { Memberships = [Into("a", "team"), Into("team", "readers")] }, Readers);
        InstanceHolders.Of(view, view.Instance("p")!, 100).Holders.Select(h =>
            $"{view.Graph.NameOf(h.Holder)}: {h.Right}{(h.WhyNot is null ? "" : $" ({h.WhyNot})")}")
            .ShouldBe(
            [
                @"FENNMOOR\a: SELECT on OBJECT::s.t on p/Store", @"FENNMOOR\a: readers on p",
                @"FENNMOOR\a: team on p"], ignoreOrder: true);
    }

    [Fact]
    public void The_owner_is_told_apart_from_who_may_do_all_the_same()
    {
        Judge(_catalog, Owner).Reason.ShouldBe("a does not hold it");
        Judge(Owned("a"), Owner).Verdict.ShouldBe(Verdict.Met);
        Judge(Owned("team") with { Memberships = [Into("a", "team")] }, Owner).Paths[0].ToString()
            .ShouldBe(@"FENNMOOR\a -> p role a -> team -> owner on p/Store");
        Judge(Giving("superuser"), Owner).Reason.ShouldBe("implied by SUPERUSER on p");
    }

    [Fact]
    public void Steps_give_the_role_what_is_needed_and_every_door_before_it()
    {
        Steps(Giving("shut"), SelectTable)
            .ShouldBe([
                "grant CONNECT in p/Store to a", "grant USAGE on SCHEMA::s in p/Store to a",
                "grant SELECT on OBJECT::s.t in p/Store to a"]);
        Steps(Giving("USAGE"), SelectTable).ShouldBe(["grant SELECT on OBJECT::s.t in p/Store to a"]);
        Steps(_catalog, Owner).ShouldBe(["make a the owner of p/Store"]);
        Steps(_catalog with { Roles = [.. _catalog.Roles.Where(r => r.Name != "a")] }, Readers)
            .ShouldBe(["create the login a on p", "add a to the role readers of p"]);
    }

    [Fact]
    public void A_role_that_was_there_before_is_let_in_and_by_undoing_shut_out_and_never_dropped()
    {
        var catalog = _catalog with
        {
            Roles = [.. _catalog.Roles.Select(r =>
                r.Name == "a" ? r with { Attributes = r.Attributes & ~RoleAttributes.Login } : r)],
        };
        Steps(catalog, Readers).ShouldBe(["grant LOGIN on p to a", "add a to the role readers of p"]);
        var made = Worklist(catalog, Readers).Give.Select(s => s.Change).ToList();
        Undoing.Of(made).Select(c => c.Words).ShouldBe(["remove a from the role readers of p", "revoke LOGIN on p from a"]);
    }

    [Fact]
    public void What_may_be_handed_on_is_not_taken_away_by_a_step()
    {
        var admin = Worklist(_catalog with { Memberships = [Into("a", "readers") with { Admin = true }] });
        admin.Remove.ShouldBeEmpty();
        admin.NotOffered.ShouldContain(n =>
            n.For.Contains("readers") && n.Reason.StartsWith("held WITH GRANT OPTION", StringComparison.Ordinal));
        Worklist(_catalog with { Memberships = [Into("a", "readers")] }).Remove.ShouldNotBeEmpty();
    }

    [Fact]
    public void Where_no_rule_lets_the_account_in_the_step_waits_for_whoever_keeps_the_server()
    {
        var list = Worklist(_catalog with { SignInRules = [] }, Readers);
        list.Give.ShouldHaveSingleItem().Blocked.ShouldNotBeNull().ShouldStartWith("no sign-in rule of the server lets a in");
    }

    [Fact]
    public void What_is_excess_is_taken_from_the_role_and_what_comes_through_another_role_is_left_to_a_person()
    {
        var catalog = _catalog with
        {
            Memberships = [Into("a", "readers"), Into("readers", "team")],
            Roles = [.. _catalog.Roles.Select(r =>
                r.Name == "a" ? r with { Attributes = r.Attributes | RoleAttributes.CreateDatabase } : r)],
        };
        var list = Worklist(catalog, Owner);
        list.Remove.Select(s => s.Change.Words).ShouldBe(["revoke CREATEDB on p from a", "remove a from the role readers of p"]);
        list.NotOffered.Select(n => n.For).ShouldContain("a/excess/instance-role:team@p");
    }

    private PostgreSqlCatalog Giving(string what)
    {
        var words = what.Split(' ');
        var store = _catalog.Databases[0] with
        {
            Entries = words.Contains("shut") ? [] : _catalog.Databases[0].Entries,
            Schemas = [new("s", "postgres", words.Contains("USAGE") ? [new("a", "USAGE", false)] : [])],
            Objects = [new(Table, "postgres", words.Contains("SELECT") ? [new("a", "SELECT", false)] : [])],
        };
        var catalog = _catalog with { Databases = [store] };
        if (words.Contains("reader"))
            catalog = catalog with
            {
                Roles = [.. catalog.Roles, new("pg_read_all_data", RoleAttributes.Inherit)],
                Memberships = [Into("a", "pg_read_all_data")],
            };
        if (words.Contains("superuser"))
            catalog = catalog with
            {
                Roles = [.. catalog.Roles.Select(r =>
                    r.Name == "a" ? r with { Attributes = r.Attributes | RoleAttributes.Superuser } : r)],
            };
        return catalog;
    }

    private PostgreSqlCatalog Owned(string by) => _catalog with { Databases = [_catalog.Databases[0] with { Owner = by }] };

    private static PostgreSqlMembership Into(string member, string role) => new(member, role, true, true, false);

    private static Judgement Judge(PostgreSqlCatalog catalog, Right needed) =>
        Fit(catalog, needed).Fit.Accounts[0].Judgements.Single(j => j.Grant is not null);

    private static IReadOnlyList<string> Excess(PostgreSqlCatalog catalog, params Right[] needed) =>
        [.. Fit(catalog, needed).Fit.Accounts[0].Judgements.Where(j =>
            j.Verdict == Verdict.Excess).Select(j => j.Right.ToString())];

    private static IReadOnlyList<string> Steps(PostgreSqlCatalog catalog, Right needed) =>
        [.. Worklist(catalog, needed).Give.Select(s => s.Change.Words)];

    private static Worklist Worklist(PostgreSqlCatalog catalog, params Right[] needed)
    {
        var (fit, view, needs) = Fit(catalog, needed);
        return WorklistMaker.Make(fit, view, needs);
    }

    private static (InstallFit Fit, SurveyView View, NeedsIndex Needs) Fit(PostgreSqlCatalog catalog, params Right[] needed)
    {
        var now = DateTimeOffset.UnixEpoch;
        var directory = new DirectorySnapshot(
            "FENNMOOR", Domain, "dc", now,
            [new DirectoryPrincipal(
                Domain.Append(1001), PrincipalKind.User, "a",
                "CN=a,DC=x,DC=example") { Description = "", State = AccountState.None }],
            [], null);
        var instance = new InstanceSnapshot(
            "p", "postgresql", now, null, [], [],
            [.. catalog.Databases.Select(d => new DatabaseSnapshot(d.Name, default, d.Unread, [], []))])
        {
            Host = "h1",
            PostgreSql = catalog,
        };
        var plan = new Plan(
            "x", "s@1", "S", "e", "FENNMOOR", "fennmoor.example", Stage.Installed, [], [], [new PlannedAccount(
                "a", "a", null, "", "", WorksAs.Service, true, true, Line)],
            [.. needed.Select(r =>
                new PlannedGrant(
                    $"a/{r.Key}", "a", r, null, null, GivenBy.Us, Until.Always, Team.Database, null, null, Line))], [], [], []);
        var view = AllEngines.View(new Survey("e", now, true, directory, [], [instance]));
        var needs = new NeedsIndex([plan]);
        return (new FitJudge(view, needs, new OrganizationRules([], null, []), new Present(now)).Judge(plan), view, needs);
    }
}
