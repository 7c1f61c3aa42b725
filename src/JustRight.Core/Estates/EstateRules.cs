using JustRight.Core.Directory;
using JustRight.Core.Faults;

namespace JustRight.Core.Estates;

/// <summary>The rules an estate must keep beyond its shape.</summary>
public static class EstateRules
{
    private static readonly string[] AccountWords = ["product", "account"];
    private static readonly string[] GroupWords = ["product", "group"];
    private static readonly string[] DescriptionWords = ["purpose", "title", "product", "release", "install"];

    /// <summary>Every fault of an estate, in file order.</summary>
    public static IReadOnlyList<Fault> Check(Estate estate)
    {
        var faults = new List<Fault>();
        var branches = estate.Branches.Select(b => b.Key).ToList();
        var root = DistinguishedName.Parse(estate.Domain.Root);
        foreach (var branch in estate.Branches.Where(b => !b.Name.IsAtOrBelow(root)))
            faults.Add(new Fault(
                "branch-outside", branch.At, $"branches.{branch.Key}",
                "This OU or container is not in the domain.")
            {
                Found = branch.Name.Text,
                Expected = $"a name that ends in {root}",
            });
        foreach (var branch in estate.Branches.Where(b => b.Key == Estate.WholeDomain))
            faults.Add(new Fault(
                "reserved-name", branch.At, $"branches.{branch.Key}",
                $"'{branch.Key}' stands for the whole domain.")
            { Expected = "another key" });
        KnownBranch(estate.Naming.AccountsIn, "naming.accounts-in");
        if (estate.Naming.BindAccountsIn != estate.Naming.AccountsIn)
            KnownBranch(estate.Naming.BindAccountsIn, "naming.bind-accounts-in");
        KnownBranch(estate.Naming.GroupsIn, "naming.groups-in");
        Pattern(estate.Naming.Accounts, AccountWords, "account", "naming.accounts");
        Pattern(estate.Naming.Groups, GroupWords, "group", "naming.groups");
        Pattern(estate.Naming.Description, DescriptionWords, null, "naming.description");
        foreach (var instance in estate.Instances.Where(i => estate.Host(i.Host) is null))
        {
            faults.Add(new Fault(
                "unknown-host", instance.At, $"instances.{instance.Name}.host",
                $"'{instance.Host}' is not a host of this estate.")
            {
                Expected = "a host of this estate",
                Nearest = Spelling.Nearest(instance.Host, estate.Hosts.Select(h => h.Name)),
            });
        }

        foreach (var (name, instances) in estate.AmbiguousInstances)
            faults.Add(new Fault(
                "same-name", instances[^1].At, $"instances.{instances[^1].Name}.other-names",
                $"'{name}' is a name of two instances: a place could mean either.")
            {
                Found = string.Join(", ", instances.Select(i => i.Name)),
                Expected = "names that no other instance has",
            });
        foreach (var instance in estate.Instances.Where(i => i.Partner is not null)) CheckPartner(instance, estate, faults);
        CheckReach(estate, faults);
        faults.AddRange(KeptOutRule.Check(estate));
        faults.AddRange(RehearsalRules.Check(estate));
        return [.. faults.OrderBy(f => f.At.Line).ThenBy(f => f.At.Column)];

        Origin Line(string field) => estate.Naming.Lines.GetValueOrDefault(field["naming.".Length..], estate.Naming.At);

        void KnownBranch(string key, string field)
        {
            if (branches.Contains(key)) return;
            if (ProductBranches.IsOwn(key))
            {
                if (OwnBranchRules.Check(key, field, Line(field), root) is { } wrong) faults.Add(wrong);
                return;
            }

            faults.Add(new Fault(
                "unknown-branch", Line(field), field,
                $"'{key}' is not a branch of this estate.")
            {
                Expected = "a key of 'branches', or an OU for each product such as OU={product},OU=Services,DC=…",
                Nearest = Spelling.Nearest(key, branches),
            });
        }

        void Pattern(string pattern, string[] words, string? needed, string field)
        {
            foreach (var word in NamePattern.Placeholders(pattern).Where(w => !words.Contains(w)))
                faults.Add(new Fault(
                    "unknown-placeholder", Line(field), field,
                    $"'{{{word}}}' means nothing here.")
                {
                    Expected = string.Join(
                        ", ", words.Select(w => $"{{{w}}}")),
                    Nearest = Spelling.Nearest(word, words)
                });
            if (needed is not null && !NamePattern.Placeholders(pattern).Contains(needed))
                faults.Add(new Fault(
                    "pattern", Line(field), field,
                    $"The pattern must contain {{{needed}}}, otherwise all names would be the same.")
                { Found = $"'{pattern}'" });
        }
    }

