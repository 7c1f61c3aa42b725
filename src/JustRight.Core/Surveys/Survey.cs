namespace JustRight.Core.Surveys;

/// <summary>What was read of an estate at one time, and what could not be read.</summary>
/// <param name="Estate">The estate's name.</param>
/// <param name="TakenAt">When the reading ended.</param>
/// <param name="Simulated">Whether the estate is the simulation.</param>
public sealed record Survey(
    string Estate, DateTimeOffset TakenAt, bool Simulated, DirectorySnapshot Directory, IReadOnlyList<HostSnapshot> Hosts,
    IReadOnlyList<InstanceSnapshot> Instances)
{
    /// <summary>The parts that could not be read, in words, in a fixed order.</summary>
    public IEnumerable<UnreadPlace> UnreadParts()
    {
        if (Directory.Unread is not null)
            yield return new UnreadPlace($"the directory of {Directory.Domain}", Directory.Unread, Directory.ReadAt);
        foreach (var group in Directory.Principals.Where(p => p.MembersUnread is not null))
            yield return new UnreadPlace(
                $"the members of {Directory.Domain}\\{group.Name}", group.MembersUnread!, Directory.ReadAt);
        foreach (var hidden in Directory.Principals.SelectMany(p => p.HiddenGroups.Select(h => (Group: h, p.Name))).GroupBy(
            h => h.Group, h => h.Name, StringComparer.OrdinalIgnoreCase).OrderBy(h => h.Key, StringComparer.OrdinalIgnoreCase))
            yield return new UnreadPlace(
                hidden.Key,
                $"{Directory.Domain}\\{hidden.First()}{(hidden.Count() == 1 ? " says it is" : $" and {hidden.Count() - 1} more say they are")} in this group, and it may not be read",
                Directory.ReadAt);
        foreach (var part in Directory.Access?.Unread ?? [])
            yield return new UnreadPlace(part.Part, part.Reason, Directory.ReadAt);
        if (Directory.Policies is { } policies)
        {
            if (policies.Unread is not null)
                yield return new UnreadPlace("the policies of the domain", policies.Unread, Directory.ReadAt);
            foreach (var policy in policies.Policies.Where(p =>
                p.Lists is null && !Hosts.Any(h => h.Policies?.Any(a => a.Id == p.Id && a.Lists is not null) == true)))
                yield return new UnreadPlace(
                    $"the template of policy {policy.Name}", policy.ListsUnread ?? "it was not given", Directory.ReadAt);
        }

        foreach (var host in Hosts)
        {
            if (host.Unread is not null) yield return new UnreadPlace(host.Name, host.Unread, host.ReadAt, host.Name);
            foreach (var part in host.UnreadParts)
                yield return new UnreadPlace($"{part.Part} on {host.Name}", part.Reason, host.ReadAt, host.Name);
        }

        foreach (var instance in Instances)
        {
            if (instance.Unread is not null) yield return new UnreadPlace(instance.Name, instance.Unread, instance.ReadAt, instance.Name);
            foreach (var part in instance.UnreadParts)
                yield return new UnreadPlace($"{part.Part} of {instance.Name}", part.Reason, instance.ReadAt, instance.Name);
            if (instance.PostgreSql?.SignInUnread is { } signIn)
                yield return new UnreadPlace($"the roles of accounts at {instance.Name}", signIn, instance.ReadAt, instance.Name);
            foreach (var database in instance.Databases.Where(d => d.Unread is not null))
                yield return new UnreadPlace($"{instance.Name}/{database.Name}", database.Unread!, instance.ReadAt, instance.Name);
        }
    }
}

/// <summary>A part of the estate that could not be read.</summary>
/// <param name="Of">The host or the instance that it is a part of; empty for parts of the directory.</param>
public sealed record UnreadPlace(string Place, string Reason, DateTimeOffset At, string Of = "");
