using System.DirectoryServices.Protocols;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Sheets;

namespace JustRight.Connectors.Tests;

/// <summary>What undoing leaves behind in a real directory: nothing, whatever was there before.</summary>
public sealed class InverseTests(Controller controller)
{
    private const string Domain = "FENNMOOR", Root = "OU=Undone,DC=fennmoor,DC=example", Inner = $"OU=Inner,{Root}";

    private static readonly string[] Groups = ["undone-one", "undone-two"];
    private static readonly string[] Accounts = ["svc-undone1", "svc-undone2"];

    /// <summary>What every write changes, and no inverse brings back.</summary>
    private static readonly string[] Counters = ["whenChanged", "uSNChanged", "dSCorePropagationData"];

    private static readonly int Rounds = RandomUndoing.Rounds(6);
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);
    private readonly Random _random = new(20261129);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Whatever_was_there_before_undoing_restores_it_and_no_more()
    {
        using var client = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        foreach (var branch in new[] { Root, Inner }) await MakeAsync(new CreateBranch(Domain, branch));
        foreach (var group in Groups) await MakeAsync(Group(group, Root));
        foreach (var account in Accounts) await MakeAsync(Account(account, Inner));

        var undoing = new RandomUndoing(
            c => _directory.ObserveAsync((DirectoryChange)c, Cancel), c => MakeAsync((DirectoryChange)c),
            () => Task.FromResult<IReadOnlySet<string>>(State(client)));
        for (var round = 0; round < Rounds; round++)
        {
            client.Protect(Inner, client.Descriptor(Inner).WithProtection(true));
            await undoing.RoundAsync(() => Task.FromResult(Any(client)), 10, 32, round);
        }

        undoing.Skipped.ShouldBeGreaterThan(Rounds, "what was true already is to be met, and left alone");
        undoing.Made.Keys.Order().ShouldBe([
            nameof(AddAccessRule), nameof(AddMember), nameof(AddServiceName), nameof(AllowDelegation), nameof(CreateAccount),
            nameof(CreateBranch), nameof(CreateGroup), nameof(DescribeAccount), nameof(DisableAccount), nameof(EnableAccount),
            nameof(EndDelegation), nameof(EndDelegationTrust), nameof(RemoveAccessRule), nameof(RemoveMember),
            nameof(RemoveServiceName), nameof(SwitchInheritance), nameof(TrustForDelegation),
        ]);
    }

    private Task MakeAsync(DirectoryChange change) =>
        _directory.MakeAsync(change, change is CreateAccount ? NewPassword.Generate() : null, Cancel);

    private static CreateGroup Group(string name, string branch) =>
        new(Domain, name, $"CN={name},{branch}", GroupScope.Global, "new") { Note = "ours" };

    private static CreateAccount Account(string name, string branch) =>
        new(Domain, name, $"CN={name},{branch}", $"{name}@fennmoor.example", "new", true) { Note = "ours" };

    private Change Any(RawClient client)
    {
        var (account, branch, number) = (One(Accounts), One([Root, Inner]), _random.Next(3));
        var rule = new AccessRule(
            $@"{Domain}\{One([Groups[0], Accounts[0]])}", number == 0, AccessRights.WriteProperty, null, null,
            AceFlags.ContainerInherit);
        switch (_random.Next(17))
        {
            case 0: return new CreateBranch(Domain, $"OU=New{number},{Root}");
            case 1: return Account($"svc-undone-new{_random.Next(12)}", branch);
            case 2: return Group($"undone-new{number}", branch);
            case 3: return new AddMember(Domain, One(Groups), account);
            case 4: return new RemoveMember(Domain, One(Groups), account);
            case 5: return Describe(client, account, $"text {number}", number == 0);
            case 11: return new AddServiceName(Domain, account, $"HTTP/web{number}.undone");
            case 12: return new RemoveServiceName(Domain, account, $"HTTP/web{number}.undone");
            case 13: return new AllowDelegation(Domain, account, "HTTP/acted.undone");
            case 14: return new EndDelegation(Domain, account, "HTTP/acted.undone");
            case 15: return new TrustForDelegation(Domain, account);
            case 16: return new EndDelegationTrust(Domain, account);
            case 6: return new DisableAccount(Domain, account);
            case 7: return new EnableAccount(Domain, account);
            case 8: return new AddAccessRule(Domain, branch, rule, "write its attributes");
            case 9: return new RemoveAccessRule(Domain, branch, rule, "write its attributes", Place(client, branch, rule));
            default:
                return new SwitchInheritance(
                    Domain, Inner, true, DescriptorText.Write(client.Descriptor(Inner).DaclOnly));
        }

        T One<T>(IReadOnlyList<T> all) => all[_random.Next(all.Count)];
    }

    private static DescribeAccount Describe(RawClient client, string account, string text, bool neverExpires)
    {
        const int passwordNeverExpires = 0x10000; // userAccountControl, ADS_UF_DONT_EXPIRE_PASSWD
        var entry = client.Entry($"CN={account},{Inner}", "description", "userAccountControl")!;
        var flags =
            int.Parse((string)entry.Attributes["userAccountControl"][0], System.Globalization.CultureInfo.InvariantCulture);
        return new DescribeAccount(
            Domain, account, text, neverExpires, (string)entry.Attributes["description"][0], (flags & passwordNeverExpires) != 0);
    }

    /// <summary>Where an entry stands among the others, as what takes one away knows; null when it is not there.</summary>
    private static int? Place(RawClient client, string dn, AccessRule rule)
    {
        var name = LogonName.WithoutDomain(rule.Principal);
        var found = client.Search(Root, SearchScope.Subtree, $"(sAMAccountName={name})", "objectSid").Single();
        Sid.TryFromBytes((byte[])found.Attributes["objectSid"].GetValues(typeof(byte[]))[0], out var sid).ShouldBeTrue();
        var at = client.Descriptor(dn).Entries.ToList().IndexOf(rule.ToAce(sid));
        return at < 0 ? null : at;
    }

    /// <summary>
    /// Every attribute and access list of every object below the branch; what points back at them from elsewhere too.
    /// </summary>
    private static HashSet<string> State(RawClient client)
    {
        var lines = new HashSet<string>(StringComparer.Ordinal);
        foreach (var found in client.Search(Root, SearchScope.Subtree, "(objectClass=*)", "*"))
        {
            lines.Add($"{found.DistinguishedName}: {DescriptorText.Write(client.Descriptor(found.DistinguishedName))}");
            foreach (DirectoryAttribute attribute in found.Attributes.Values)
            {
                if (Counters.Contains(attribute.Name)) continue;
                var values = attribute.GetValues(typeof(byte[])).Cast<byte[]>().Select(Convert.ToHexString).Order();
                lines.Add($"{found.DistinguishedName}: {attribute.Name} = {string.Join(' ', values)}");
            }
        }

        return lines;
    }
}
