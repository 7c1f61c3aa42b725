using JustRight.Core.Changes;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.Person;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines;

/// <summary>
/// Every engine, and what is asked of all of them: the one place where something above comes to a right without naming its kind.
/// A new engine starts with a line here.
/// </summary>
public static class AllEngines
{
    /// <summary>The engines, in the order in which they are asked.</summary>
    public static IReadOnlyList<Engine> List { get; } =
        [new DirectoryEngine(), new HostEngine(), new PostgreSqlEngine(), new SqlServerEngine(), new PersonEngine()];

    /// <summary>A survey made ready for judging.</summary>
    public static SurveyView View(Survey survey) => new(survey, List);

    /// <summary>The right that a need asks for at a spot; one that nobody can see where no engine knows it.</summary>
    public static Right RightOf(Need need, AskedAt at) =>
        List.Select(e => e.RightOf(need, at)).FirstOrDefault(r => r is not null) ?? Unjudged(need, at);

    /// <summary>A right that nobody can see.</summary>
    public static Right Unjudged(Need need, AskedAt at) =>
        new UnjudgedRight(need.Kind, need.Value, at.Spot?.Instance ?? at.Spot?.Host ?? at.Domain);

    /// <summary>Membership of a domain group.</summary>
    public static Right Membership(string domain, string group) => new DomainGroupRight(domain, group);

    /// <summary>Something that an account must be able to do below a branch.</summary>
    public static Right Below(BranchAsked asked) => new DirectoryRight(asked);

    /// <summary>Something that a service must be.</summary>
    /// <param name="wanted">What is wanted, in words.</param>
    public static Right OfService(ServiceAsked asked, string wanted = "") => new ServiceRight(asked, wanted);

    /// <summary>Something that an account needs of itself.</summary>
    public static Right OfAccount(string domain, AccountAspect aspect) => new AccountRight(domain, aspect);

    /// <summary>The right that a list of user rights of a host gives or denies; null for a list of neither.</summary>
    public static (Right Right, bool Denies)? OnList(string constant, string host) => HostLists.RightOf(constant, host);

    /// <summary>What a change takes from whom.</summary>
    public static IReadOnlyList<Loss> LossesBy(Change change, SurveyView view) =>
        List.Select(e => e.LossesBy(change, view)).FirstOrDefault(l => l is not null)
        ?? throw new InvalidOperationException($"No engine knows the change {change.GetType().Name}.");

    /// <summary>Who is entered directly as able to do, or to become able to do, anything at an instance.</summary>
    public static IReadOnlyList<string> RulersOf(InstanceSnapshot instance, SurveyView view) =>
        List.Select(e => e.RulersOf(instance, view)).FirstOrDefault(r => r is not null) ?? [];

    /// <summary>What an account can come to at an instance beyond what it was granted.</summary>
    public static IReadOnlyList<WayToMore> WaysToMore(InstanceSnapshot instance, Holdings holdings) =>
        List.Select(e => e.WaysToMore(instance, holdings)).FirstOrDefault(w => w is not null) ?? [];
}
