using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>
/// The accounts and groups of a plan with their names: chosen by the install, settled earlier, or made by the pattern.
/// </summary>
internal sealed class PlanNames
{
    private readonly Estate _estate;
    private readonly string _product;
    private readonly Dictionary<string, PlannedAccount> _accounts = new(StringComparer.Ordinal);
    private readonly Dictionary<string, PlannedGroup> _groups = new(StringComparer.Ordinal);

    public PlanNames(Sheet sheet, Estate estate, Install install, NameIndex nameIndex, List<Fault> faults)
    {
        (_estate, _product) = (estate, sheet.Product);
        var used = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var product = estate.Naming.ShortNames.GetValueOrDefault(sheet.Product, sheet.Product);
        UnknownKeys(install.Accounts, sheet.Accounts.Select(a => a.Key), "accounts", "account");
        UnknownKeys(
            install.NeverExpires.ToDictionary(n => n.Key, n => new NameChoice(n.Key, true, n.Value.At)),
            sheet.Accounts.Select(a => a.Key), "never-expires", "account");
        UnknownKeys(install.Groups, sheet.Groups.Select(g => g.Key), "groups", "group");
        // What is settled or chosen stands first, so that a made name never takes it.
        foreach (var name in nameIndex.Accounts.Values.Concat(nameIndex.Groups.Values)) used.Add(name);
        foreach (var choice in install.Accounts.Values.Concat(install.Groups.Values)) used.Add(choice.Name);

        foreach (var group in sheet.Groups)
        {
            install.Groups.TryGetValue(group.Key, out var choice);
            var name = Name(
                choice, nameIndex.Groups, group.Key, estate.Naming.Groups, "group", NamePattern.GroupLength, "groups");
            var existing = choice?.Existing == true;
            _groups[group.Key] = new PlannedGroup(
                group.Key, name, existing ? null : DnIn(GroupBranch, name), group.Scope,
                Describe(group.Purpose), group.Purpose, group.Closed, existing, group.Members, group.At);
        }

        foreach (var account in sheet.Accounts)
        {
            install.Accounts.TryGetValue(account.Key, out var choice);
            var name = Name(
                choice, nameIndex.Accounts, account.Key, estate.Naming.Accounts, "account", NamePattern.AccountLength,
                "accounts");
            var existing = choice?.Existing == true;
            _accounts[account.Key] = new PlannedAccount(
                account.Key, name, existing ? null : DnIn(BranchOf(account), name),
                Describe(account.Purpose), account.Purpose, account.WorksAs, account.PasswordNeverExpires, existing, account.At)
            {
                PasswordCannotChange = account.PasswordCannotChange,
                Password = account.Password,
                NeverExpires = install.NeverExpires.GetValueOrDefault(account.Key),
            };
        }

        string Name(
            NameChoice? choice, IReadOnlyDictionary<string, string> settled, string key, string pattern, string word, int length,
            string section)
        {
            if (choice is not null)
            {
                if (NamePattern.WhatIsWrong(choice.Name, length) is { } wrong)
                    faults.Add(new Fault(
                        "name", choice.At, $"{section}.{key}", $"'{choice.Name}' cannot be a logon name: {wrong}."));
                return choice.Name;
            }

            if (settled.TryGetValue(key, out var before)) return before;
            var made = NamePattern.Make(
                pattern, new Dictionary<string, string> { ["product"] = product, [word] = key }, length,
                n => used.Contains(n) || nameIndex.Taken.Contains(n));
            if (NamePattern.WhatIsWrong(made, length) is { } bad)
                faults.Add(new Fault(
                    "name", estate.Naming.At, $"naming.{section}", $"The pattern makes '{made}' for '{key}': {bad}."));
            used.Add(made);
            return made;
        }

        string DnIn(PlannedBranch branch, string name) => DistinguishedName.Parse(branch.Dn).Child("CN", name).Text;

        string Describe(string purpose) => NamePattern.Fill(estate.Naming.Description, new Dictionary<string, string>
        {
            ["purpose"] = purpose,
            ["title"] = sheet.Title,
            ["product"] = sheet.Product,
            ["release"] = sheet.Release,
            ["install"] = install.KnownAs,
        });

        void UnknownKeys(IReadOnlyDictionary<string, NameChoice> choices, IEnumerable<string> known, string section, string what)
        {
            var all = known.ToList();
            foreach (var (key, choice) in choices.Where(c => !all.Contains(c.Key)))
                faults.Add(new Fault(
                    $"unknown-{what}", choice.At, $"{section}.{key}",
                    $"'{key}' is not a{(what == "account" ? "n" : "")} {what} of {sheet.Name}.")
                {
                    Nearest = Spelling.Nearest(key, all),
                    Expected = $"a key of the sheet's {what}s",
                });
        }
    }

    public IReadOnlyList<PlannedAccount> Accounts => [.. _accounts.Values];

    public IReadOnlyList<PlannedGroup> Groups => [.. _groups.Values];

    /// <summary>The branch that groups belong in.</summary>
    public PlannedBranch GroupBranch => In("groups-in", _estate.Naming.GroupsIn);

    /// <summary>The branch that an account belongs in.</summary>
    public PlannedBranch BranchOf(SheetAccount account) => account.WorksAs == WorksAs.Bind
        ? In("bind-accounts-in", _estate.Naming.BindAccountsIn)
        : In("accounts-in", _estate.Naming.AccountsIn);

    private PlannedBranch In(string key, string said)
    {
        var isOwn = ProductBranches.IsOwn(said);
        var at = isOwn ? _estate.Naming.Lines.GetValueOrDefault(key, _estate.Naming.At)
            : _estate.Branches.First(b => b.Key == said).At;
        return new PlannedBranch(ProductBranches.Of(_estate, said, _product).Text, at, isOwn);
    }

    /// <summary>
    /// Puts an account into the organization's own group of a rule, which other installs share and none of them makes.
    /// </summary>
    /// <returns>The group's key: its name, unless the sheet calls something else so.</returns>
    public string Shared(KeptOutRule rule, string account)
    {
        var known = _groups.Values.FirstOrDefault(g => string.Equals(g.Name, rule.Through, StringComparison.OrdinalIgnoreCase));
        var isTaken = _groups.ContainsKey(rule.Through!) || _accounts.ContainsKey(rule.Through!);
        var group = known ?? new PlannedGroup(
            isTaken ? $"rule:{rule.Through}" : rule.Through!, rule.Through!, null, GroupScope.Global, "", rule.Why, false,
                true, [], rule.At)
        {
            IsShared = true,
        };
        _groups[group.Key] = group.Members.Contains(account) ? group : group with { Members = [.. group.Members, account] };
        return group.Key;
    }

    public string NameOf(string account) => _accounts.TryGetValue(account, out var planned) ? planned.Name : account;

    /// <summary>
    /// The accounts that belong in a group, directly or through other groups of the plan, in the order of the sheet.
    /// </summary>
    public IReadOnlyList<string> AccountsIn(PlannedGroup group)
    {
        var found = new HashSet<string>();
        var seen = new HashSet<string>();
        Walk(group);
        return [.. _accounts.Keys.Where(found.Contains)];

        void Walk(PlannedGroup inner)
        {
            foreach (var member in inner.Members.Where(seen.Add))
            {
                if (_groups.TryGetValue(member, out var nested)) Walk(nested);
                else found.Add(member);
            }
        }
    }
}
