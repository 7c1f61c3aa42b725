using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Directory;

namespace JustRight.Connectors.Tests;

/// <summary>A group of 20,000 members, as controllers send it that answer in ranges, and as those do that do not; and a referral.</summary>
public sealed class LargeGroupTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example";
    private const string Branch = "OU=Large," + Root;
    private const string Group = "CN=everyone-at-the-dairy," + Branch;
    private const int Members = 20_000;
    private const int RangeSize = 1500;
    private static readonly Sid Domain = Sid.Parse("S-1-5-21-1-2-3");
    private int _ranges;
    private int _requests;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Every_member_is_read_in_ranges_or_in_one_answer(bool inRanges)
    {
        using var simulated = new SimulatedController(controller, s => Answer(s, inRanges ? int.MaxValue : -1));
        var read = await new LdapDirectory(simulated.Target, new DirectorySchemas(), TimeProvider.System)
            .ReadAsync(new DirectoryScope([Branch], []), Cancel);
        var group = read.Principals.Single(p => p.Dn == Group);
        (group.Members.Count, group.MembersUnread).ShouldBe((Members, null));
        group.Members.Order().ShouldBe(Enumerable.Range(0, Members).Select(SidOf).Order());
        _ranges.ShouldBe(inRanges ? 13 : 0);
        _requests.ShouldBeLessThan(Members / 40); // members from elsewhere are read many at once
    }

    [Fact]
    public async Task A_group_that_breaks_off_in_the_middle_is_unread_and_what_was_read_is_kept()
    {
        using var simulated = new SimulatedController(controller, s => Answer(s, 3));
        var read = await new LdapDirectory(simulated.Target, new DirectorySchemas(), TimeProvider.System)
            .ReadAsync(new DirectoryScope([Branch], []), Cancel);
        var group = read.Principals.Single(p => p.Dn == Group);
        (group.Members.Count, group.MembersUnread).ShouldBe((4 * RangeSize, "only the first 6000 of its members could be read"));
    }

    [Fact]
    public async Task A_referral_is_no_absence()
    {
        using var simulated = new SimulatedController(controller, s => s.BaseDn == Branch ? (10, []) : Answer(s, -1));
        var failure = await Should.ThrowAsync<ConnectorException>(() =>
            new LdapDirectory(simulated.Target, new DirectorySchemas(), TimeProvider.System)
                .ReadAsync(new DirectoryScope([Branch], []), Cancel));
        failure.Message.ShouldContain($"reading {Branch} failed: this domain controller refers to another directory");
    }

    /// <param name="moreRanges">How many ranges after the first it gives; negative to send all at once.</param>
    private (int, IEnumerable<SentEntry>) Answer(AskedSearch asked, int moreRanges)
    {
        _requests++;
        if (asked.BaseDn.Length == 0)
            return (
                0,
                [new SentEntry(
                    "", SimulatedController.Text("defaultNamingContext", Root),
                    SimulatedController.Text("configurationNamingContext", "CN=Configuration," + Root),
                    SimulatedController.Text("dnsHostName", "fm-simulated.fennmoor.example"))]);
        if (asked.Attributes.FirstOrDefault(a => a.StartsWith("member;range=", StringComparison.Ordinal)) is { } range)
        {
            _ranges++;
            if (_ranges > moreRanges) return (0, [new SentEntry(Group)]);
            return (
                0,
                [new SentEntry(
                    Group,
                    Range(int.Parse(
                        range["member;range=".Length..].Split('-')[0], System.Globalization.CultureInfo.InvariantCulture)))]);
        }

        if (asked.BaseDn == Root && asked.Values.Count > 0)
            return (
                0,
                asked.Values.Where(v => v.StartsWith("CN=m", StringComparison.Ordinal))
                    .Select(v =>
                        new SentEntry(
                            v, OwnSid(SidOf(Number(v))), SimulatedController.Text("objectClass", "top", "user"),
                            SimulatedController.Text("sAMAccountName", $"m{Number(v)}"))));
        if (asked.BaseDn == Root) return (0, [new SentEntry(Root, OwnSid(Domain))]);
        if (asked.BaseDn != Branch) return (32, []);
        var members = moreRanges < 0 ? SimulatedController.Text("member", Enumerable.Range(0, Members).Select(Dn)) : Range(0);
        return (
            0,
            [new SentEntry(
                Group, OwnSid(Domain.Append(900)), SimulatedController.Text("objectClass", "top", "group"),
                SimulatedController.Text("sAMAccountName", "everyone-at-the-dairy"),
                SimulatedController.Text("groupType", "-2147483646"), members)]);
    }

    private static (string, byte[][]) Range(int from)
    {
        var last = from + RangeSize >= Members;
        return SimulatedController.Text(
            $"member;range={from}-{(last ? "*" : from + RangeSize - 1)}",
            Enumerable.Range(from, Math.Min(RangeSize, Members - from)).Select(Dn));
    }

    private static string Dn(int number) => $"CN=m{number},CN=Users,{Root}";

    private static int Number(string dn) =>
        int.Parse(dn[4..dn.IndexOf(',', StringComparison.Ordinal)], System.Globalization.CultureInfo.InvariantCulture);

    private static Sid SidOf(int number) => Domain.Append((uint)(10_000 + number));

    private static (string, byte[][]) OwnSid(Sid sid) => ("objectSid", [sid.ToBytes()]);
}
