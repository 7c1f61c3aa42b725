namespace JustRight.Core.Tests.Differential;

/// <summary>Makes worlds at random: the same number always makes the same.</summary>
internal sealed class WorldMaker(int number)
{
    private readonly Random _random = new(number);

    public SmallWorld World()
    {
        var logins = Entrants(0.6);
        var users = Entrants(0.6).Select(u => u with { Disabled = false }).ToList();
        var roles = Roles(SmallWorld.InstanceRoles, logins, r => r == "pourers" ? ["dbcreator"] : []);
        var within = Roles(SmallWorld.DatabaseRoles, users, r => r == "clerks" ? SmallWorld.DatabaseRoles[..3] : []);
        return new SmallWorld
        {
            Members = SmallWorld.Groups.ToDictionary(g => g, g => Some<string>([SmallWorld.Account, .. SmallWorld.Groups], 0.22)),
            ForMail = Some(SmallWorld.Groups, 0.1).ToHashSet(),
            Local = SmallWorld.LocalGroups.ToDictionary(g => g, _ => Some<string>([.. Principals, SmallWorld.Service], 0.12)),
            OnList = SmallWorld.Lists.ToDictionary(l => l, l => Some<string>(
                l.StartsWith("SeDeny", StringComparison.Ordinal) ? [.. Principals, "@Operators"]
                    : [.. Principals, "@Operators", "@Administrators", SmallWorld.Service],
                l.StartsWith("SeDeny", StringComparison.Ordinal) ? 0.08 : 0.15)),
            Logins = logins,
            Roles = roles,
            Entries = Entries(
                ["VIEW SERVER STATE", "VIEW SERVER PERFORMANCE STATE", "CONTROL SERVER", "ALTER ANY DATABASE", "CONNECT SQL"],
                [null], [.. logins.Select(l => l.Name), ":pourers", ":public"]),
            Users = users,
            RolesWithin = within,
            EntriesWithin = Entries(
                ["SELECT", "EXECUTE", "CONTROL", "CONNECT", "ALTER", "ALTER ANY SCHEMA", "TAKE OWNERSHIP"],
                [null, "SCHEMA::s", "OBJECT::s.p"], [.. users.Select(u => u.Name), ":clerks", ":public"]),
            IsOwner = Perhaps(0.1),
            AdmitsGuests = Perhaps(0.15),
        };
    }

    /// <summary>Hides one part or two.</summary>
    public Hidden Hide()
    {
        var hidden = Hidden.Nothing;
        for (var left = _random.Next(1, 3); left > 0; left--)
        {
            hidden = _random.Next(7) switch
            {
                0 => hidden with { Groups = [Of(SmallWorld.Groups)] },
                1 => hidden with { Lists = [Of<string>([.. SmallWorld.Lists, .. SmallWorld.LocalGroups])] },
                2 => hidden with { LocalGroups = true },
                3 => hidden with { Host = true },
                4 => hidden with { Permissions = true },
                5 => hidden with { Database = true },
                _ => hidden with { Instance = true },
            };
        }

        return hidden;
    }

    public bool Perhaps(double share) => _random.NextDouble() < share;

    public T Of<T>(IReadOnlyList<T> all) => all[_random.Next(all.Count)];

    public T[] Some<T>(IReadOnlyList<T> all, double share) => [.. all.Where(_ => Perhaps(share))];

    private static string[] Principals => [SmallWorld.Account, .. SmallWorld.Groups, SmallWorld.Everyone, SmallWorld.DomainUsers];

    private List<Entrant> Entrants(double own)
    {
        var found = new List<Entrant>();
        if (Perhaps(own)) found.Add(new Entrant(SmallWorld.Account, Perhaps(0.12), !Perhaps(0.1)));
        found.AddRange(Some<string>([.. SmallWorld.Groups, "@Operators"], 0.2).Select(g => new Entrant(g, false, !Perhaps(0.1))));
        return found;
    }

    private Dictionary<string, string[]> Roles(string[] roles, List<Entrant> members, Func<string, string[]> around)
    {
        var found = roles.ToDictionary(r => r, _ => Some<string>([.. members.Select(m => m.Name)], 0.18).ToList());
        foreach (var inner in roles)
            foreach (var outer in around(inner).Where(_ => Perhaps(0.2))) found[outer].Add(":" + inner);
        return found.ToDictionary(r => r.Key, r => r.Value.ToArray());
    }

    private List<Entry> Entries(string[] permissions, string?[] on, string[] holders) =>
    [
        .. Enumerable.Range(0, _random.Next(4))
            .Select(_ => new Entry(Of(permissions), Of(on), Perhaps(0.35), Of(holders)))
            .Select(e => e.Permission is "CONNECT" or "ALTER ANY SCHEMA" ? e with { On = null } : e)
            .DistinctBy(e => (e.Permission, e.On, e.Holder)),
    ];
}
