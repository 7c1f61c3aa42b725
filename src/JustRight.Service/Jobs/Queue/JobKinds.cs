using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Queue;

/// <summary>What kinds of long work have in common.</summary>
internal static class JobKinds
{
    /// <summary>
    /// What the order of a protection says: unlike a remedy it asks nothing again afterwards, nor does undoing it.
    /// </summary>
    public const string ProtectionOrder = "\"protect\"";

    /// <summary>Those that make changes of a worklist or a remedy.</summary>
    public static readonly JobKind[] Changing = [JobKind.Grant, JobKind.Fix, JobKind.Protect, JobKind.Undo];

    /// <summary>Those that go on after a crash, each from its journal.</summary>
    public static readonly JobKind[] GoOn = [.. Changing, JobKind.Renew];

    /// <summary>Those that can be undone.</summary>
    public static readonly JobKind[] Undoable = [JobKind.Grant, JobKind.Fix, JobKind.Protect];

    /// <summary>Those that are about an estate and not an install, besides surveys.</summary>
    public static readonly JobKind[] OfDirectory = [JobKind.Trace, JobKind.Fix, JobKind.Protect, JobKind.Renew];

    /// <summary>Acts that are done at once, and are jobs only while they wait for a second person.</summary>
    public static readonly JobKind[] Acts =
    [
        JobKind.Document, JobKind.Stage, JobKind.Exception, JobKind.Allowance, JobKind.HandOver, JobKind.Backup,
    ];
}
