namespace JustRight.Service.Data.Storage;

/// <summary>
/// The kinds of long work, and of acts that wait for a second person. Stored by their words: a kind keeps its name.
/// </summary>
public enum JobKind
{
    /// <summary>Reads an estate.</summary>
    Survey,

    /// <summary>Reads an estate and judges an install.</summary>
    Verify,

    /// <summary>Carries out steps of a worklist.</summary>
    Grant,

    /// <summary>Traces a right in a directory.</summary>
    Trace,

    /// <summary>Makes a remedy that a trace found.</summary>
    Fix,

    /// <summary>Sets or lifts the protection of an object.</summary>
    Protect,

    /// <summary>Undoes what another job changed.</summary>
    Undo,

    /// <summary>A sign-in test of a product's sign-in.</summary>
    SignIn,

    /// <summary>Goes on with the renewal of a password.</summary>
    Renew,

    /// <summary>Replaces a sheet, an estate or an install, or adds an estate over systems of another.</summary>
    Document,

    /// <summary>Sets the stage of an install.</summary>
    Stage,

    /// <summary>Accepts a deviation.</summary>
    Exception,

    /// <summary>Allows a secret for a use.</summary>
    Allowance,

    /// <summary>Hands a password over, shown or sealed.</summary>
    HandOver,

    /// <summary>Makes a backup with what is secret in it.</summary>
    Backup,
}
