namespace JustRight.Core.Changes;

/// <summary>Replaces a policy's list for one right. Every host that the policy governs gets the new list whole.</summary>
/// <param name="Policy">The policy's identifier.</param>
/// <param name="Name">Its name.</param>
/// <param name="Constant">The right, such as <c>SeBatchLogonRight</c>.</param>
/// <param name="Entries">The whole new list, as the template writes it.</param>
/// <param name="OldEntries">The list as it was, for undoing.</param>
/// <param name="Who">Whom the new list adds, in words.</param>
/// <param name="Hosts">The hosts on which this policy decides on this right.</param>
public sealed record ChangePolicyList(
    string Domain, string Policy, string Name, string Constant, IReadOnlyList<string> Entries, IReadOnlyList<string> OldEntries,
    string Who, IReadOnlyList<string> Hosts) : DirectoryChange(Domain)
{
    /// <inheritdoc/>
    public override string Words => Entries.Count < OldEntries.Count
        ? $"in policy {Name}, take {Who} off the list of {Constant} (counts on {string.Join(", ", Hosts)})"
        : $"in policy {Name}, put {Who} on the list of {Constant} (counts on {string.Join(", ", Hosts)})";

    /// <inheritdoc/>
    public override Change? Inverse => this with { Entries = OldEntries, OldEntries = Entries };

    /// <inheritdoc/>
    internal override Change? Joined(Change other) =>
        other is not ChangePolicyList more || more.Policy != Policy || more.Constant != Constant || more.Domain != Domain ? null
            : Entries.All(more.Entries.Contains) ? this
            : this with { Entries = [.. Entries.Intersect(more.Entries)], Who = $"{Who} and {more.Who}" };

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [.. Hosts.Select(h => Thing.PolicyList(h, Constant))];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [.. Entries.Except(OldEntries).Select(Thing.Principal)];
}

/// <summary>Lets a host fetch and apply its policies now instead of at its next refresh.</summary>
public sealed record RefreshPolicy(string Host) : HostChange(Host)
{
    /// <summary>What the host's lists must be afterwards: by this it is known that the refresh brought the change.</summary>
    public IReadOnlyList<ExpectedHolder> Expect { get; init; } = [];

    /// <inheritdoc/>
    public override string Words => $"let {Host} refresh its policies";

    /// <inheritdoc/>
    public override Change? Inverse => null;

    /// <inheritdoc/>
    public override bool OnlySettles => true;

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes =>
        [.. Expect.Where(e => e.Holds).Select(e => Thing.OnList(Host, e.Constant, e.Principal))];

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [.. Expect.Select(e => Thing.PolicyList(Host, e.Constant))];
}

/// <summary>Somebody who must, or must not, be on a list of a host after a refresh.</summary>
public sealed record ExpectedHolder(string Constant, string Principal, bool Holds);
