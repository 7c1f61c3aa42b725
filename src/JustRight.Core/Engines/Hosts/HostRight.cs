using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Hosts;

/// <summary>
/// A right on a host. Nothing else brings it along than what the host itself gives, and it needs no other door.
/// </summary>
public abstract class HostRight : Right
{
    private protected HostRight(NeedKind kind, string host, string words, string key)
        : base(kind, host, words, key) => Host = host;

    /// <summary>The host.</summary>
    public string Host { get; }

    /// <inheritdoc/>
    public sealed override string OnHost => Host;

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <inheritdoc/>
    public override Gate GateFor(SurveyView view, Holdings holdings) => Gate.Open;

    private protected override IReadOnlyList<Right> FindAbove() => [];

    private protected override IReadOnlyList<Right> FindEntrances() => [];

    private protected HostSnapshot? Read(SurveyView view) => view.Host(Host) is { Unread: null } host ? host : null;

    private protected static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
