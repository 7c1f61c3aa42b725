using JustRight.Core.Faults;
using JustRight.Core.Sheets;

namespace JustRight.Core.Installs;

/// <summary>
/// An install moves on to another release of its product. It keeps its name, history and accounts and is planned anew; what the
/// former release needs stands on as an install of its own, which is retired when that release is gone.
/// </summary>
public static class Succession
{
    /// <summary>Why an install does not move on to a sheet; null when it can.</summary>
    public static Fault? WhyNot(Install install, Sheet to)
    {
        if (to.Product != install.Product)
            return Of(install, $"{to.Name} is another product than {install.Sheet}.", $"a release of {install.Product}");
        if (to.Release == install.Release)
            return Of(install, $"{install.Name} follows {to.Name} already.", "another release");
        if (install.SucceededBy is { } by)
            return Of(install, $"{install.Name} is the former release of {by}.", $"an upgrade of {by}");
        return install.Stage == Stage.Retiring
            ? Of(install, $"{install.Name} is being retired.", "an install that is planned or installed")
            : null;
    }

    private static Fault Of(Install install, string message, string expected) =>
        new("no-upgrade", install.At, "to", message) { Expected = expected };

    /// <summary>The name of the install that keeps what the former release needs: <c>thermograph-dataroom-4-2</c>.</summary>
    public static string FormerName(Install install)
    {
        var release = string.Concat(install.Release.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-'));
        var room = LongestName - release.Length - 1;
        return $"{(install.Name.Length > room ? install.Name[..room] : install.Name)}-{release}";
    }

    private const int LongestName = 40;

    /// <summary>
    /// How far the former release has come. One that never was installed never will be, and what was made for it goes.
    /// </summary>
    public static Stage StageOfFormer(Install install) => install.Stage == Stage.Installed ? Stage.Installed : Stage.Retiring;

    /// <summary>
    /// What the other release asks and the install does not answer yet, in the order of the sheet. A question that was left to
    /// its default before is left to it again.
    /// </summary>
    public static IReadOnlyList<OpenQuestion> Asked(Install install, Sheet from, Sheet to, Estates.Estate estate)
    {
        var before = OpenQuestions.Of(from, estate).Where(q => q.Default is not null).Select(q => q.Field);
        var said = install.Places.Keys.Select(k => $"places.{k}").Concat(install.Answers.Keys.Select(k => $"answers.{k}"))
            .Append(install.SignIn is null ? "" : "sign-in.directory").Concat(before).ToHashSet(StringComparer.Ordinal);
        return [.. OpenQuestions.Of(to, estate).Where(q => !said.Contains(q.Field))];
    }
}
