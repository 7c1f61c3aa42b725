namespace JustRight.Core.Replicas;

/// <summary>An object as one controller has it.</summary>
/// <param name="Controller">The controller, by its own name.</param>
/// <param name="Unread">Why it could not be asked, or null.</param>
/// <param name="Found">Whether the object is there.</param>
/// <param name="Attributes">The values that all controllers should share, by attribute, in a fixed order.</param>
/// <param name="Stamps">How often and when each attribute was changed, as the controller keeps for replication.</param>
public sealed record ReplicaObject(
    string Controller, string? Unread, bool Found, IReadOnlyDictionary<string, IReadOnlyList<string>> Attributes,
    IReadOnlyList<ReplicaStamp> Stamps)
{
    /// <summary>A controller that could not be asked.</summary>
    public static ReplicaObject NotRead(string controller, string reason) =>
        new(controller, reason, false, new Dictionary<string, IReadOnlyList<string>>(), []);
}

/// <summary>
/// The version of one attribute of one object. The higher version is the newer; where versions are equal, the later time
/// [MS-ADTS 3.1.1.1.9].
/// </summary>
/// <param name="Attribute">The attribute's number on that controller; all controllers of a domain use the same for common
/// attributes.</param>
/// <param name="Version">How often it was changed.</param>
/// <param name="ChangedAt">When it was changed where it was first changed.</param>
public readonly record struct ReplicaStamp(uint Attribute, uint Version, DateTimeOffset ChangedAt);
