using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>Makes plans. The same input always gives the same plan.</summary>
public static class Planner
{
    /// <summary>Lays a sheet over an estate.</summary>
    /// <returns>The plan; or null with the faults that stand in its way, each with its position in the install, estate or
    /// sheet.</returns>
    public static (Plan? Plan, IReadOnlyList<Fault> Faults) Make(Sheet sheet, Estate estate, Install install, NameIndex nameIndex)
    {
        var faults = new List<Fault>();
        var places = PlaceMap.Make(sheet, estate, install, faults);
        if (faults.Count > 0) return (null, faults);
        var names = new PlanNames(sheet, estate, install, nameIndex, faults);
        var expander = new NeedExpander(sheet, estate, install, places, nameIndex, faults);
        faults.AddRange(KeptOutPlanner.TooStrong(estate));
        var keptOut = new KeptOutPlanner(sheet, estate, places);
        var needed = new List<PlannedGrant>();
        foreach (var account in sheet.Accounts) needed.AddRange(Needed(account, expander, keptOut, names));
        var grants = new List<PlannedGrant>();
        foreach (var group in names.Groups) grants.AddRange(MembershipGrants(group, names, estate));
        grants.AddRange(needed);
        var services = ServicePlanner.Services(sheet, places);
        grants.AddRange(ServicePlanner.Grants(services));
        faults.AddRange(UniqueServiceNames.Check(grants, names.NameOf));
        var notes = Separations(sheet, estate, install, names, faults);
        notes.AddRange(keptOut.Notes);
        notes.AddRange(SharedTooWidely(names, grants));
        if (!nameIndex.Checked && (names.Accounts.Any(a => !a.Existing && !install.Accounts.ContainsKey(a.Key))
            || names.Groups.Any(g => !g.Existing && !install.Groups.ContainsKey(g.Key))))
            notes.Add("Names were not checked against the directory yet: no survey was taken.");
        var signIn = SignInPlanner.Make(sheet, estate, install, places, names, notes, faults);
        UnknownChoices(install, expander, faults);
        if (faults.Count > 0) return (null, faults);

        var branches = new List<PlannedBranch>();
        branches.AddRange(sheet.Accounts.Where(a => names.Accounts.First(n => n.Key == a.Key).Dn is not null)
            .Select(names.BranchOf));
        var groups = names.Groups.Where(g => !SignInPlanner.HasGroupElsewhere(g, sheet, estate, install, grants)).ToList();
        if (groups.Any(g => g.Dn is not null)) branches.Add(names.GroupBranch);
        return (new Plan(
            install.Name, sheet.Name, sheet.Title, estate.Name, estate.Domain.ShortName, estate.Domain.DnsName, install.Stage,
            [.. branches.DistinctBy(b => b.Dn)], groups, names.Accounts, Merge(grants), expander.Decisions,
            Forbidden(sheet, estate), notes)
        {
            Product = sheet.Product,
            Services = services,
            Separate = sheet.Separate,
            SignIn = signIn,
            TypedIn = [.. sheet.Accounts.SelectMany(a => TypedIn(sheet, install, a, names.NameOf(a.Key), places))],
            SecretStores = [.. sheet.Places.Where(p => p.HoldsSecrets).SelectMany(p =>
                places[p.Key].Where(s => s.Database is not null).Select(s => new SecretStore(s.Instance!, s.Database!, p.At)))],
            NewOwners = estate.Rules.NewOwners,
            Engines = estate.Instances.ToDictionary(i => i.Name, i => i.Engine, StringComparer.OrdinalIgnoreCase),
        }, []);
    }

    /// <summary>What an account needs, and what it is kept from.</summary>
    private static List<PlannedGrant> Needed(
        SheetAccount account, NeedExpander expander, KeptOutPlanner keptOut, PlanNames names)
    {
        var grants = expander.Expand(account).ToList();
        grants.AddRange([.. keptOut.OfSheet(account, grants)]);
        foreach (var rule in keptOut.RulesOf(account, grants))
            grants.AddRange(keptOut.OfRule(rule, account, rule.Through is null ? null : names.Shared(rule, account.Key)));
        return grants;
    }

    private static IEnumerable<PasswordPlace> TypedIn(
        Sheet sheet, Install install, SheetAccount account, string name, PlaceMap places) =>
        account.Password.TypedIn.SelectMany(t => (t.On is { } on ? places[on].Select(s => s.Host) : [""]).Select(host =>
            new PasswordPlace(
                name, PasswordPlaceKind.Setting, host, t.In, t.Setting,
                t.Breaks)
            { Product = sheet.Title, Install = install.Name, ReadByService = t.ReadBy }));

