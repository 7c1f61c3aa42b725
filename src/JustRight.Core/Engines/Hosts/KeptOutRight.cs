using JustRight.Core.Changes;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Hosts;

/// <summary>
/// The denying twin of a log-on right [MS-LSAD 3.1.1.2.2]: whoever has it is kept out, whatever else lets it in.
/// </summary>
public sealed class KeptOutRight(string host, string type)
    : ListRight(NeedKind.KeptOut, host, LogonRights.DenyWords(type), $"kept-out:{type}@{host}")
{
    /// <summary>The type of log-on that is denied: one of <see cref="LogonKind.All"/>.</summary>
    public string Type { get; } = type;

    /// <inheritdoc/>
    public override string Constant => LogonRights.DenyConstant(Type);

    /// <summary>Nobody can do anything with it.</summary>
    public override RightReach Reach => new(1, $"{Words} only keeps its holder out");

    /// <inheritdoc/>
    public override bool OnlyRestrains => true;

    /// <inheritdoc/>
    public override string HeldWord => "denied";

    private protected override string DraftedAs => Type;

    /// <summary>What lets the account in today.</summary>
    public override string LackIn(Holdings holdings)
    {
        var name = holdings.View.Graph.PrincipalOf(holdings.Account)?.Name ?? "the account";
        var allowed = new LogonRight(Host, Type);
        if (holdings.Of(allowed) is not { } held)
            return holdings.View.WhyUnseen(allowed, holdings.Account) is null
                ? $"{name} is not denied it; nothing lets it {allowed.Words} today"
                : $"{name} is not denied it";
        var steps = holdings.PathsOf(held)[0].Steps;
        return $"{name} is not denied it, and may {allowed.Words}{(steps.Count > 2 ? $" through {steps[^2].Name}" : "")}";
    }

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => taking.Path.Has(StepKind.LocalGroup)
        ? Taken.NoStep
        : Off(taking, new LiftLogonDenial(Host, Type, taking.Principal));

    /// <summary>A denial counts for all that are in its holder: a right that somebody needs is not taken that way.</summary>
    private protected override string? WhyNotGiven(Giving giving) => WhoIsKeptOut.WhyNot(giving, giving.Holder, Stops);

    private protected override string? CautionOf(Giving giving) => WhoIsKeptOut.Others(giving);

    private protected override ListRight On(string host) => new KeptOutRight(host, Type);

    private protected override Change Grant(string principal) => new DenyLogon(Host, Type, principal);

    /// <summary>Whether a needed right is of no use to whoever is kept out.</summary>
    private bool Stops(Right needed, SurveyView view) =>
        (needed is LogonRight logon && Same(logon.Host, Host) && logon.Type == Type)
        || (Type == "service" && needed.OfService is { } service && Same(service.Host, Host))
        || (Type == "network" && needed.AtInstance is { } name && Same(view.Instance(name)?.Host ?? "", Host));
}
