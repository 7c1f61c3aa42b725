using System.DirectoryServices.Protocols;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.Directories;

/// <summary>
/// Reads the policies of a domain and where they are linked [MS-GPOL 2.2.2 to 2.2.4]. Their templates do not lie in the
/// directory.
/// A container that hides its links from the reader looks like one without: its access list tells them apart.
/// </summary>
internal sealed class PolicySurvey(IDirectoryReader directory, DirectorySchema schema)
{
    private const string Links = "gPLink";
    private const string Options = "gPOptions";
    private const int Blocks = 1;
    private const int ComputerHalfDisabled = 2;
    private readonly AccessToken? _reader = ReaderToken.Of(directory);

    /// <summary>What is read of containers and policies, besides the access lists.</summary>
    public static readonly string[] Attributes = [Links, Options, "displayName", "flags", "gPCWQLFilter", "cn"];

    /// <summary>Reads everything; the templates come from elsewhere.</summary>
    public PolicySnapshot Read(CancellationToken cancel)
    {
        var containers = Containers(directory.Root, EntryFilter.OfClass("domainDNS", "organizationalUnit"), cancel);
        var sites = Containers($"CN=Sites,{directory.ConfigurationRoot}", EntryFilter.OfClass("site"), cancel);
        var policies = directory.Search(
            $"CN=Policies,CN=System,{directory.Root}", SearchScope.OneLevel, EntryFilter.OfClass("groupPolicyContainer"), "cn",
            "displayName", "flags", "gPCWQLFilter", AccessSurvey.Descriptor)
            .Where(e => Guid.TryParse(e.Text("cn"), out _)).Select(Policy).ToList();
        var nothing = policies.Count == 0
            && containers.Any(c =>
                c.Links.Length > 0) ? "no policy below CN=Policies,CN=System may be read, although policies are linked"
            : (_reader is null || policies.Count == 0) && containers.All(c => c.Links.Length == 0)
                ? $"neither links ({Links}) nor policies are shown, although every domain has both"
            : null;
        return new PolicySnapshot(containers, [.. sites.Where(s => s.Links.Length > 0)], policies, nothing)
        {
            SitesUnread = sites.Count == 0 ? "no site is shown, although there is always one"
                : sites.FirstOrDefault(s => s.Unread is not null) is { } hidden ? $"{hidden.Dn}: {hidden.Unread}"
                : null,
        };
    }

    private List<PolicyContainer> Containers(string below, EntryFilter filter, CancellationToken cancel)
    {
        var found = new List<PolicyContainer>();
        foreach (var entry in directory.Search(
            below, SearchScope.Subtree, filter, Links, Options, "objectClass", AccessSurvey.Descriptor))
        {
            cancel.ThrowIfCancellationRequested();
            found.Add(new PolicyContainer(
                entry.Dn, entry.Text(Links) ?? "", (entry.Number(Options) & Blocks) != 0, WhyHidden(entry)));
        }

        return found;
    }

    /// <summary>Why an attribute that did not come may be there all the same, or null when all that is there was shown.</summary>
    private string? WhyHidden(DirectoryEntry entry)
    {
        if (_reader is null) return null;
        foreach (var name in new[] { Links, Options }.Where(a => !entry.Has(a)))
        {
            if (DescriptorOf(entry) is not { } list) return $"the reader sees neither {name} nor the ACL that protects it";
            if (schema.Attribute(name) is not { } attribute || entry.Texts("objectClass") is not [.., var own]
                || schema.Class(own) is not { } @class)
                return $"the schema does not tell who may read {name}";
            if (AccessCheck.Judge(list, _reader, AccessQuestion.Read(attribute, @class)).Answer != AccessAnswer.Yes)
                return $"the reader may not read {name}";
        }

        return null;
    }

    private static SecurityDescriptor? DescriptorOf(DirectoryEntry entry)
    {
        try
        {
            return entry.Bytes(AccessSurvey.Descriptor) is { } bytes ? DescriptorBytes.Read(bytes) : null;
        }
        catch (DescriptorFormatException)
        {
            return null; // as if it could not be read
        }
    }

    private static GroupPolicy Policy(DirectoryEntry entry)
    {
        // whom it applies to is not known without
        var list = DescriptorOf(entry) is { } descriptor ? DescriptorText.Write(descriptor) : null;
        var id = PolicyLink.IdOf(Guid.Parse(entry.Text("cn")!));
        return new GroupPolicy(
            id, entry.Text("displayName") ?? id, (entry.Number("flags") & ComputerHalfDisabled) != 0, list, null)
        {
            QueryFilter = entry.Text("gPCWQLFilter"),
        };
    }
}