    /// <summary>
    /// Each account that belongs in a group of the plan, directly or through another group of the plan, needs that membership.
    /// </summary>
    private static IEnumerable<PlannedGrant> MembershipGrants(PlannedGroup group, PlanNames names, Estate estate)
    {
        var right = AllEngines.Membership(estate.Domain.ShortName, group.Name);
        foreach (var account in names.AccountsIn(group))
        {
            yield return new PlannedGrant(
                $"{account}/{right.Key}", account, right, null, null, GivenBy.Us, Until.Always, Team.Directory, group.Purpose,
                null, group.At);
        }
    }

    /// <summary>
    /// The same right asked for twice is one grant: the first line stands, the stronger team and the longer time win.
    /// </summary>
    private static List<PlannedGrant> Merge(List<PlannedGrant> grants)
    {
        var merged = new List<PlannedGrant>(grants.Count);
        var places = new Dictionary<string, int>(grants.Count, StringComparer.Ordinal);
        foreach (var grant in grants)
        {
            if (places.TryAdd(grant.Id, merged.Count)) merged.Add(grant);
            else merged[places[grant.Id]] = Merge(merged[places[grant.Id]], grant);
        }

        return merged;
    }

    private static PlannedGrant Merge(PlannedGrant first, PlannedGrant again) => first with
    {
        GivenBy = again.GivenBy == GivenBy.Us ? GivenBy.Us : first.GivenBy,
        Until = again.Until == Until.Always ? Until.Always : first.Until,
        MadeBySetup = first.MadeBySetup || again.MadeBySetup,
        Through = first.Through ?? again.Through,
    };

    private static List<ForbiddenRule> Forbidden(Sheet sheet, Estate estate) =>
    [
        .. estate.Rules.Forbidden.Select(b => Rule(null, b, estate)),
        .. sheet.Accounts.SelectMany(a => a.Forbidden.Select(b => Rule(a.Key, b, estate))),
    ];

    private static ForbiddenRule Rule(string? account, ForbiddenHolding forbidden, Estate estate) =>
        new(
            account, forbidden.Group ?? "",
            forbidden.Act is { } act
                ? AllEngines.Below(BranchAsked.Make(act, forbidden.Attributes, forbidden.Of, estate.Domain.Root)) : null,
            forbidden.Why, forbidden.At);

    private static List<string> Separations(Sheet sheet, Estate estate, Install install, PlanNames names, List<Fault> faults)
    {
        var notes = new List<string>();
        foreach (var separation in sheet.Separate)
        {
            foreach (var shared in separation.Accounts.GroupBy(
                k => names.NameOf(k), StringComparer.OrdinalIgnoreCase).Where(g => g.Count() > 1))
            {
                var keys = shared.ToList();
                var allowed = estate.Rules.AllowedSharing.FirstOrDefault(a =>
                    a.Install == install.KnownAs && keys.All(a.Accounts.Contains));
                if (allowed is not null)
                {
                    notes.Add($"{string.Join(" and ", keys)} share {shared.Key}, which {sheet.Name} keeps apart. Allowed by {allowed.At}: {allowed.Why}");
                    continue;
                }

                var at = install.Accounts.TryGetValue(keys[^1], out var choice) ? choice.At : install.At;
                faults.Add(new Fault(
                    "not-separate", at, $"accounts.{keys[^1]}",
                    $"{sheet.Name} keeps {string.Join(" and ", keys)} apart ({separation.At}): {separation.Why.TrimEnd('.')}.")
                {
                    Found = $"both are {shared.Key}",
                    Expected = "different accounts, or an entry in the estate's rules.allowed-sharing with a reason",
                });
            }
        }

        return notes;
    }

    /// <summary>
    /// A right held through a group comes to every member of it: members that do not need it will hold it as excess.
    /// </summary>
    private static IEnumerable<string> SharedTooWidely(PlanNames names, List<PlannedGrant> grants)
    {
        foreach (var shared in grants.Where(g => g.Through is not null && !g.Right.OnlyRestrains).GroupBy(g => (g.Through, g.Right)))
        {
            var group = names.Groups.First(g => g.Key == shared.Key.Through);
            foreach (var account in names.AccountsIn(group).Where(a =>
                !grants.Any(g => g.Account == a && g.Right == shared.Key.Right)))
                yield return $"{account} will hold {shared.Key.Right} through {group.Key}, and does not need it ({shared.First().At}): use a separate group.";
        }
    }

    private static void UnknownChoices(Install install, NeedExpander expander, List<Fault> faults)
    {
        faults.AddRange(expander.NoSuchAlternatives);
        foreach (var (key, choice) in install.Choices.Where(c => !expander.KnownDecisions.Contains(c.Key)))
        {
            faults.Add(new Fault("unknown-decision", choice.At, $"choices.{key}", $"'{key}' is not a decision of this sheet.")
            {
                Expected = expander.KnownDecisions.Count == 0
                    ? "no choices: the sheet names no decision"
                    : string.Join(", ", expander.KnownDecisions),
                Nearest = Spelling.Nearest(key, expander.KnownDecisions),
            });
        }
    }
}
