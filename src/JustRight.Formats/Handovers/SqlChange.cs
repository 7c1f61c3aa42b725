namespace JustRight.Formats.Handovers;

/// <summary>One change as a statement of a database server.</summary>
/// <param name="Database">The database in whose context it is made, or null for the instance.</param>
/// <param name="Done">A condition that is true when nothing is left to do.</param>
/// <param name="Statement">The statement that makes it, one line without a semicolon.</param>
public sealed record SqlChange(string? Database, string Done, string Statement);
