using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Databases;

/// <summary>
/// Rules of sign-in of the PostgreSQL family, each a line of <c>pg_hba.conf</c>; roles <c>a</c>, <c>B</c>, <c>team</c> (with
/// <c>a</c> in it) and <c>boss</c> (a superuser), databases <c>Store</c>, <c>a</c> and <c>team</c>. What the lines decide is
/// proved against a real server elsewhere as far as passwords reach; here stands what tickets, maps, addresses and the
/// directory's passwords add.
/// </summary>
public sealed class SignInTests
{
    private const string Ticket = "gss include_realm=true map=m";

    [Theory]
    [InlineData("a", "a", "Store", "Open", "host all all all gss")] // [The pg_hba.conf File]: the ticket's name without its realm
    [InlineData("a", "B", "Store", "Shut", "host all all all gss")]
    [InlineData("a", "a", "Store", "Shut", "host all all all gss include_realm=true")] // then no role has that name
    [InlineData("a", "a", "Store", "Open", "host all all all " + Ticket)]
    [InlineData("a", "a", "Store", "Shut", "host all all all scram-sha-256", "host all all all gss")] // the first decides
    [InlineData("a", "a", "Store", "Shut", "host all all all reject", "host all all all gss")]
    [InlineData("a", "a", "Store", "Open", "host a all all reject", "host all all all gss")] // it is for another database
    [InlineData("a", "a", "a", "Shut", "host a all all reject", "host all all all gss")]
    [InlineData("a", "a", "Store", "Open", "host all B all reject", "host all all all gss")] // and this for another role
    [InlineData("a", "a", "a", "Open", "host sameuser all all gss")]
    [InlineData("a", "a", "Store", "Shut", "host sameuser all all gss")]
    [InlineData("a", "a", "team", "Open", "host samerole all all gss")]
    [InlineData("B", "B", "team", "Shut", "host samerole all all gss")]
    [InlineData("a", "a", "Store", "Shut", "host replication all all gss")]
    [InlineData("a", "a", "Store", "Open", "host all +team all gss")]
    [InlineData("B", "B", "Store", "Shut", "host all +team all gss")]
    [InlineData("boss", "boss", "Store", "Shut", "host all +team all gss")] // a superuser is in a role only when it truly is
    [InlineData("a", "a", "Store", "Shut", "local all all all gss")] // the machine's own socket
    [InlineData("a", "a", "Store", "Open", "hostssl all all all reject", "host all all all gss")] // another way than by TLS
    [InlineData("a", "a", "Store", "Open", "hostnossl all all all reject", "hostssl all all all gss")]
    [InlineData("a", "a", "Store", "Shut", "hostssl all all all reject", "hostnossl all all all reject", "host all all all gss")]
    [InlineData("a", "a", "Store", "Open", "hostnogssenc all all all reject", "host all all all gss")] // and then by Kerberos
    [InlineData("a", "a", "Store", "Open", "host all all v4 reject", "host all all v6 gss")]
    [InlineData("a", "a", "Store", "Shut", "host all all v4 reject", "host all all v4 gss")]
    [InlineData("a", "a", "Store", "Open", "host all all loopback reject", "host all all all gss")] // it comes by the network
    [InlineData("a", "a", "Store", "Unseen", "host all all loopback gss", "host all all all reject")]
    [InlineData("a", "a", "Store", "Unseen", "host all all some gss")] // whether its host is among them is not known
    [InlineData("a", "a", "Store", "Unseen", "host all all some reject", "host all all all gss")]
    [InlineData("a", "a", "Store", "Open", "host all all all gss krb_realm=X.EXAMPLE")]
    [InlineData("a", "a", "Store", "Shut", "host all all all gss krb_realm=Y.EXAMPLE")]
    [InlineData("a", "a", "Store", "Unseen", "host all all all gss clientcert=verify-ca")]
    [InlineData("a", "a", "Store", "Unseen", "host all /^a all gss")] // from release 16 on
    [InlineData("b", "B", "Store", "Open", "host all all all ldap")] // the directory does not mind the case
    [InlineData("b", "B", "Store", "Shut", "host all all all gss")]
    [InlineData("a", "a", "Store", "Open", @"host all all all ldap ldapprefix=X\")]
    [InlineData("a", "a", "Store", "Unseen", "host all all all ldap ldapprefix=cn=")]
    [InlineData("a", "a", "Store", "Unseen", "host all all all ldap ldapsearchattribute=mail")]
    [InlineData("a", "a", "Store", "Open", "host all all all ldap ldapsearchattribute=sAMAccountName")]
    [InlineData("a", "a", "Store", "Unseen", "host all all all ldap ldapsearchfilter=(cn=$username)")]
    [InlineData("a", "a", "Store", "Open", "host all all all sspi")]
    [InlineData("a", "a", "Store", "Unseen", "host all all all sspi include_realm=true map=m")]
    [InlineData("a", "a", "Store", "Shut", "host all all all trust")] // whoever comes is anybody, and nobody
    public void A_line_is_for(string account, string role, string database, string state, params string[] lines) =>
        At(account, role, database, lines, new NameMapLine("m", @"/^(.*)@X\.EXAMPLE$", @"\1")).State.ToString().ShouldBe(state);

    [Theory]
    [InlineData("a", "B", "Open", "a@X.EXAMPLE B", @"/^(.*)@X\.EXAMPLE$ \1")] // two lines are two answers
    [InlineData("a", "a", "Open", "a@X.EXAMPLE B", @"/^(.*)@X\.EXAMPLE$ \1")]
    [InlineData("a", "team", "Shut", "a@X.EXAMPLE B", @"/^(.*)@X\.EXAMPLE$ \1")]
    [InlineData("a", "a", "Shut", "A@X.EXAMPLE a")] // exact in case
    [InlineData("a", "B", "Open", "/^a.*$ B")]
    [InlineData("a", "a", "Shut", @"/^.*$ \1", @"/^(.*)@X\.EXAMPLE$ \1")] // no group to put in: the engine stops there
    [InlineData("a", "B", "Open", "/^a B", @"/^.*$ \1")] // what was found before counts
    [InlineData("a", "a", "Unseen", "/^(a|b)@.*$ a")] // a pattern that is not told here
    [InlineData("a", "B", "Open", "a@X.EXAMPLE B", "/^(a|b)@.*$ a")]
    [InlineData("a", "aa", "Shut", @"/^(.).*$ \1\1")] // put in once only, and there is no such role
    public void A_map_turns_a_ticket_into(string account, string role, string state, params string[] map) =>
        At(account, role, "Store", ["host all all all " + Ticket], [.. map.Select(l => l.Split(' ')).Select(Line)])
            .State.ToString().ShouldBe(state);

    [Fact]
    public void Names_in_tickets_may_be_compared_without_regard_to_case()
    {
        var catalog = Catalog(["host all all all gss"]) with { KerberosIgnoresCase = true };
        var signIns = new RoleAuthority(catalog).SignIns;
        signIns.At(new DomainName("b", "x.example"), "B", "Store").State.ShouldBe(GateState.Open);
        signIns.RolesOf(new DomainName("b", "x.example")).ShouldBe(["B"]);
    }

    [Theory]
    [InlineData("new", "new|", "host all all all gss")]
    [InlineData("new", "new|team", "host all +team all gss")]
    [InlineData("new", "new|team", "host all B all gss", "host all +team all gss")]
    [InlineData("new", "", "host all all all scram-sha-256", "host all all all gss")]
    [InlineData("new", "", "host all +nobody all gss")]
    [InlineData("new", "", "host all all some gss")] // only from there: nobody knows whether that is enough
    public void A_new_role_is_called_and_put_into(string account, string expected, params string[] lines)
    {
        var found = new RoleAuthority(Catalog(lines)).SignIns.ForRole(new DomainName(account, "x.example"), "Store");
        (found is var (role, into) ? $"{role}|{into}" : "").ShouldBe(expected);
    }

    [Fact]
    public void Why_it_is_not_known_is_told()
    {
        At("a", "a", "Store", ["host all all some gss"]).Why.ShouldBe("it may sign in as a from some alone");
        At("a", "a", "Store", ["host all all some reject", "host all all all gss"]).Why
            .ShouldBe("from some it may not sign in as a, from elsewhere it may");
        At("a", "a", "Store", ["host all B all gss"]).Why.ShouldBe("no rule of sign-in lets it in to Store as a");
        new RoleAuthority(Catalog(["host all all all " + Ticket], new NameMapLine("m", "/(a|b)", "a"))).SignIns.WhyNamesUnknown
            .ShouldBe("the name map m has a pattern that Just Right cannot tell: /(a|b)");
    }

    private static NameMapLine Line(string[] words) => new("m", words[0], words[1]);

    private static Gate At(string account, string role, string database, string[] lines, params NameMapLine[] map) =>
        new RoleAuthority(Catalog(lines, map)).SignIns.At(new DomainName(account, "x.example"), role, database);

    private static PostgreSqlCatalog Catalog(string[] lines, params NameMapLine[] map) => new(
        [
            Role("a"), Role("B"), Role("team"),
            new PostgreSqlRole("boss", RoleAttributes.Login | RoleAttributes.Inherit | RoleAttributes.Superuser),
        ],
        [new PostgreSqlMembership("a", "team", true, true, false)],
        [.. new[] { "Store", "a", "team" }.Select(d => new PostgreSqlDatabase(d, "boss", [], null, [], []))],
        [.. lines.Select(Rule)], map);

    private static PostgreSqlRole Role(string name) => new(name, RoleAttributes.Login | RoleAttributes.Inherit);

    private static SignInRule Rule(string line)
    {
        var words = line.Split(' ');
        var address = words[3] switch
        {
            "v4" => SignInAddress.AllOfV4,
            "v6" => SignInAddress.AllOfV6,
            "loopback" => SignInAddress.Loopback,
            "some" => SignInAddress.Some,
            _ => SignInAddress.All,
        };
        return new SignInRule(words[0], [words[1]], [words[2]], address, words[4], words[5..]) { AddressWords = words[3] };
    }
}
