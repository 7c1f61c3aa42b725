using JustRight.Core.Surveys;

namespace JustRight.Formats.Hosts;

/// <summary>Host facts as they were read from a file or from a host's answer.</summary>
/// <param name="Domain">The DNS name of the host's domain, or empty when it did not say.</param>
public sealed record HostFacts(HostSnapshot Snapshot, string Domain);
