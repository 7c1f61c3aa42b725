using JustRight.Core.Installs;
using JustRight.Formats.Installs;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Features.Documents;

/// <summary>
/// The file of an install gives its first stage. Afterwards the stage is what somebody said it is: a file that is added again,
/// perhaps from long ago, does not change it.
/// </summary>
internal static class FirstStage
{
    /// <summary>A text that replaces an install, with the stage that the install has.</summary>
    public static string Kept(DocumentRow before, string text)
    {
        if (Library.OpenInstall(before).Document is not { } known) return text;
        return StageLine.Set(text, known.Stage.Word(), before.File).Text ?? text;
    }
}
