namespace JustRight.Core.Faults;

/// <summary>Where something was written: the file as the user named it, and the line and column, both counted from 1.</summary>
public readonly record struct Origin(string File, int Line, int Column)
{
    /// <summary>The place of a thing that was not written in any file.</summary>
    public static Origin None { get; } = new("", 0, 0);

    /// <summary>This place moved right by <paramref name="columns"/>, for a position inside a one-line value.</summary>
    public Origin Right(int columns) => this with { Column = Column + columns };

    /// <summary>The form people click on: <c>file:line:column</c>.</summary>
    public override string ToString() => Line == 0 ? File : $"{File}:{Line}:{Column}";
}
