using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Surveys;
using JustRight.Formats.SqlServer;
using Microsoft.SqlServer.TransactSql.ScriptDom;

namespace JustRight.Formats.Tests.Databases;

/// <summary>The Transact-SQL we write, read back by the engine maker's own parser for every release from 2016 on.</summary>
public sealed class TransactSqlTests
{
    private const string Account = @"FENNMOOR\svc-quern";
    private static readonly (string Release, int Number, Func<TSqlParser> Make)[] Releases =
    [
        ("2016", 13, () => new TSql130Parser(true)), ("2017", 14, () => new TSql140Parser(true)),
        ("2019", 15, () => new TSql150Parser(true)), ("2022", 16, () => new TSql160Parser(true)),
        ("2025", 17, () => new TSql170Parser(true)),
    ];

    /// <summary>Names that would break out of what is carelessly quoted.</summary>
    public static TheoryData<string> Names =>
    [
        "plain", "with space", "]", "]]; DROP LOGIN [sa]; --", "'", "'; DROP TABLE t; --", "\"", "--", "/*", "*/", "\u202Egpj",
        "Käserei", "名前", "$(x)", "[a].[b]", "N'x'", ";", new string('x', 119),
    ];

    private static IEnumerable<InstanceChange> Changes(string name) =>
        Gives(name).SelectMany(c => new[] { c, (InstanceChange)c.Inverse! });

    private static InstanceChange[] Gives(string name) =>
    [
        new CreateLogin("i", $@"FENNMOOR\{name}"), new AddInstanceRoleMember(
            "i", name, $@"FENNMOOR\{name}"), new GrantInstancePermission(
            "i", "VIEW SERVER STATE", $@"FENNMOOR\{name}"),
        new CreateDatabaseUser("i", name, $@"FENNMOOR\{name}"), new AddDatabaseRoleMember(
            "i", name, name, $@"FENNMOOR\{name}"), new GrantDatabasePermission(
            "i", name, "CREATE TABLE", null, $@"FENNMOOR\{name}"),
        new GrantInstancePermission(
            "i", $"IMPERSONATE on {new SqlServerSecurable(SqlServerClass.Login, null, name, null).Words}", $@"FENNMOOR\{name}"),
        new GrantDatabasePermission(
            "i", name, "SELECT", new SqlServerSecurable(SqlServerClass.Column, "s", name, name).Words, $@"FENNMOOR\{name}"),
        new GrantDatabasePermission("i", name, "EXECUTE", SqlServerSecurable.OfSchema(name).Words, $@"FENNMOOR\{name}"),
        new GrantDatabasePermission(
            "i", name, "SELECT", SqlServerSecurable.OfObject("s", name).Words, $@"FENNMOOR\{name}"),
    ];

    [Theory]
    [MemberData(nameof(Names))]
    public void Every_statement_is_the_one_it_should_be_whatever_the_names(string name)
    {
        foreach (var (release, _, make) in Releases)
        {
            foreach (var change in Changes(name))
            {
                var sql = TransactSql.Of(change);
                var batch = ((TSqlScript)Parse(
                    make(), $"IF NOT ({sql.Done}) {sql.Statement};", release)).Batches.ShouldHaveSingleItem();
                var then = batch.Statements.ShouldHaveSingleItem().ShouldBeOfType<IfStatement>().ThenStatement;
                then.GetType().Name.ShouldBe(change switch
                {
                    CreateLogin => nameof(CreateLoginStatement),
                    DropLogin => nameof(DropLoginStatement),
                    AddInstanceRoleMember or RemoveInstanceRoleMember => nameof(AlterServerRoleStatement),
                    CreateDatabaseUser => nameof(CreateUserStatement),
                    DropDatabaseUser => nameof(DropUserStatement),
                    AddDatabaseRoleMember or RemoveDatabaseRoleMember => nameof(AlterRoleStatement),
                    GrantInstancePermission or GrantDatabasePermission => nameof(GrantStatement),
                    _ => nameof(RevokeStatement),
                }, $"{change} in {release}");
                IdentifiersOf(then).ShouldContain($@"FENNMOOR\{name}", $"{change} in {release}");
            }
        }
    }

