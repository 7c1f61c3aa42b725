namespace JustRight.Service.Data.Documents;

/// <summary>A document to be added, or to replace the one of that name.</summary>
/// <param name="Kind">One of <see cref="Library.SheetKind"/>, <see cref="Library.EstateKind"/>, <see
/// cref="Library.InstallKind"/>.</param>
/// <param name="File">The name to use in positions.</param>
public sealed record NewDocument(string Kind, string Name, string File, string Text);

/// <summary>What the log says of something that is done to several documents at once.</summary>
public sealed record LogSaid(string Action, string Subject, string Detail);
