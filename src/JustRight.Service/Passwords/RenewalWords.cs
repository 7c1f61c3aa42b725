using JustRight.Core.Passwords;
using JustRight.Core.Plans;

namespace JustRight.Service.Passwords;

/// <summary>How a renewal stands, in one sentence.</summary>
internal static class RenewalWords
{
    /// <summary>The sentence.</summary>
    public static string Of(RunBook book, RunBookNext next)
    {
        var divided = book.Divided().Count;
        var behind = divided == 0
            ? ""
            : $"; {divided} {(divided == 1 ? "place is" : "places are")} with another password than the directory";
        var failed = book.Steps.FirstOrDefault(s => s.State is RunBookState.Failed or RunBookState.Refused);
        return next switch
        {
            RunBookNext.Over when book.GoesBack => $"undone: the old password holds{behind}",
            RunBookNext.Over => $"renewed{behind}",
            RunBookNext.Person => $"waits for a person{behind}",
            RunBookNext.Window => $"waits for a host's restart window{behind}",
            RunBookNext.Decision => $"stopped at step {failed!.Number}: {failed.Note}",
            _ => $"continues{behind}",
        };
    }

    /// <summary>A place that is not in line, in one sentence.</summary>
    public static string Of(DividedPlace place, IReadOnlyList<PasswordPlace> places)
    {
        var where = places.FirstOrDefault(p => p.Id == place.Place)?.Words ?? place.Words;
        return place.Has switch
        {
            WhichPassword.Unknown => $"{where}: it is not known which password is there",
            _ when place.Directory == WhichPassword.Unknown =>
                $"{where}: it has the {Word(place.Has)} one, and which the directory has is not known",
            _ => $"{where}: it has the {Word(place.Has)} one, the directory the {Word(place.Directory)} one",
        };
    }

    private static string Word(WhichPassword which) => which == WhichPassword.Old ? "old" : "new";
}
