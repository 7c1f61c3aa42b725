namespace JustRight.Core.Surveys;

/// <summary>A survey among those that are kept of one estate.</summary>
/// <param name="Id">Counts up with time.</param>
/// <param name="Changed">Whether a fit that is kept was shown by it first.</param>
/// <param name="Reviewed">Whether such a fit was reviewed: the survey is what the review rests on.</param>
public readonly record struct KeptSurvey(int Id, DateTimeOffset TakenAt, bool Changed, bool Reviewed)
{
    /// <summary>How many of the latest stay, whatever they show.</summary>
    public const int Latest = 10;

    /// <summary>How long each survey that shows a change stays.</summary>
    public static readonly TimeSpan EachFor = TimeSpan.FromDays(30);

    /// <summary>How long one survey of each week stays; after that, one of each four weeks.</summary>
    public static readonly TimeSpan WeeklyFor = TimeSpan.FromDays(365);

    /// <summary>
    /// Those that may go: all but the latest ten, those that a review rests on, and of those that show a change each of the last
    /// thirty days, the last of each week of a year, and the last of each four weeks before.
    /// </summary>
    /// <param name="all">All of one estate, in any order.</param>
    /// <returns>Their ids, the oldest first.</returns>
    /// <remarks>
    /// Days are counted by UTC, seven of them a week, and four such weeks lie in one span of four: so what stays for a week still
    /// stands for its four weeks later, and it does not matter how often this is asked.
    /// </remarks>
    public static IReadOnlyList<int> ToLetGo(IReadOnlyList<KeptSurvey> all, DateTimeOffset now)
    {
        var stay = all.OrderByDescending(s => s.Id).Take(Latest).Concat(all.Where(s => s.Reviewed)).Select(s => s.Id).ToHashSet();
        stay.UnionWith(all.Where(s => s.Changed).GroupBy(s => Bucket(s, now)).Select(g => g.Max(s => s.Id)));
        return [.. all.Select(s => s.Id).Where(id => !stay.Contains(id)).Order()];
    }

    private static (int Days, long Number) Bucket(KeptSurvey survey, DateTimeOffset now)
    {
        var age = now - survey.TakenAt;
        if (age <= EachFor) return (0, survey.Id);
        var days = age <= WeeklyFor ? 7 : 28;
        return (days, survey.TakenAt.UtcTicks / TimeSpan.TicksPerDay / days);
    }
}
