using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;
using JustRight.Formats.Ldif;

namespace JustRight.Service.Data.Fits;

/// <summary>The directory part of a worklist as a file for an ordinary LDAP client, from what the latest survey read.</summary>
internal static class LdifFiles
{
    private const int NormalAccount = 0x200; // [MS-ADTS 2.2.16]

    /// <summary>Writes the file for a worklist.</summary>
    /// <param name="remove">Whether for what is to be taken away, instead of what is to be given.</param>
    public static string Write(JudgedInstall judged, SurveyView view, bool remove) => Write(
        $"what is to be {(remove ? "taken away from" : "given in")} the directory for {judged.Fit.Plan.Install}",
        (remove ? judged.Worklist.Remove : judged.Worklist.Give).Where(s => s.Blocked is null).Select(s => s.Change), view);

    /// <summary>Writes the file for changes.</summary>
    /// <param name="what">What it is for.</param>
    public static string Write(string what, IEnumerable<Change> changes, SurveyView view) => LdifWriter.Write(
        $"Just Right: {what}, by the survey of {view.Survey.TakenAt:yyyy-MM-dd HH:mm:ss zzz}{(view.Survey.Simulated ? " of a SIMULATED estate" : "")}",
        changes.OfType<DirectoryChange>(),
        new LdifDirectory(
            name => Find(view, name)?.Dn, principal => SidOf(view, principal), dn => view.Tree is { } tree
                && tree.IndexOf(dn) is >= 0 and var at
                ? tree.DescriptorOf(at)
                : null,
            name => Flags(view, name)));

    private static DirectoryPrincipal? Find(SurveyView view, string name) =>
        view.Graph.IndexOf(name) is >= 0 and var node ? view.Graph.PrincipalOf(node) : null;

    /// <summary>The SID of a principal by SID, well-known name or logon name, or null when it is not known.</summary>
    public static Sid? SidOf(SurveyView view, string principal)
    {
        if (Sid.TryParse(principal, out var sid)) return sid;
        return WellKnownSids.Find(principal) ?? Find(view, LogonName.WithoutDomain(principal))?.Sid;
    }

    private static int? Flags(SurveyView view, string name) =>
        Find(view, name) is { } account ? account.Flags == 0 ? NormalAccount : account.Flags : null;
}
