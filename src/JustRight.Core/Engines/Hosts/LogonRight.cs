using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Hosts;

/// <summary>A log-on right on a host.</summary>
public sealed class LogonRight(string host, string type)
    : ListRight(NeedKind.Logon, host, LogonRights.Words(type), $"logon:{type}@{host}")
{
    /// <summary><c>service</c>, <c>batch</c>, <c>interactive</c>, <c>remote</c> or <c>network</c>.</summary>
    public string Type { get; } = type;

    /// <inheritdoc/>
    public override string Constant => LogonRights.Constant(Type);

    /// <inheritdoc/>
    public override RightReach Reach => new(5, $"{Words} stays within its host");

    private protected override string DraftedAs => Type;

    /// <summary>The denying twin outweighs it [MS-LSAD 3.1.1.2.2].</summary>
    public override Gate GateFor(SurveyView view, Holdings holdings)
    {
        var denials = Denials.Of(view, this, holdings);
        if (denials.Count > 0) return Gate.Denied(denials);
        var unseen = WhyDeniedUnread(view) ?? Denials.WhyUnseen(view, this, holdings.Account);
        return unseen is null ? Gate.Open : Gate.Unseen(unseen);
    }

    /// <inheritdoc/>
    public override Taken Take(Taking taking) =>
        taking.Path.Has(StepKind.LocalGroup) ? Taken.NoStep : Taken.By(new RevokeLogonRight(Host, Type, taking.Principal));

    private protected override Change Grant(string principal) => new GrantLogonRight(Host, Type, principal);

    private string? WhyDeniedUnread(SurveyView view) =>
        view.Host(Host)?.UnreadParts.FirstOrDefault(p =>
            p.Part == HostSnapshot.RightsPart || Same(p.Part, LogonRights.DenyConstant(Type))) is { } part
            ? $"the list of those denied could not be read: {part.Reason}"
            : WhyHoldersUnread(view, LogonRights.DenyConstant(Type)) is { } why
                ? $"a local group is on the list of those denied, and {why}"
                : null;
}
