namespace JustRight.Service.Jobs;

/// <summary>The kinds of long work.</summary>
internal static class JobKinds
{
    /// <summary>Sets or lifts the protection of an object.</summary>
    public const string Protection = "protect";

    /// <summary>
    /// What the order of such a job says: unlike a remedy it asks nothing again afterwards, nor does undoing it.
    /// </summary>
    public const string ProtectionOrder = "\"protect\"";

    /// <summary>A sign-in test of a product's sign-in.</summary>
    public const string SignIn = "sign-in";

    /// <summary>Goes on with the renewal of a password.</summary>
    public const string Renewal = "renew";

    /// <summary>Those that go on after a crash, each from its journal.</summary>
    public static readonly string[] GoOn = ["grant", "fix", Protection, "undo", Renewal];

    /// <summary>Those that make changes of a worklist or a remedy.</summary>
    public static readonly string[] Changing = ["grant", "fix", Protection, "undo"];

    /// <summary>Those that can be undone.</summary>
    public static readonly string[] Undoable = ["grant", "fix", Protection];

    /// <summary>Those that are about an estate and not an install, besides surveys.</summary>
    public static readonly string[] OfDirectory = ["trace", "fix", Protection, Renewal];
}
