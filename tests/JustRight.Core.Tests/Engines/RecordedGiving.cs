using JustRight.Core.Changes;
using JustRight.Core.Faults;
using JustRight.Core.Rights;

namespace JustRight.Core.Tests.Engines;

/// <summary>Gives a right to the account of a <see cref="KindScene"/> and keeps what its kind answers.</summary>
internal sealed class RecordedGiving(SurveyView view) : Giving
{
    private readonly Dictionary<Type, SharedSteps> _shared = [];

    public List<(StepOrder Order, Change Change, string? Blocked)> Steps { get; } = [];

    public List<string> Left { get; } = [];

    public List<Right> With { get; } = [];

    public override SurveyView View => view;

    public override string Domain => KindScene.Domain;

    public override string Install => "thermograph";

    public override GivenAccount Account { get; } = new("poller", KindScene.Account, null, "polls the probes");

    public override string Holder => Account.Name;

    public override GivenState State => GivenState.Missing;

    public override GovernedRight? Governed => null;

    public override string Why => Account.Purpose;

    public override string? Blocked => null;

    public override string? HolderAbsent => null;

    public override string? Unread => null;

    public override IEnumerable<Right> BesideOn(string host) => [];

    public override IReadOnlyList<Entrant> WhoEnters(string group) => [new Entrant(Account.Name, null, null)];

    public override IEnumerable<Reached> WhoIsIn(string holder) => [];

    public override string? WhoIsDeniedBy(string group, string entrant) => null;

    public override string? WhoLosesByRefresh(string host) => null;

    public override void AddBlocked(StepOrder order, Change change, string? blocked, string? why = null, Origin? at = null) =>
        Steps.Add((order, change, blocked));

    public override void ComesWith(Right other) => With.Add(other);

    public override void LeaveToPerson(string why) => Left.Add(why);

    public override T Shared<T>()
    {
        if (_shared.TryGetValue(typeof(T), out var known)) return (T)known;
        var made = new T();
        _shared[typeof(T)] = made;
        return made;
    }

    /// <summary>What the kind of a right answers.</summary>
    public static RecordedGiving Of(Right right, SurveyView view)
    {
        var giving = new RecordedGiving(view);
        right.Give(giving);
        foreach (var shared in giving._shared.Values) shared.Finish();
        return giving;
    }
}
