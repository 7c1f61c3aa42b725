using System.DirectoryServices.Protocols;
using JustRight.Core.Rights.Directory.Descriptors;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.Directories;

/// <summary>Reads the policies of a domain and where they are linked [MS-GPOL 2.2.2 to 2.2.4]. Their templates do not lie in the directory.</summary>
internal sealed class PolicySurvey(IDirectoryReader directory)
{
    private const string Links = "gPLink";
    private const string Options = "gPOptions";
    private const int Blocks = 1;
    private const int ComputerHalfDisabled = 2;

    /// <summary>What is read of containers and policies, besides the access lists.</summary>
    public static readonly string[] Attributes = [Links, Options, "displayName", "flags", "gPCWQLFilter", "cn"];

    /// <summary>Reads everything; the templates come from elsewhere.</summary>
    public PolicySnapshot Read(CancellationToken cancel)
    {
        var containers = Containers(directory.Root, cancel).Concat(WithoutLinks(cancel)).DistinctBy(c => c.Dn, StringComparer.OrdinalIgnoreCase).ToList();
        var sites = Containers($"CN=Sites,{directory.ConfigurationRoot}", cancel).ToList();
        var policies = directory.Search($"CN=Policies,CN=System,{directory.Root}", SearchScope.OneLevel, EntryFilter.OfClass("groupPolicyContainer"), "cn", "displayName", "flags", "gPCWQLFilter", AccessSurvey.Descriptor)
            .Where(e => Guid.TryParse(e.Text("cn"), out _)).Select(Policy).ToList();
        var nothing = policies.Count == 0 && containers.Count > 0 ? "no policy below CN=Policies,CN=System may be read, though policies are linked" : null;
        return new PolicySnapshot(containers, sites, policies, nothing);
    }

    private IEnumerable<PolicyContainer> Containers(string below, CancellationToken cancel)
    {
        foreach (var entry in directory.Search(below, SearchScope.Subtree, new EntryFilter(Links, []), Links, Options))
        {
            cancel.ThrowIfCancellationRequested();
            yield return new PolicyContainer(entry.Dn, entry.Text(Links) ?? "", (entry.Number(Options) & Blocks) != 0);
        }
    }

    /// <summary>A branch may block without linking anything.</summary>
    private IEnumerable<PolicyContainer> WithoutLinks(CancellationToken cancel)
    {
        foreach (var entry in directory.Search(directory.Root, SearchScope.Subtree, new EntryFilter(Options, []), Links, Options))
        {
            cancel.ThrowIfCancellationRequested();
            yield return new PolicyContainer(entry.Dn, entry.Text(Links) ?? "", (entry.Number(Options) & Blocks) != 0);
        }
    }

    private static GroupPolicy Policy(DirectoryEntry entry)
    {
        string? list = null;
        try
        {
            list = entry.Bytes(AccessSurvey.Descriptor) is { } bytes ? DescriptorText.Write(DescriptorBytes.Read(bytes)) : null;
        }
        catch (DescriptorFormatException)
        {
            // As if it could not be read: whom it applies to is then not known.
        }

        var id = PolicyLink.IdOf(Guid.Parse(entry.Text("cn")!));
        return new GroupPolicy(id, entry.Text("displayName") ?? id, (entry.Number("flags") & ComputerHalfDisabled) != 0, list, null) { QueryFilter = entry.Text("gPCWQLFilter") };
    }
}
