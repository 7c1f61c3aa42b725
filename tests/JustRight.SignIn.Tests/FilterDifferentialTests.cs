using System.DirectoryServices.Protocols;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.SignIn.Tests;

/// <summary>What a filter finds by our evaluation is what a real server finds with its text.</summary>
public abstract class FilterDifferentialTests(IPeopleServer server)
{
    private static readonly int Filters = int.Parse(
        Environment.GetEnvironmentVariable("JUSTRIGHT_FILTERS") ?? "20000", System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>Where the server is known to differ from the protocol: with the reason, or null.</summary>
    /// <param name="undefined">The single comparisons of the filter of which nothing can be said for the object.</param>
    private protected abstract string? Explained(Filter filter, ObjectTable table, IEnumerable<Filter> undefined);

    [Fact]
    public async Task Our_evaluation_finds_what_the_server_finds()
    {
        using var connection = server.Write();
        PeopleScene.Write(server, connection);
        using var session = await server.KeeperAsync();
        var table = await ReadAsync(session);
        var unexplained = new Dictionary<string, string>();
        var explained = new Dictionary<string, int>();
        var (found, nothing) = (0, 0);
        var filters = new RandomFilters(table, 20261126);
        for (var i = 0; i < Filters; i++)
        {
            var filter = filters.Next();
            var ours = FilterEvaluator.Matching(filter, table).Select(o => o.Dn).ToHashSet(StringComparer.OrdinalIgnoreCase);
            HashSet<string> theirs = [];
            try
            {
                theirs.UnionWith(session.Search(server.Directory.PeopleIn.Text, SearchScope.Subtree, filter.Text, null).Select(o => o.Dn));
            }
            catch (ConnectorException e)
            {
                unexplained.TryAdd(filter.Text, $"the server says {e.Message}");
                continue;
            }

            if (ours.Count > 0 && ours.Count < table.Objects.Count) found++;
            else nothing++;
            Dictionary<Filter, Truth[]>? leaves = null;
            for (var at = 0; at < table.Objects.Count; at++)
            {
                var different = table.Objects[at];
                if (ours.Contains(different.Dn) == theirs.Contains(different.Dn)) continue;
                leaves ??= Leaves(filter).Distinct().ToDictionary(l => l, l => FilterEvaluator.Evaluate(l, table));
                var undefined = leaves.Where(l => l.Value[at] == Truth.Undefined).Select(l => l.Key);
                if (Explained(filter, table, undefined) is { } why)
                    explained[why] = explained.GetValueOrDefault(why) + 1;
                else
                    unexplained.TryAdd(
                        filter.Text, $"{different.Dn} is found by {(ours.Contains(different.Dn) ? "us" : "the server")} alone");
            }
        }

        TestContext.Current.TestOutputHelper?.WriteLine(
            $"{Filters} filters, {found} find some and not all, {nothing} find none or all; explained: {string.Join(", ", explained.Select(e => $"{e.Key} {e.Value}"))}");
        unexplained.Take(20).Select(u => $"{u.Key}: {u.Value}").ShouldBeEmpty();
        found.ShouldBeGreaterThan(Filters / 4);
    }

    /// <summary>
    /// By the standard ß is ss where case does not count [RFC 3454 table B.2]; both servers write letters small one by one.
    /// </summary>
    [Fact]
    public async Task A_letter_that_becomes_two_is_one_to_the_server()
    {
        var dn = $"{(server.Directory.Family == DirectoryFamily.AdLike ? "CN" : "uid")}=letters,{server.Directory.Root.Text}";
        using (var connection = server.Write())
            connection.Add(
                dn, ("objectClass", [server.Directory.Family == DirectoryFamily.AdLike ? "user" : "inetOrgPerson"]),
                ("sn", ["Straße"]),
                server.Directory.Family == DirectoryFamily.AdLike ? ("sAMAccountName", ["letters"]) : ("cn", ["letters"]));
        using var session = await server.KeeperAsync();
        var (types, classes) = session.Schema();
        var table = new ObjectTable(
            SchemaDescriptions.Read(server.Directory.Family, types, classes),
            [.. session.Search(dn, SearchScope.Base, "(objectClass=*)", null, "sn")], ["sn"]);
        foreach (var (text, ours, theirs) in new[] { ("STRAßE", true, true), ("STRASSE", true, false) })
        {
            var filter = new Filter.Same("sn", FilterValue.Of(text));
            FilterEvaluator.Matching(filter, table).Count.ShouldBe(ours ? 1 : 0, text);
            session.Search(dn, SearchScope.Base, filter.Text, null).Count().ShouldBe(theirs ? 1 : 0, text);
        }
    }

    private async Task<ObjectTable> ReadAsync(IPeopleSession session)
    {
        await Task.CompletedTask;
        var (types, classes) = session.Schema();
        types.Count.ShouldBeGreaterThan(100);
        string[] attributes = [
            .. AttributeMap.Surveyed(server.Directory),
            .. server.Directory.Family == DirectoryFamily.AdLike
                ? (string[])[]
                : ["telephoneNumber", "x121Address", "createTimestamp", "entryUUID", "seeAlso"]];
        return new ObjectTable(
            SchemaDescriptions.Read(server.Directory.Family, types, classes),
            [.. session.Search(server.Directory.PeopleIn.Text, SearchScope.Subtree, "(objectClass=*)", 200, attributes)], attributes);
    }

    /// <summary>Whether a beginning ends with a space or an end begins with one: by the protocol that space counts as one [RFC 4518 2.6.1]; either server has its own way.</summary>
    private protected static bool HasSpaceInside(Filter filter) =>
        Leaves(filter).OfType<Filter.Like>()
            .Any(l => l.Start?.Text?.EndsWith(' ') == true || l.End?.Text?.StartsWith(' ') == true);

    /// <summary>The single comparisons of a filter.</summary>
    private protected static IEnumerable<Filter> Leaves(Filter filter) => filter switch
    {
        Filter.And f => f.Parts.SelectMany(Leaves),
        Filter.Or f => f.Parts.SelectMany(Leaves),
        Filter.Not f => Leaves(f.Part),
        _ => [filter],
    };
}

/// <summary>Against the AD-compatible controller.</summary>
[Collection("the controller's address")]
public sealed class AdLikeFilterTests(StaffServer server) : FilterDifferentialTests(server), IClassFixture<StaffServer>
{
    /// <summary>
    /// The controller takes what cannot be said for false, so that its opposite is true; the protocol leaves both unsaid
    /// [RFC 4511 4.5.1.7]. And the order of text is its own: we say that we do not judge it.
    /// </summary>
    private protected override string? Explained(Filter filter, ObjectTable table, IEnumerable<Filter> undefined) =>
        FilterEvaluator.NotJudged(filter, table).Count > 0 ? "order of text"
        : HasSpaceInside(filter) ? "space at the end of a part"
        : undefined.Any() ? "undefined taken for false" : null;
}

/// <summary>Against the inetOrgPerson directory.</summary>
public sealed class InetOrgPersonFilterTests(ContractorsServer server)
    : FilterDifferentialTests(server), IClassFixture<ContractorsServer>
{
    private protected override string? Explained(Filter filter, ObjectTable table, IEnumerable<Filter> undefined) =>
        HasSpaceInside(filter) ? "space at the end of a part" : null;
}
