using JustRight.Service.Data.Documents;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Data.Fits;

/// <summary>The fit of an install for whoever asks by its name, or the answer that says why there is none.</summary>
internal sealed class JudgedOrNot(Library library, FitService fitService)
{
    /// <summary>An install judged by the latest survey, or the problem that stands in its way.</summary>
    public async Task<(JudgedInstall? Judged, ProblemHttpResult? Problem)> FindAsync(string install, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.InstallKind, install, cancel) is { } missing) return (null, missing);
        if (await fitService.JudgeAsync(install, cancel) is { } judged) return (judged, null);
        return (
            null,
            Problems.Of(
                409, "not-surveyed", "No survey of this estate was taken yet.",
                $"Verify the install first: justright verify {install}"));
    }
}
