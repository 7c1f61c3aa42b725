using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Rights;

namespace JustRight.Core.Fit.Drift;

/// <summary>A step of ours that was made.</summary>
/// <param name="By">Who had it made.</param>
public sealed record MadeStep(Change Change, string By, DateTimeOffset At);

/// <summary>
/// Tells which step of ours made a difference: one that gave or took the right itself, from the account or from a group on the
/// way to it; one that took somebody out of a group on the way; one of the account itself or of the service.
/// </summary>
public sealed class OwnSteps
{
    private readonly List<(MadeStep Step, IReadOnlyList<Touch> Touches)> _steps;

    /// <summary>Reads what the steps touched.</summary>
    /// <param name="steps">The steps that were made between the two fits, in their order.</param>
    /// <param name="view">The newest survey: it knows whose a role is.</param>
    public OwnSteps(IReadOnlyList<MadeStep> steps, SurveyView view) =>
        _steps = [.. steps.Select(s => (s, Touched(s.Change, view)))];

    /// <summary>The last of the steps that made a difference, or null when none is known to have.</summary>
    public MadeStep? MadeBy(DriftLine line) =>
        line.Id.Length == 0 ? null : _steps.LastOrDefault(s => s.Touches.Any(t => IsOn(t, line))).Step;

    private static bool IsOn(Touch touch, DriftLine line)
    {
        var isWhose = touch.Whose.Length == 0 || Same(touch.Whose, line.Account) || line.Passes(touch.Whose);
        if (touch.Group is { } group) return isWhose && line.Passes(group);
        return isWhose && IsAbout(line.Id, touch.Key!);
    }

    /// <summary>An id ends with the key of the right that it is about.</summary>
    private static bool IsAbout(string id, string key) =>
        id.EndsWith($"/{key}", StringComparison.OrdinalIgnoreCase);

    private static IReadOnlyList<Touch> Touched(Change change, SurveyView view)
    {
        if (change.OwnObject is { } account)
            return [.. Enum.GetValues<AccountAspect>().Select(a => Touch.Of(account, AllEngines.OfAccount("", a)))];
        if (change is ServiceChange at)
        {
            var asked = Enum.GetValues<ServiceAspect>().Select(a => new ServiceAsked(at.Host, at.Service, a));
            return [.. asked.Select(a => Touch.Of("", AllEngines.OfService(a)))];
        }

        var losses = AllEngines.LossesBy(change, view);
        var gains = change.Inverse is { } inverse ? AllEngines.LossesBy(inverse, view) : [];
        // who is no longer there, or what group, is nobody's path any more
        return [.. losses.Concat(gains).Where(l => l.Node >= 0 && (l.Right is not null || l.Group >= 0))
            .Select(l => Touch.Of(l, view))];
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);

    /// <summary>Whose entry or membership a step touched.</summary>
    /// <param name="Whose">The name of the account or group; empty for whoever it concerns.</param>
    /// <param name="Key">The key of the right, or null for a membership.</param>
    /// <param name="Group">The group, for a membership.</param>
    private sealed record Touch(string Whose, string? Key, string? Group)
    {
        public static Touch Of(string whose, Right right) => new(whose, right.Key, null);

        public static Touch Of(Loss loss, SurveyView view)
        {
            var whose = view.Graph.PrincipalOf(loss.Node)?.Name ?? view.Graph.NameOf(loss.Node);
            return loss.Right is { } right
                ? Of(whose, right)
                : new Touch(whose, null, view.Graph.PrincipalOf(loss.Group)?.Name ?? view.Graph.NameOf(loss.Group));
        }
    }
}
