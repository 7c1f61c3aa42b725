namespace JustRight.Core.Changes;

/// <summary>
/// What is written into the note of an object when it is made, so that an auditor finds who, when and what for, and so that
/// only what we made is ever deleted as ours.
/// </summary>
public static class CreationNote
{
    /// <summary>The note.</summary>
    /// <param name="who">Who confirmed the step.</param>
    /// <param name="install">What it is made for.</param>
    public static string Of(string who, DateTimeOffset at, string install) =>
        $"Made by {who} at {at.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC{Maker}{install}";

    private const string Maker = " with Just Right, for ";

    /// <summary>Whether a note is one that we wrote.</summary>
    public static bool IsOurs(string note) =>
        note.StartsWith("Made by ", StringComparison.Ordinal) && note.Contains(Maker, StringComparison.Ordinal);

    /// <summary>The change with the note, where it makes an object; else the change as it is.</summary>
    public static Change Noted(this Change change, string note) => change switch
    {
        CreateAccount c => c with { Note = note },
        CreateGroup c => c with { Note = note },
        _ => change,
    };

    /// <summary>
    /// Whether an object with this note may be deleted by a change that was made for one with <paramref name="wanted"/>.
    /// </summary>
    public static bool IsTheSame(string wanted, string found) => wanted.Length == 0 || wanted == found;

    /// <summary>Why an object is left alone.</summary>
    public static string WhyNot(string dn, string wanted) =>
        $"{dn} does not carry the note '{wanted}' that we wrote when we created ours: it is another object. Delete it by hand if that is intended.";
}
