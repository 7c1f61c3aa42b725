using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>What a service is asked.</summary>
public enum ServiceAspect
{
    /// <summary>It runs as the account from its next start on.</summary>
    Identity,

    /// <summary>It runs as that now: no restart is pending.</summary>
    Restarted,

    /// <summary>It starts when it should.</summary>
    Start,

    /// <summary>It waits for the services it should, and nothing stands in their way.</summary>
    Order,
}

/// <summary>Something that a service of a host must be.</summary>
/// <param name="Service">Its short name.</param>
/// <param name="Start">When it should start, where that is asked.</param>
/// <param name="After">The services it should wait for, where that is asked.</param>
public sealed record ServiceAsked(
    string Host, string Service, ServiceAspect Aspect, ServiceStart? Start = null, IReadOnlyList<string>? After = null);
