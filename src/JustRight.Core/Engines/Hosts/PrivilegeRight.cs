using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Hosts;

/// <summary>A privilege on a host.</summary>
public sealed class PrivilegeRight(string host, string constant)
    : ListRight(NeedKind.Privilege, host, Privileges.Words(constant), $"privilege:{constant}@{host}")
{
    /// <summary>Such as <c>SeAssignPrimaryTokenPrivilege</c>.</summary>
    public override string Constant { get; } = constant;

    /// <inheritdoc/>
    public override RightReach Reach => new(Privileges.Points(Constant), $"{Constant} lets it {Words}");

    private protected override string DraftedAs => Constant;

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => taking.Path.Has(StepKind.LocalGroup) || taking.Path.Has(StepKind.Logon)
        ? Taken.NoStep
        : Off(taking, new RevokePrivilege(Host, Constant, taking.Principal));

    /// <summary>It may come with a log-on.</summary>
    public override string? WhyEntrantsUnread(SurveyView view) => ByLogon.WhyUnseen(this, view);

    internal override Held? HeldIn(Holdings holdings, IReadOnlyList<string> logons) => ByLogon.Held(this, holdings, logons);

    private protected override ListRight On(string host) => new PrivilegeRight(host, Constant);

    private protected override Change Grant(string principal) => new GrantPrivilege(Host, Constant, principal);
}