    /// <summary>Every permission of the table, on one thing of its class, in the releases that have it.</summary>
    [Fact]
    public void Every_permission_on_everything_is_a_statement_of_its_releases()
    {
        foreach (var kind in Enum.GetValues<SqlServerClass>())
        {
            var inSchema = kind is SqlServerClass.SchemaObject or SqlServerClass.Type or SqlServerClass.XmlSchemaCollection
                or SqlServerClass.Column;
            var thing = kind is SqlServerClass.Server or SqlServerClass.Database ? null
                : new SqlServerSecurable(kind, inSchema ? "s" : null, "it", kind == SqlServerClass.Column ? "c" : null);
            foreach (var row in SqlServerPermissions.On(kind).Values)
            {
                InstanceChange change = kind == SqlServerClass.Server || thing?.IsOfInstance == true
                    ? new GrantInstancePermission("i", thing is null ? row.Name : $"{row.Name} on {thing.Words}", Account)
                    : new GrantDatabasePermission("i", "d", row.Name, thing?.Words, Account);
                if (kind is SqlServerClass.DatabaseScopedCredential or SqlServerClass.ExternalLanguage)
                {
                    TransactSql.WhyNot(change).ShouldNotBeNull("the parser does not know them: nothing would prove it");
                    continue;
                }

                foreach (var (release, _, make) in Releases.Skip(Array.FindIndex(Releases, r => r.Number >= row.Since)))
                {
                    var sql = TransactSql.Of(change);
                    var batch = ((TSqlScript)Parse(make(), $"IF NOT ({sql.Done}) {sql.Statement};", release)).Batches[0];
                    var grant = batch.Statements[0].ShouldBeOfType<IfStatement>().ThenStatement.ShouldBeOfType<GrantStatement>();
                    string.Join(' ', grant.Permissions[0].Identifiers.Select(i => i.Value)).ShouldBe(row.Name);
                }
            }
        }
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void A_script_holds_its_steps_and_nothing_else(string name)
    {
        var steps = Gives(name).Select((c, i) => (i + 1, c, (string?)$"why {name}")).ToList();
        var undo = TransactSqlScripts.Undo(
            [$"for {name}"], name, [.. Gives(name).Select((c, i) => (i + 1, c, (InstanceChange)c.Inverse!))], SomeSid);
        foreach (var (release, _, make) in Releases)
        {
            foreach (var text in new[] { TransactSqlScripts.Give([$"for {name}"], name, steps, SomeSid), undo })
            {
                var all = ((TSqlScript)Parse(make(), text, release)).Batches.SelectMany(b => b.Statements).ToList();
                all.ShouldAllBe(s => s is IfStatement || s is UseStatement || s is PredicateSetStatement);
                all.OfType<IfStatement>().Count(i => Inside(i)[0] is BeginTransactionStatement).ShouldBe(steps.Count);
                all.OfType<IfStatement>().Count(i => Inside(i)[0] is RaiseErrorStatement)
                    .ShouldBe(4, "the login and the user, each found by another SID or by another name");
            }

            var check = ((TSqlScript)Parse(
                make(), TransactSqlScripts.Check([$"for {name}"], [.. steps.Select(s => (s.Item1, s.c))]),
                release)).Batches.ShouldHaveSingleItem();
            check.Statements.ShouldHaveSingleItem().ShouldBeOfType<SelectStatement>();
        }

        static IList<TSqlStatement> Inside(IfStatement statement) =>
            statement.ThenStatement.ShouldBeOfType<BeginEndBlockStatement>().StatementList.Statements;
    }

    [Theory]
    [InlineData("a\nGO\nDROP DATABASE x")]
    [InlineData("a\rb")]
    [InlineData("a\u2028b")]
    [InlineData("")]
    [InlineData(null)] // one character too long
    public void A_name_that_no_script_can_hold_is_refused_and_no_script_is_offered(string? name)
    {
        var change = new CreateDatabaseUser("i", name ?? new string('x', 129), Account);
        Should.Throw<ArgumentException>(() => TransactSql.Of(change)).Message.ShouldNotContain("\n");
        TransactSql.WhyNot(change).ShouldNotBeNull();
        TransactSql.WhyNot(new CreateDatabaseUser("i", "x", Account)).ShouldBeNull();
    }

    [Fact]
    public void A_step_is_made_in_its_own_database()
    {
        var text = TransactSqlScripts.Give(
            [], "quernstone",
            [
                (1, new CreateLogin("i", Account), null), (2, new CreateDatabaseUser("i", "msdb", Account), null),
                (3, new AddDatabaseRoleMember("i", "msdb", "SQLAgentReaderRole", Account), "reads how jobs ended"),
                (4, new GrantInstancePermission("i", "view server state", Account), null),
            ],
            _ => null);
        var script = (TSqlScript)Parse(new TSql170Parser(true), text, "2025");
        script.Batches.SelectMany(b => b.Statements).OfType<UseStatement>().Select(u => u.DatabaseName.Value)
            .ShouldBe(["master", "msdb", "master"]);
        text.ShouldContain("-- 3. add FENNMOOR\\svc-quern to the role SQLAgentReaderRole in i/msdb\n--    reads how jobs ended");
        text.ShouldContain("GRANT VIEW SERVER STATE TO [FENNMOOR\\svc-quern];");
    }

    [Theory]
    [InlineData("VIEW SERVER STATE; DROP LOGIN x")]
    [InlineData("SELECT]")]
    [InlineData("")]
    [InlineData("a\nb")]
    public void What_cannot_be_a_permission_is_never_written(string permission)
    {
        Should.Throw<ArgumentException>(() => TransactSql.Of(new GrantInstancePermission("i", permission, Account)));
        Should.Throw<ArgumentException>(() => TransactSql.Of(new GrantDatabasePermission("i", "d", permission, null, Account)));
        Should.Throw<ArgumentException>(() =>
            TransactSql.Of(new GrantDatabasePermission("i", "d", "SELECT", permission, Account)));
    }

    private static Sid? SomeSid(string name) => Sid.Parse("S-1-5-21-1-2-3-1001");

    private static TSqlFragment Parse(TSqlParser parser, string text, string release)
    {
        var parsed = parser.Parse(new StringReader(text), out var errors);
        errors.Select(e => $"{release}, line {e.Line}: {e.Message} in {text}").ShouldBeEmpty();
        return parsed;
    }

    private static List<string> IdentifiersOf(TSqlFragment fragment)
    {
        var found = new Identifiers();
        fragment.Accept(found);
        return found.Names;
    }

    private sealed class Identifiers : TSqlFragmentVisitor
    {
        public List<string> Names { get; } = [];

        public override void Visit(Identifier node) => Names.Add(node.Value);
    }
}
