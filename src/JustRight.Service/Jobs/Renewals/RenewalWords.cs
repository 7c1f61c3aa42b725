using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Core.Runs;

namespace JustRight.Service.Jobs.Renewals;

/// <summary>How a renewal stands, in one sentence.</summary>
internal static class RenewalWords
{
    /// <summary>The sentence.</summary>
    public static string Of(RunBook book, RunWait next)
    {
        var divided = book.Divided().Count;
        var behind = divided == 0
            ? ""
            : $"; {divided} {(divided == 1 ? "place is" : "places are")} with another password than the directory";
        var failed = book.Run.Steps.FirstOrDefault(s => s.HasFailed);
        return next switch
        {
            RunWait.Over when book.GoesBack => $"undone: the old password holds{behind}",
            RunWait.Over => $"renewed{behind}",
            RunWait.Person => $"waits for a person{behind}",
            RunWait.Window => $"waits for a host's restart window{behind}",
            RunWait.Decision => $"stopped at step {failed!.Number}: {failed.Note}",
            RunWait.Go => $"continues{behind}",
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
