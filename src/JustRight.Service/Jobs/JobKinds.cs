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

    /// <summary>Those that change the estate: after a crash they go on from their journal.</summary>
    public static readonly string[] Changing = ["grant", "mend", Guard, "undo"];

    /// <summary>Those that can be undone.</summary>
    public static readonly string[] Undoable = ["grant", "mend", Guard];

    /// <summary>Those that are about an estate and not an install, besides surveys.</summary>
    public static readonly string[] OfDirectory = ["trace", "mend", Guard];
}
