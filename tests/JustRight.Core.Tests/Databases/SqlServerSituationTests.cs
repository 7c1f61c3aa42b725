namespace JustRight.Core.Tests.Databases;

/// <summary>
/// The worked situations of <c>sql-server-situations.txt</c> and <c>sql-server-ways.txt</c>, at the level of the verdict.
/// </summary>
public sealed class SqlServerSituationTests
{
    /// <summary>Facts, question, answer, rule.</summary>
    public static TheoryData<string, string, string, string> Situations
    {
        get
        {
            var rows = new TheoryData<string, string, string, string>();
            foreach (var row in Rows("sql-server-situations.txt", 4)) rows.Add(row[0], row[1], row[2], row[3]);
            return rows;
        }
    }

    /// <summary>Facts, what it can come to, rule.</summary>
    public static TheoryData<string, string, string> Ways
    {
        get
        {
            var rows = new TheoryData<string, string, string>();
            foreach (var row in Rows("sql-server-ways.txt", 3)) rows.Add(row[0], row[1], row[2]);
            return rows;
        }
    }

    /// <summary>Facts, what is asked, steps.</summary>
    public static TheoryData<string, string, string> Given
    {
        get
        {
            var rows = new TheoryData<string, string, string>();
            foreach (var row in Rows("sql-server-steps.txt", 3)) rows.Add(row[0], row[1], row[2]);
            return rows;
        }
    }

    [Theory]
    [MemberData(nameof(Given))]
    public void Steps_give_and_take_just_what_is_asked(string facts, string asked, string steps)
    {
        var scene = DatabaseScene.Of(facts);
        var what = asked[5..] == "-" ? [] : new[] { asked[5..] };
        var made = asked.StartsWith("give ", StringComparison.Ordinal) ? scene.Giving(what) : scene.Removal(what);
        string.Join("; ", made.Where(s => s != DatabaseScene.LeavesItsGroup)).ShouldBe(steps == "-" ? "" : steps);
    }

    [Theory]
    [MemberData(nameof(Situations))]
    public void A_right_is_judged_as_the_documentation_says(string facts, string question, string answer, string rule) =>
        DatabaseScene.Of(facts).Ask(question).ShouldBe(answer, rule);

    [Theory]
    [MemberData(nameof(Ways))]
    public void Ways_to_more_are_found_and_no_others(string facts, string more, string rule) =>
        string.Join(", ", DatabaseScene.Of(facts).WaysToMore()).ShouldBe(more == "-" ? "" : more, rule);

    [Fact]
    public void A_way_is_told_step_by_step_and_beside_the_right_it_begins_with()
    {
        var scene = DatabaseScene.Of(
            "login a; own clerk: permission IMPERSONATE on LOGIN::boss; own boss: sysadmin; "
            + "grant IMPERSONATE on LOGIN::clerk: a");
        const string way = "with IMPERSONATE on LOGIN::clerk it can act as clerk; "
            + "with IMPERSONATE on LOGIN::boss it can act as boss";
        scene.WayTo("sysadmin").ShouldBe(way);
        scene.Notes("IMPERSONATE on LOGIN::clerk").ShouldContain($"it leads to sysadmin on i: {way}");
    }

    /// <summary>Facts, what it leads to, how it is told.</summary>
    public static TheoryData<string, string, string> Steps => new()
    {
        { "role securityadmin: a", "sysadmin", "securityadmin can grant itself CONTROL SERVER" },
        { "grant CONTROL SERVER: a", "sysadmin", "with CONTROL SERVER it can act as any login" },
        { "grant ALTER on SERVER ROLE::x: a; role x: o", "x", "with ALTER on SERVER ROLE::x it can add itself to x" },
        { $"{Acting}; role dbcreator: role:x", "dbcreator", "x is in dbcreator" },
        { $"{Acting}; grant VIEW SERVER STATE: role:x", "VIEW SERVER STATE", "x was granted it" },
        { "S.user a; S.role r: o; S.role db_securityadmin: a", "r", "db_securityadmin can add itself to r" },
        { "S.user a; S.role r: o; S.grant ALTER on ROLE::r: a", "r", "with ALTER on ROLE::r it can add itself to r" },
        { "S.user a; S.role r: o; S.role q: role:r; S.role db_securityadmin: a", "q", "db_securityadmin can add itself to q" },
        { "S.user a; S.own m: r; S.role r: o; S.role q: role:r; S.grant CONTROL on USER::m: a", "q", "r is in q" },
        {
            "S.user a; S.own m: r; S.role r: o; S.grant EXECUTE: role:r; S.grant CONTROL on USER::m: a", "EXECUTE",
            "r was granted it"
        },
        { "S.user a; S.grant IMPERSONATE on USER::dbo: a", "db_owner", "with IMPERSONATE on USER::dbo it can act as dbo" },
        { "S.user a; S.grant TAKE OWNERSHIP: a", "owner", "with TAKE OWNERSHIP it can make itself the owner" },
        { $"{Owning}; S.trusted; S.ownedby boss", "sysadmin", "S is TRUSTWORTHY, and its owner boss rules the instance" },
        {
            $"{Owning}; S.chained; msdb.chained; S.ownedby boss; msdb.ownedby boss; msdb.guest", "SELECT",
            "what it makes in S reads msdb: chains of ownership cross, and both are boss's"
        },
        { $"{Owning}; job nightly of boss: S", "sysadmin", "the job nightly runs what it changes in S, as its owner boss" },
        {
            "S.user a; S.schema s: role:dbo; S.grant ALTER on SCHEMA::s: a; S.grant CREATE PROCEDURE: a", "SELECT",
            "what it makes in s reads all that has the same owner"
        },
    };

