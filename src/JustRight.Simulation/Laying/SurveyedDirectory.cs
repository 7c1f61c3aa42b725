using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Laying;

/// <summary>Takes over into a simulation what was read of a directory: principals, branches, access lists, policies.</summary>
internal sealed class SurveyedDirectory(SimulationState state, List<string> remarks)
{
    private readonly Sid _domain = Sid.Parse(state.DomainSid);

    /// <summary>Takes over all that the simulation can hold; the rest is told of.</summary>
    public void Lay(DirectorySnapshot directory)
    {
        if (directory.Unread is { } reason)
        {
            remarks.Add($"nothing is taken over of the directory: {reason}");
            return;
        }

        foreach (var branch in directory.Branches) EstateState.AddBranch(state, branch);
        LayPrincipals(directory);
        if (directory.Access is { } access) LayAccess(access);
        if (directory.Policies is { Unread: null } policies) LayPolicies(policies);
    }

    private void LayPrincipals(DirectorySnapshot directory)
    {
        var own = directory.Principals.Where(p => p.Kind != PrincipalKind.Foreign && IsOfDomain(p.Sid)).ToList();
        var names = own.ToDictionary(p => p.Sid, p => p.Name);
        foreach (var principal in own)
        {
            if (state.Principals.Contains(principal.Name)) continue;
            if (AccessParent(principal.Dn) is { } parent) EstateState.AddBranch(state, parent);
            state.Principals.Add(Of(principal, names));
        }

        state.NextRid = Math.Max(state.NextRid, own.Count == 0 ? 0 : own.Max(p => p.Sid.Rid) + 1);
        Remark(directory.Principals.Count - own.Count, "principal of another domain, or of no domain", "known by its SID only");
    }

    private static SimulationPrincipal Of(DirectoryPrincipal principal, Dictionary<Sid, string> names) => new()
    {
        Name = principal.Name,
        Kind = principal.Kind,
        Rid = principal.Sid.Rid,
        Dn = principal.Dn,
        Description = principal.Description,
        Note = principal.Note,
        CreatedAt = principal.CreatedAt,
        PrimaryGroupRid = principal.PrimaryGroupRid,
        State = principal.State,
        DelegatesTo = principal.DelegatesTo.Count == 0 ? null : [.. principal.DelegatesTo],
        IsTrustedForDelegation = principal.IsTrustedForDelegation,
        ServiceNames = principal.ServicePrincipalNames.Count == 0 ? null : [.. principal.ServicePrincipalNames],
        PasswordSetAt = principal.PasswordSetAt,
        PasswordDays = principal is { PasswordSetAt: { } set, PasswordExpiresAt: { } ends }
            ? (int)(ends - set).TotalDays
            : 0,
        Scope = principal.Scope,
        IsSecurity = principal.IsSecurity,
        Members = [.. principal.Members.Select(m => names.GetValueOrDefault(m) ?? m.ToString())],
        MembersUnread = principal.MembersUnread,
    };

    /// <summary>What objects start with is not kept: the simulation makes it as the directory does.</summary>
    private void LayAccess(AccessSnapshot access)
    {
        var start = access.Objects.Select(o => o.Class).Distinct(StringComparer.OrdinalIgnoreCase)
            .Where(c => access.Schema.Class(c) is not null)
            .ToDictionary(
                c => c, c => EntriesOf(SimulationAccessLists.Start(access.Schema.Class(c)!, _domain)),
                StringComparer.OrdinalIgnoreCase);
        var texts = new Dictionary<int, (string Entries, string Text)>();
        foreach (var known in access.Objects.Where(o => o.Descriptor >= 0))
        {
            if (!texts.TryGetValue(known.Descriptor, out var list))
            {
                var own = Own(access.Descriptors[known.Descriptor]);
                texts[known.Descriptor] = list = (EntriesOf(own), DescriptorText.Write(own));
            }

            if (DistinguishedName.IsAtOrBelow(known.Dn, state.Root) && start.GetValueOrDefault(known.Class) != list.Entries)
                state.AccessLists[known.Dn] = list.Text;
            if (known.IsAdminHeld && state.Principals.FirstOrDefault(p => p.Dn == known.Dn) is { } held) held.IsAdminHeld = true;
        }

        Remark(access.Objects.Count(o => o.Descriptor < 0), "access list that could not be read", "as its class starts with");
    }

    private void LayPolicies(PolicySnapshot policies)
    {
        var called = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        foreach (var policy in policies.Policies.Where(p => p is { Lists: not null, ComputerHalfDisabled: false }))
        {
            var name = called.ContainsValue(policy.Name) ? $"{policy.Name} {policy.Id}" : policy.Name;
            called[policy.Id] = name;
            var made = new SimulationPolicy { Id = policy.Id, Name = name };
            foreach (var list in policy.Lists!)
                made.Lists[list.Constant] =
                    [.. list.Entries.Where(e => e.StartsWith('*') || state.Find(e) is not null).Select(Entry)];
            state.Policies.Add(made);
        }

        foreach (var container in policies.Containers)
        {
            var links = PolicyLink.Read(container.Links, out _).Where(l => !l.IsDisabled && called.ContainsKey(l.Policy))
                .ToList();
            if (links.Count == 0 && !container.BlocksInheritance) continue;
            state.PolicyLinks.Add(new SimulationPolicyLinks
            {
                Dn = container.Dn,
                Policies = [.. links.Select(l => called[l.Policy])],
                Blocks = container.BlocksInheritance,
            });
        }

        Remark(policies.Policies.Count - called.Count, "policy whose rights are not known", "left out");
    }

    /// <summary>The simulation writes an entry without the star that stands before a SID in a template.</summary>
    private string Entry(string entry) => entry.StartsWith('*') ? state.NameOf(entry[1..]) : entry;

    private static SecurityDescriptor Own(SecurityDescriptor read) =>
        (read.Dacl is null ? read : read.WithEntries([.. read.Entries.Where(e => !e.IsInherited)])) with { Sacl = null };

    private static string EntriesOf(SecurityDescriptor list) => $"{list.IsProtected} {string.Join(' ', list.Entries)}";

    private bool IsOfDomain(Sid sid) => sid.Rid > 0 && _domain.Append(sid.Rid) == sid;

    private static string? AccessParent(string dn) => Core.Rights.Access.AccessTree.ParentDn(dn);

    private void Remark(int count, string one, string what)
    {
        if (count > 0) remarks.Add(count == 1 ? $"1 {one}: {what}" : $"{count} times a {one}: {what}");
    }
}
