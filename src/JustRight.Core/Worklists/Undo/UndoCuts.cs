using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Rights;

namespace JustRight.Core.Worklists.Undo;

/// <summary>What changes take away, as memberships and entries to think away, and who is touched by it.</summary>
internal sealed class UndoCuts
{
    private readonly SurveyView _view;
    private readonly HashSet<int> _touched = [];

    /// <summary>Gathers what changes take away.</summary>
    public UndoCuts(SurveyView view, IEnumerable<Change> changes)
    {
        _view = view;
        foreach (var loss in changes.SelectMany(c => AllEngines.LossesBy(c, view))) Add(loss);
    }

    /// <summary>What is thought away.</summary>
    public Cuts Cuts { get; private set; } = Cuts.None;

    /// <summary>The nodes whose memberships or entries those are.</summary>
    public IReadOnlyCollection<int> Touched => _touched;

    private void Add(Loss loss)
    {
        if (loss.Node < 0) return; // nobody that was read
        if (loss.Right is { } right) Cuts = Cuts.With(_view.Graph.SidOf(loss.Node), right);
        else if (loss.Group >= 0) Cuts = Cuts.With(loss.Node, loss.Group);
        else return;
        _touched.Add(loss.Node);
    }
}