    private const string Acting = "own clerk: x; role x: o; grant IMPERSONATE on LOGIN::clerk: a";
    private const string Owning = "own boss: sysadmin; S.user a; S.role db_owner: a";

    [Theory]
    [MemberData(nameof(Steps))]
    public void Each_step_on_the_way_is_told(string facts, string to, string step) =>
        DatabaseScene.Of($"login a; {facts}").WayTo(to).Split("; ").ShouldContain(step);

    [Fact]
    public void What_is_denied_inside_of_what_is_held_is_told_beside_it()
    {
        var scene = DatabaseScene.Of(
            "login a; S.user a; S.grant SELECT: a; S.deny SELECT on OBJECT::s.t: a; S.deny SELECT on COLUMN::u.v.w: role:public");
        scene.Notes("S. SELECT").ShouldBe(["it is denied on OBJECT::s.t, COLUMN::u.v.w"]);
        scene.Notes("S. SELECT on SCHEMA::u").ShouldContain("it is denied on COLUMN::u.v.w");
        scene.Notes("S. SELECT on SCHEMA::other").ShouldNotContain(n => n.StartsWith("it is denied", StringComparison.Ordinal));
    }

    [Fact]
    public void What_comes_of_owning_something_is_excess_that_no_step_takes_away()
    {
        var scene = DatabaseScene.Of("login a; S.user a; S.owns SCHEMA::s: a");
        scene.Excess("S. CONNECT").ShouldBe(["CONTROL on SCHEMA::s on i/S"]);
        scene.Path("S. CONTROL on SCHEMA::s").ShouldBe(
            "FENNMOOR\\a -> i/S user a -> owner of SCHEMA::s -> CONTROL on SCHEMA::s on i/S");
        scene.Removal("S. CONNECT").ShouldContain("not s: it owns SCHEMA::s: only another owner ends that");
        scene.Removal().ShouldNotContain(
            line => line.StartsWith("drop ", StringComparison.Ordinal), "the engine would refuse it");
        scene.Excess("S. role db_owner").ShouldNotContain("CONTROL on SCHEMA::s on i/S", "it is part of what is needed");
    }

    [Fact]
    public void A_login_that_owns_jobs_is_not_dropped_and_the_jobs_are_named()
    {
        DatabaseScene.Of("login a; job nightly of o: S").Removal().ShouldContain(
            line => line.StartsWith("drop ", StringComparison.Ordinal));
        var scene = DatabaseScene.Of("login a; job nightly of a: S; offjob copies of a: S");
        scene.Removal().ShouldNotContain(
            line => line.StartsWith("drop ", StringComparison.Ordinal), "the engine would refuse it");
        scene.Removal().ShouldContain(
            "not instance-permission:connect sql@i: its login owns the jobs nightly, copies: give them another owner first");
    }

    [Fact]
    public void What_guest_has_is_everybodys_and_no_excess()
    {
        var scene = DatabaseScene.Of("login a; S.guest; S.grant SELECT: role:guest; S.role db_datareader: role:guest");
        scene.Excess("CONNECT SQL").ShouldBeEmpty();
        scene.Path("S. role db_datareader").ShouldBe("FENNMOOR\\a -> i login a -> guest of i/S -> db_datareader on i/S");
    }

    [Theory]
    [InlineData(
        "release 13.0.5026.0; login a", "VIEW SERVER PERFORMANCE STATE",
        "VIEW SERVER PERFORMANCE STATE begins with release 2022 (16), and i is of 13.0.5026.0")]
    [InlineData("login a; S.user a", "S. FLY on SCHEMA::s", "FLY on SCHEMA::s is no permission that is known here")]
    [InlineData(
        "login a; S.user a", "S. SELECT on OBJECT::sys.tables",
        "what is granted on the engine's own is not read: OBJECT::sys.tables")]
    public void Why_something_cannot_be_judged_is_said(string facts, string question, string why) =>
        DatabaseScene.Of(facts).Reason(question).ShouldBe(why);

    private static IEnumerable<string[]> Rows(string file, int fields)
    {
        foreach (var line in File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Databases", file)))
        {
            if (line.Length == 0 || line[0] == '#') continue;
            var row = line.Split('|', StringSplitOptions.TrimEntries);
            row.Length.ShouldBe(fields, line);
            yield return row;
        }
    }
}
