using JustRight.Connectors;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;

namespace JustRight.Service.Jobs.Traces;

/// <summary>The directory as it was read for questions about access.</summary>
/// <param name="Objects">Distinguished names of the objects that were asked for, in their order; those not found as they were
/// written.</param>
internal sealed record DirectoryReading(
    DirectorySnapshot Read, MembershipGraph Graph, AccessTree Tree, IReadOnlyList<string> Objects)
{
    /// <summary>Reads accounts and groups by name, what is below branches, and single objects.</summary>
    /// <param name="objects">Distinguished names, or logon names: those are found first.</param>
    /// <exception cref="ConnectorException">It cannot be reached, or its access lists cannot be read.</exception>
    public static async Task<DirectoryReading> TakeAsync(
        IDirectoryConnector directory, IReadOnlyList<string> names, IReadOnlyList<string> branches, IReadOnlyList<string> objects,
        CancellationToken cancel)
    {
        var byName = objects.Where(o => !o.Contains('=', StringComparison.Ordinal)).Distinct(StringComparer.OrdinalIgnoreCase)
            .ToList();
        if (byName.Count > 0)
        {
            var found = (await directory.ReadAsync(new DirectoryScope([], byName), cancel)).Principals.GroupBy(
                p => p.Name, StringComparer.OrdinalIgnoreCase)
                .ToDictionary(p => p.Key, p => p.First().Dn, StringComparer.OrdinalIgnoreCase);
            objects = [.. objects.Select(o => found.GetValueOrDefault(o, o))];
        }

        var access = new AccessScope(
            branches, [.. objects.Where(o => o.Contains('=', StringComparison.Ordinal))], AllContainers: false);
        var read = await directory.ReadAsync(new DirectoryScope([], names) { Access = access }, cancel);
        return new DirectoryReading(
            read, new MembershipGraph(read),
            new AccessTree(read.Access ?? throw new ConnectorException(
                ConnectorFailure.NotAllowed, "the ACLs of the directory could not be read.")),
            objects);
    }

    /// <summary>The node of an account.</summary>
    /// <exception cref="ConnectorException">There is none.</exception>
    public int NodeOf(string account, Estate estate) => Graph.IndexOf(account) is >= 0 and var node
        ? node
        : throw new ConnectorException(
            ConnectorFailure.NotFound, $"there is no account {account} in {estate.Domain.ShortName}.");
}
