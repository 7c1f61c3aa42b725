namespace JustRight.Service.Jobs;

/// <summary>The kinds of long work.</summary>
internal static class JobKinds
{
    /// <summary>Sets or lifts the guard of an object.</summary>
    public const string Guard = "guard";

    /// <summary>What the order of such a job says: unlike a remedy it asks nothing again afterwards, nor does undoing it.</summary>
    public const string GuardOrder = "\"guard\"";

    /// <summary>A trial of a product's sign-in.</summary>
    public const string SignIn = "sign-in";

    /// <summary>Goes on with the renewal of a password.</summary>
    public const string Renewal = "renew";

    /// <summary>Those that go on after a crash, each from its journal.</summary>
    public static readonly string[] GoOn = ["grant", "mend", Guard, "undo", Renewal];

    /// <summary>Those that make changes of a worklist or a remedy.</summary>
    public static readonly string[] Changing = ["grant", "mend", Guard, "undo"];

    /// <summary>Those that can be undone.</summary>
    public static readonly string[] Undoable = ["grant", "mend", Guard];

    /// <summary>Those that are about an estate and not an install, besides surveys.</summary>
    public static readonly string[] OfDirectory = ["trace", "mend", Guard, Renewal];
}
