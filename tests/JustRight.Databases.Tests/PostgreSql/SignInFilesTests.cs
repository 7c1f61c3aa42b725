using System.Text.Json;
using JustRight.Core.Surveys;

namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>What is read of the server's files of sign-in, and what must not be.</summary>
public sealed class SignInFilesTests(PostgreSqlServer server) : IClassFixture<PostgreSqlServer>
{
    private const string Own = "hostssl all postgres 127.0.0.1/32 scram-sha-256\n";

    [Fact]
    public async Task A_password_in_a_rule_never_leaves_the_server()
    {
        server.Configure(
            Own + "host all all all ldap ldapserver=dc.fennmoor.example ldapbasedn=\"DC=fennmoor,DC=example\" "
            + "ldapbinddn=\"CN=svc-bind,DC=fennmoor,DC=example\" ldapbindpasswd=Hedgerow-7 ldapsearchattribute=sAMAccountName\n"
            + "host all all all radius radiusservers=\"10.0.0.9\" radiussecrets=\"Hedgerow-8\"",
            "");
        var catalog = (await server.ReadAsync()).PostgreSql!;
        catalog.SignInUnread.ShouldBeNull();
        catalog.SignInRules.Select(r => r.Method).ShouldBe(["trust", "scram-sha-256", "ldap", "radius"]);
        catalog.SignInRules[2].Options.ShouldBe(["ldapsearchattribute=sAMAccountName"]);
        JsonSerializer.Serialize(catalog).ShouldNotContain("Hedgerow");
    }

    [Fact]
    public async Task That_a_realm_is_left_out_is_told_by_nothing()
    {
        server.Configure(
            Own + "host all all all gss include_realm=0\nhostssl all all all gss\nhostssl all all all gss map=m krb_realm=X", "");
        var rules = (await server.ReadAsync()).PostgreSql!.SignInRules.Where(r => r.Method == SignInRule.Ticket).ToList();
        rules.Select(r => r.IncludesRealm).ShouldBe([false, true, true]);
        (rules[2].Option("map"), rules[2].Option("krb_realm")).ShouldBe(("m", "X"));
    }

    [Fact]
    public async Task From_where_a_rule_is_for()
    {
        string[] addresses =
            ["all", "0.0.0.0/0", "::/0", "127.0.0.1/32", "::1/128", "10.1.0.0/16", "db.fennmoor.example", "samenet"];
        server.Configure(Own + string.Join('\n', addresses.Select(a => $"host all all {a} gss")), "");
        var rules = (await server.ReadAsync()).PostgreSql!.SignInRules;
        rules.Where(r => r.Method == SignInRule.Ticket).Select(r => r.Address).ShouldBe(
            [
                SignInAddress.All, SignInAddress.AllOfV4, SignInAddress.AllOfV6, SignInAddress.Loopback, SignInAddress.Loopback,
                SignInAddress.Some, SignInAddress.Some, SignInAddress.Some]);
    }

    [Theory]
    [InlineData("host all all all nonsense", "", "pg_hba.conf has a fault in line 3: ")]
    [InlineData("host all all all gss", "m /(a a", "pg_ident.conf has a fault in line 1: ")]
    public async Task A_file_with_a_fault_is_not_what_the_server_goes_by(string rule, string map, string told)
    {
        server.Configure(Own + rule, map);
        (await server.ReadAsync()).PostgreSql!.SignInUnread.ShouldNotBeNull().ShouldStartWith(told);
    }
}
