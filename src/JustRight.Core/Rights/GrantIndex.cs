using JustRight.Core.Directory;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>
/// Every right that places and entries of the directory give: by the right, and by the SID they give it to. Made once a survey,
/// asked for every account.
/// </summary>
public sealed class GrantIndex
{
    private readonly Dictionary<string, IPlaceGrants> _places = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<Sid, List<IPlaceGrants>> _placesOf = [];
    private readonly Dictionary<string, List<RightTail>> _denied = new(StringComparer.Ordinal);
    private readonly HashSet<Sid> _deniedSids = [];
    private readonly Dictionary<Sid, List<RightTail>> _elsewhereTo = [];
    private readonly Dictionary<string, List<RightTail>> _elsewhereOf = new(StringComparer.Ordinal);

    /// <summary>Reads a survey.</summary>
    /// <param name="tree">The access lists of the directory, or null when they were not read.</param>
    public GrantIndex(IReadOnlyList<Engine> engines, Survey survey, MembershipGraph graph, AccessTree? tree)
    {
        foreach (var engine in engines)
        {
            foreach (var place in engine.Places(survey, graph)) Add(place);
            foreach (var tail in engine.Given(survey, graph, tree)) Add(tail);
            foreach (var tail in engine.Denied(survey))
            {
                _deniedSids.Add(tail.Holder);
                (_denied.TryGetValue(tail.Right.Key, out var of) ? of : _denied[tail.Right.Key] = []).Add(tail);
            }
        }
    }

    /// <summary>Who is given a right directly.</summary>
    /// <param name="which">The principals that matter.</param>
    public IEnumerable<RightTail> Of(Right right, Func<Sid, bool> which)
    {
        var elsewhere = _elsewhereOf.TryGetValue(right.Key, out var tails) ? tails.Where(t => which(t.Holder)) : [];
        return At(right) is { } place ? place.Of(right, which).Concat(elsewhere) : elsewhere;
    }

    /// <summary>What is given to a SID directly.</summary>
    /// <param name="passOver">The rights that need not be looked into: what comes along with them is left out.</param>
    public IEnumerable<RightTail> To(Sid holder, Func<Right, bool>? passOver = null)
    {
        var places = _placesOf.TryGetValue(holder, out var some) ? some : [];
        return places.SelectMany(h => h.To(holder, passOver)).Concat(ElsewhereTo(holder));
    }

    /// <summary>What is given to a SID directly elsewhere than by hosts: by instances and by entries of the directory.</summary>
    public IReadOnlyList<RightTail> ElsewhereTo(Sid holder) => _elsewhereTo.TryGetValue(holder, out var tails) ? tails : [];

    /// <summary>Whether a SID is given a right directly.</summary>
    public bool Gives(Sid holder, Right right) => Of(right, s => s == holder).Any();

    /// <summary>Who is denied a right: itself, one that covers it, or the way in to where it holds.</summary>
    public IEnumerable<RightTail> DeniedFor(Right right)
    {
        if (At(right) is { } place) return place.Denying(right);
        return _denied.Count == 0
            ? []
            : right.Entrances.Prepend(right).SelectMany(r => r.Covering.Prepend(r)).DistinctBy(r => r.Key)
                .SelectMany(r => _denied.TryGetValue(r.Key, out var tails) ? tails : []);
    }

    /// <summary>Whether a SID is denied anything directly.</summary>
    public bool IsDenied(Sid sid) => _deniedSids.Contains(sid);

    private IPlaceGrants? At(Right right) => right.OnHost is { } name && _places.TryGetValue(name, out var place) ? place : null;

    private void Add(IPlaceGrants place)
    {
        _places[place.Place] = place;
        foreach (var (sid, denied) in place.Principals())
        {
            if (denied)
            {
                _deniedSids.Add(sid);
                continue;
            }

            if (!_placesOf.TryGetValue(sid, out var places)) _placesOf[sid] = places = [];
            // place by place, so a repetition can only be the last
            if (places.Count == 0 || places[^1] != place) places.Add(place);
        }
    }

    private void Add(RightTail tail)
    {
        (_elsewhereTo.TryGetValue(tail.Holder, out var to) ? to : _elsewhereTo[tail.Holder] = []).Add(tail);
        (_elsewhereOf.TryGetValue(tail.Right.Key, out var of) ? of : _elsewhereOf[tail.Right.Key] = []).Add(tail);
    }
}
