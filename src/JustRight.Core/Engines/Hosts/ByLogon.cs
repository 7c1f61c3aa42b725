using JustRight.Core.Hosts;
using JustRight.Core.Rights;

namespace JustRight.Core.Engines.Hosts;

/// <summary>What a log-on itself brings: whoever may log on as a service has what the group Service has, while it does.</summary>
internal static class ByLogon
{
    /// <summary>
    /// What is held of a right of a host by entries there and by the log-ons through which the account is used.
    /// </summary>
    public static Held? Held(HostRight right, Holdings holdings, IReadOnlyList<string> logons)
    {
        var always = holdings.Entered(right);
        var brought = Brought(right, holdings, logons);
        if (brought.Count == 0) return always;
        var all = new Held(right);
        all.Tails.AddRange([.. always?.Tails ?? [], .. brought]);
        return all;
    }

    /// <summary>Why it is not known whether a log-on brings a right, which the group of that log-on has; or null.</summary>
    public static string? WhyUnseen(HostRight right, SurveyView view) => view.IsAllReadOf(right.Host) ? null : LogonKind.All
        .Where(type => view.Index.Of(right, LogonKind.GroupsOf(type).Contains).Any())
        .Select(type => view.WhyHoldersUnseen(new LogonRight(right.Host, type)))
        .FirstOrDefault(why => why is not null);

    private static List<(int Node, RightTail Tail)> Brought(HostRight right, Holdings holdings, IReadOnlyList<string> logons)
    {
        var brought = new List<(int, RightTail)>();
        foreach (var type in logons)
        {
            var tails = holdings.View.Index.Of(right, LogonKind.GroupsOf(type).Contains).ToList();
            if (tails.Count == 0 || holdings.Entered(new LogonRight(right.Host, type)) is null) continue;
            var step = new PathStep(StepKind.Logon, $"{LogonRights.Words(type)} on {right.Host}");
            brought.AddRange(tails.Select(t => (holdings.Account, t with { Steps = [step, .. t.Steps] })));
        }

        return brought;
    }
}
