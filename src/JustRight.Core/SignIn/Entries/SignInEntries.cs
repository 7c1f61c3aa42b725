using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.SignIn.Entries;

/// <summary>Something to be made in a directory of people that is not the estate's domain. A closed hierarchy.</summary>
/// <param name="Dn">The distinguished name.</param>
public abstract record SignInEntry(string Dn)
{
    /// <summary>The account that the product binds as.</summary>
    public sealed record Account(string Dn, string LogonName) : SignInEntry(Dn);

    /// <summary>A group with its members.</summary>
    /// <param name="Class">Its class.</param>
    /// <param name="Attribute">The attribute with its members.</param>
    /// <param name="Members">Their distinguished names, or logon names where the class has those.</param>
    public sealed record Group(string Dn, string Name, string Class, string Attribute, IReadOnlyList<string> Members)
        : SignInEntry(Dn);

    /// <summary>Members of a group that is there.</summary>
    public sealed record MoreMembers(string Dn, string Attribute, IReadOnlyList<string> Added) : SignInEntry(Dn);

    /// <summary>Something that cannot be made, with the reason.</summary>
    public sealed record Impossible(string Dn, string Why) : SignInEntry(Dn);
}

/// <summary>
/// What a sign-in rests on in a directory of the inetOrgPerson family, and is not there. In the estate's own domain the worklist
/// makes it.
/// </summary>
public static class SignInEntries
{
    /// <summary>What is to be made, in the order in which it has to be.</summary>
    /// <param name="read">The people and groups last read; null when they were not.</param>
    /// <param name="bound">Whether the account has bound: the branch that it is in may be none that is read.</param>
    public static IReadOnlyList<SignInEntry> Of(PlannedSignIn plan, ObjectTable? read, bool bound)
    {
        var directory = plan.Directory;
        if (directory.Family == DirectoryFamily.AdLike) return [];
        var there = (read?.Objects ?? []).ToDictionary(o => ComparedName.KeyOf(o.Dn), StringComparer.Ordinal);
        var entries = new List<SignInEntry>();
        if (!bound && plan is { BindDn: { } bind, Wants.BindsAs: BindsAs.Account }
            && !there.ContainsKey(ComparedName.KeyOf(bind)))
            entries.Add(LogonNameOf(bind) is { } name
                ? new SignInEntry.Account(bind, name)
                : new SignInEntry.Impossible(bind, "its name does not begin with uid or cn"));
        var groups = new List<(string Dn, IEnumerable<string> Members)>();
        if (plan.EnterDn is { } enter) groups.Add((enter, plan.Install.EnterMembers));
        foreach (var role in plan.Install.Roles)
            groups.AddRange(role.Groups.Select(g => (g, (IEnumerable<string>)role.Members)));
        foreach (var group in groups.GroupBy(g => ComparedName.KeyOf(g.Dn)))
        {
            string[] members = [.. group.SelectMany(g => g.Members).Distinct(StringComparer.OrdinalIgnoreCase)];
            if (OfGroup(plan, group.First().Dn, members, read, there.GetValueOrDefault(group.Key)) is { } entry)
                entries.Add(entry);
        }

        return entries;
    }

    private static SignInEntry? OfGroup(
        PlannedSignIn plan, string dn, string[] members, ObjectTable? read, PeopleObject? there)
    {
        if (read is null) return new SignInEntry.Impossible(dn, "the people of the directory were not read yet: take a survey");
        var map = AttributeMap.Of(plan.Directory);
        var people = read.Objects.Where(o => o.First(map.LogonName) is not null)
            .ToLookup(o => o.First(map.LogonName)!, StringComparer.OrdinalIgnoreCase);
        if (members.FirstOrDefault(m => people[m].Count() != 1) is { } unknown)
            return new SignInEntry.Impossible(
                dn, people[unknown].Any() ? $"{unknown} means more than one there" : $"there is no {unknown}");
        string[] values = [.. members.Select(m => people[m].First())
            .Select(p => map.MemberIsName ? p.Dn : p.First(map.LogonName)!)];
        if (there is not null)
        {
            var has = there.All(map.Member).Select(KeyOf).ToHashSet(StringComparer.Ordinal);
            string[] added = [.. values.Where(v => !has.Contains(KeyOf(v)))];
            return added.Length == 0 ? null : new SignInEntry.MoreMembers(dn, map.Member, added);
        }

        if (!DistinguishedName.TryParse(dn, out var name)) return new SignInEntry.Impossible(dn, "its name cannot be read");
        return plan.Directory.Groups switch
        {
            GroupKind.PosixGroup =>
                new SignInEntry.Impossible(dn, "a posixGroup needs a number, which only its keeper gives out"),
            GroupKind.GroupOfNames or GroupKind.GroupOfUniqueNames when values.Length == 0 =>
                new SignInEntry.Impossible(dn, $"a {map.GroupClass} has at least one member: name some in the install"),
            GroupKind.GroupOfNames or GroupKind.GroupOfUniqueNames or GroupKind.Group =>
                new SignInEntry.Group(dn, name.Parts[0].Value, map.GroupClass, map.Member, values),
        };

        string KeyOf(string value) => map.MemberIsName ? ComparedName.KeyOf(value) : value;
    }

    private static string? LogonNameOf(string dn) =>
        DistinguishedName.TryParse(dn, out var name) && name.Parts[0].Type is "UID" or "CN" ? name.Parts[0].Value : null;
}