    private static void CheckPartner(EstateInstance instance, Estate estate, List<Fault> faults)
    {
        var field = $"instances.{instance.Name}.partner";
        if (estate.Instance(instance.Partner!) is not { } partner)
            faults.Add(new Fault(
                "unknown-instance", instance.At, field,
                $"'{instance.Partner}' is not an instance of this estate.")
            {
                Expected = "another instance of this estate",
                Nearest = Spelling.Nearest(
                    instance.Partner!, estate.Instances.Select(i => i.Name))
            });
        else if (partner == instance)
            faults.Add(new Fault(
                "own-partner", instance.At, field,
                "An instance cannot be its own failover partner.")
            { Expected = "another instance of this estate" });
        else if (instance.Engine != "sqlserver" || partner.Engine != "sqlserver")
            faults.Add(new Fault(
                "needless-key", instance.At, field,
                "Only instances of the SQL Server family have failover partners here: a PostgreSQL replica has the roles of its primary.")
            {
                Found = $"{instance.Engine} and {partner.Engine}",
                Expected = "no partner",
            });
    }

    private static void CheckReach(Estate estate, List<Fault> faults)
    {
        var directory = estate.Directory;
        if (directory.Reach == Reach.Ldaps)
        {
            foreach (var (key, value) in new[] { ("controller", directory.Controller), ("ca-folder", directory.CaFolder), (
                "sign-in-as", directory.SignInAs), ("secret", directory.Secret) })
                if (string.IsNullOrWhiteSpace(value))
                    faults.Add(new Fault(
                        "missing-key", directory.At, $"directory.{key}", $"A directory reached over LDAPS needs '{key}'."));
        }
        else if (directory.Controller is not null)
        {
            faults.Add(new Fault(
                "needless-key", directory.At, "directory.controller",
                "Only a directory reached over LDAPS has controllers.")
            { Expected = "reach: ldaps" });
        }

        foreach (var host in estate.Hosts.Where(h => h.Ssh is not null))
            foreach (var (key, value) in new[] { ("host-key", host.Ssh!.HostKey), (
                "sign-in-as", host.Ssh.SignInAs), ("secret", host.Ssh.Secret) })
                if (string.IsNullOrWhiteSpace(value))
                    faults.Add(new Fault(
                        "missing-key", host.At, $"hosts.{host.Name}.{key}",
                        $"A host reached over SSH needs '{key}'.")
                    {
                        Expected = key == "host-key"
                            ? "the fingerprint as read by the host's owner: ssh-keygen -lf ssh_host_ed25519_key.pub"
                            : $"'{key}' here, or under host-access for all hosts"
                    });
        foreach (var instance in estate.Instances.Where(i => i.Tls is not null))
            foreach (var (key, value) in new[] { ("sign-in-as", instance.Tls!.SignInAs), ("secret", instance.Tls.Secret) })
                if (string.IsNullOrWhiteSpace(value))
                    faults.Add(new Fault(
                        "missing-key", instance.At, $"instances.{instance.Name}.{key}",
                        $"An instance reached over TLS needs '{key}'.")
                    {
                        Expected = $"'{key}' here, or under instance-access for all instances",
                    });
        if (directory.Reach == Reach.Simulation) return;
        foreach (var people in estate.PeopleDirectories.Where(d => d.Reach == Reach.Simulation))
            faults.Add(new Fault(
                "mixed-reach", people.At, $"people-directories.{people.Key}.reach",
                "A simulated directory cannot belong to a real domain.")
            { Expected = "reach: ldap or none" });
        foreach (var host in estate.Hosts.Where(h => h.Reach == Reach.Simulation))
            faults.Add(new Fault(
                "mixed-reach", host.At, $"hosts.{host.Name}.reach",
                "A simulated host cannot belong to a real directory: its members would be simulated accounts.")
            {
                Expected = "reach: ssh, handed-over or none",
            });
        foreach (var instance in estate.Instances.Where(i => i.Reach == Reach.Simulation))
            faults.Add(new Fault(
                "mixed-reach", instance.At, $"instances.{instance.Name}.reach",
                "A simulated instance cannot belong to a real directory.")
            { Expected = "reach: tls or none" });
    }
}
