using System.DirectoryServices.Protocols;
using System.Text.RegularExpressions;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Files;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Formats.Ldif;

namespace JustRight.Connectors.Tests;

/// <summary>A directory read from a file that an ordinary client wrote, by the commands of the manual: it says what a connection says.</summary>
public sealed partial class FileDirectoryTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example";
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_file_says_what_a_connection_says()
    {
        var branch = await LayAsync("Filed");
        var file = await ReadFileAsync(await DirectoryExport.RunAsync(controller, Cancel));
        file.ReadAt.ShouldNotBeNull().ShouldBe(DateTimeOffset.UtcNow, TimeSpan.FromMinutes(5));
        var scope = new DirectoryScope([branch], ["svc-filed", "no-such-account"])
        {
            Access = new AccessScope([branch], [], true),
        };
        var over = await _directory.ReadAsync(scope, Cancel);
        var from = await Connector(file).ReadAsync(scope, Cancel);

        from.DomainSid.ShouldBe(over.DomainSid);
        from.Branches.ShouldBe(over.Branches);
        from.ReadFrom.ShouldBe("fm-dc01.fennmoor.example (file directory.ldif)");
        from.Remarks.ShouldHaveSingleItem().ShouldContain("directory.ldif");
        // Other tests change the directory meanwhile: what is of this branch is compared, and the groups above it.
        Texts(from, branch).ShouldBe(Texts(over, branch));
        Texts(from, branch).ShouldContain(t => t.Contains("svc-filed", StringComparison.Ordinal));
        var (there, here) = (from.Access!, over.Access!);
        there.Schema.Version.ShouldBe(here.Schema.Version);
        (there.Schema.Attributes.Count, there.Schema.Classes.Count, there.Schema.Rights.Count)
            .ShouldBe((here.Schema.Attributes.Count, here.Schema.Classes.Count, here.Schema.Rights.Count));
        there.WholeBranches.ShouldBe([branch]);
        there.Unread.ShouldBeEmpty();
        Lists(there, branch).ShouldBe(Lists(here, branch));

        // The manual's commands leave policies out: that is not the same as there being none.
        var policies = (await Connector(file).ReadAsync(scope with { Policies = true }, Cancel)).Policies!;
        (policies.Unread is not null, policies.SitesUnread is not null).ShouldBe((true, true));
    }

    [Fact]
    public async Task What_a_file_cannot_tell_is_unread()
    {
        var branch = await LayAsync("Partial");
        var text = await DirectoryExport.RunAsync(controller, Cancel);
        var scope = new DirectoryScope([branch], []) { Access = new AccessScope([branch], [], false) };

        var nobody = await Connector(await ReadFileAsync(TokenLine().Replace(text, ""))).ReadAsync(scope, Cancel);
        nobody.Access!.Unread.ShouldContain(u =>
            u.Part == branch && u.Reason.Contains("does not say who exported it", StringComparison.Ordinal));

        var holed = await Connector(await ReadFileAsync(Without(text, $"OU=Inner,{branch}"))).ReadAsync(scope, Cancel);
        holed.Access!.Unread.ShouldContain(u =>
            u.Part == $"OU=Inner,{branch}" && u.Reason.Contains("not in the file", StringComparison.Ordinal));

        var groupless = await Connector(await ReadFileAsync(Without(text, $"CN=partial-agents,{branch}")))
            .ReadAsync(new DirectoryScope([], ["svc-partial"]), Cancel);
        groupless.Principals.Single(p => p.Name == "svc-partial").HiddenGroups.ShouldBe([$"CN=partial-agents,{branch}"]);

        var schemaless = await Connector(await ReadFileAsync(Without(text, $"CN=Schema,CN=Configuration,{Root}")))
            .ReadAsync(scope, Cancel);
        schemaless.Access!.Schema.Version.ShouldBe("built-in");
        schemaless.Remarks.ShouldContain(r => r.StartsWith("The file holds no schema", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_file_is_never_changed_and_says_so()
    {
        var connector = Connector(new DirectoryFile("directory.ldif", Root, []));
        (await Should.ThrowAsync<ConnectorException>(() =>
            connector.MakeAsync(
                new CreateBranch("FENNMOOR", $"OU=Never,{Root}"), null, Cancel))).Message.ShouldContain("justright ldif");
        (await Should.ThrowAsync<ConnectorException>(() =>
            connector.ReadAsync(new DirectoryScope([], []), Cancel))).Message.ShouldContain(Root);
        (await connector.ReadReplicasAsync(Root, Cancel)).ShouldHaveSingleItem().Unread.ShouldNotBeNull();
    }

    /// <summary>A branch with an account in a group in a group, and a list of its own on a branch inside.</summary>
    private async Task<string> LayAsync(string name)
    {
        var (branch, low) = ($"OU={name} Käse,{Root}", name.ToLowerInvariant());
        foreach (var change in new DirectoryChange[]
        {
            new CreateBranch("FENNMOOR", branch), new CreateBranch("FENNMOOR", $"OU=Inner,{branch}"),
            new CreateGroup(
                "FENNMOOR", $"{low}-agents", $"CN={low}-agents,{branch}", GroupScope.Global, "holds the copier; für alle"),
            new CreateGroup("FENNMOOR", $"{low}-outer", $"CN={low}-outer,OU=Inner,{branch}", GroupScope.DomainLocal, ""),
            new CreateAccount("FENNMOOR", $"svc-{low}", $"CN=svc-{low},{branch}", $"svc-{low}@fennmoor.example", "copies", true),
            new AddMember("FENNMOOR", $"{low}-agents", $"svc-{low}"), new AddMember("FENNMOOR", $"{low}-outer", $"{low}-agents"),
        }) await _directory.MakeAsync(change, change is CreateAccount ? NewPassword.Generate() : null, Cancel);
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        var inner = raw.Descriptor($"OU=Inner,{branch}");
        raw.TryReplace(
            $"OU=Inner,{branch}", "nTSecurityDescriptor",
            DescriptorBytes.Write(inner.WithEntries([.. inner.Entries.Where(e => !e.IsInherited)]).WithProtection(true).DaclOnly))
            .ShouldBe(ResultCode.Success);
        return branch;
    }

    private static FileDirectory Connector(DirectoryFile file) =>
        new(file, Controller.Domain, new DirectorySchemas(), file.ReadAt ?? DateTimeOffset.UtcNow);

    private static Task<DirectoryFile> ReadFileAsync(string text)
    {
        using var lines = new StringReader(text);
        var (entries, faults) = LdifReader.Read(lines, "directory.ldif", DirectoryFile.Attributes.Contains);
        faults.ShouldBeEmpty();
        return Task.FromResult(new DirectoryFile("directory.ldif", Root, entries));
    }

    private static List<string> Texts(DirectorySnapshot snapshot, string branch)
    {
        var names = snapshot.Principals.ToDictionary(p => p.Sid, p => p.Name);
        return [.. snapshot.Principals.Where(p => p.Dn.EndsWith(branch, StringComparison.Ordinal)).Select(p =>
            $"{p.Sid} {p.Kind} {p.Name} {p.Dn} '{p.Description}' {p.PrimaryGroupRid} {p.State} {p.Flags} {p.PasswordSetAt:O} {p.PasswordExpiresAt:O} {p.EndsAt:O} {p.Scope} {p.IsSecurity} [{string.Join(' ', p.Members.Select(m => names[m]))}] {p.MembersUnread}")];
    }

    private static List<string> Lists(AccessSnapshot access, string branch) =>
        [.. access.Objects.Where(o => o.Dn.EndsWith(branch, StringComparison.Ordinal)).OrderBy(
            o => o.Dn, StringComparer.Ordinal).Select(
            o => $"{o.Dn} {o.Class} {o.Sid} {o.IsAdminHeld} {DescriptorText.Write(access.Descriptors[o.Descriptor])}")];

    private static string Without(string text, string dn)
    {
        using var lines = new StringReader(text);
        using var rest = new StringWriter();
        LdifEntry.Write(LdifReader.Read(lines, "x", _ => true).Entries.Where(e => e.Dn != dn), rest);
        return rest.ToString();
    }

    [GeneratedRegex("^tokenGroups::? .*\n", RegexOptions.Multiline)]
    private static partial Regex TokenLine();
}
