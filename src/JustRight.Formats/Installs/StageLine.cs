using System.Text;
using System.Text.RegularExpressions;
using JustRight.Core.Faults;

namespace JustRight.Formats.Installs;

/// <summary>Says in the text of an install how far it has come, and leaves the rest of the text as its author wrote it.</summary>
public static partial class StageLine
{
    /// <summary>The text with another stage; null with the faults where that cannot be said there.</summary>
    /// <param name="text">The text of an install.</param>
    /// <param name="stage"><c>planned</c>, <c>installed</c> or <c>retiring</c>.</param>
    /// <param name="file">Its name, for faults.</param>
    public static (string? Text, IReadOnlyList<Fault> Faults) Set(string text, string stage, string file)
    {
        var changed = Line().IsMatch(text)
            ? Line().Replace(text, $"stage: {stage}", 1)
            : Estate().Replace(text, $"$0\nstage: {stage}", 1);
        var (install, faults) = InstallReader.Read(Encoding.UTF8.GetBytes(changed), file, stored: true);
        return install is null ? (null, faults) : (changed, []);
    }

    [GeneratedRegex(@"^stage:[^\r\n#]*?(?=[ \t]*(#[^\r\n]*)?\r?$)", RegexOptions.Multiline | RegexOptions.CultureInvariant)]
    private static partial Regex Line();

    [GeneratedRegex(@"^estate:[^\r\n]*", RegexOptions.Multiline | RegexOptions.CultureInvariant)]
    private static partial Regex Estate();
}
