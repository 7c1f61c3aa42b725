using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit;

/// <summary>
/// For an account whose password the directory keeps for several hosts: is there a key to make it from, and may each host fetch
/// it?
/// </summary>
internal static class ManagedPasswordFindings
{
    /// <summary>The findings, in words; none for any other account.</summary>
    public static IEnumerable<string> Of(Plan plan, PlannedAccount planned, DirectoryPrincipal account, SurveyView view)
    {
        if (account.PasswordFetchers is not { } text) yield break;
        var now = view.Survey.Directory.ReadAt;
        if (view.Survey.Directory.RootKeysUsableFrom is not { Count: > 0 } keys)
            yield return "It is a gMSA, and no root key for gMSA passwords was found: none exists, or the reader may not see it. Without one no host can fetch the password.";
        else if (keys.Min() > now)
            yield return $"It is a gMSA, and the root key can be used from {keys.Min().UtcDateTime:yyyy-MM-dd HH:mm} UTC only: before that no host can fetch the password.";
        if (text.Length == 0)
        {
            yield return "It is a gMSA, and the list of who may fetch its password may not be read.";
            yield break;
        }

        var list = DescriptorText.Read(text);
        var allowed = list.Entries.Where(e => e.IsEffective && e.Allows)
            .Select(e => view.Graph.IndexOf(e.Trustee) is >= 0 and var node ? view.Graph.NameOf(node) : e.Trustee.ToString())
            .Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        yield return allowed.Count == 0
            ? "It is a gMSA, and nobody may fetch its password."
            : $"It is a gMSA; its password may be fetched by {string.Join(", ", allowed)}.";
        foreach (var host in plan.GrantsOf(planned.Key).Select(g => g.Right).Select(r => r.OnHost).OfType<string>().Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.OrdinalIgnoreCase))
        {
            var computer = view.Graph.IndexOf(host + "$");
            if (computer < 0)
                yield return $"{host}$ was not found in the directory: whether {host} may fetch its password is not known.";
            else if (AccessCheck.Judge(list, AccessTokens.Of(view.Graph, computer), Fetch).Answer is var answer
                && answer != AccessAnswer.Yes)
                yield return answer == AccessAnswer.No
                    ? $"{host} may not fetch its password: the service will not start there."
                    : $"Whether {host} may fetch its password is not known: the groups of its computer account could not all be read.";
        }
    }

    /// <summary>Who may fetch the password is who may read a property by that list [MS-ADTS 3.1.1.4.5.39].</summary>
    private static AccessQuestion Fetch { get; } = AccessQuestion.Simple(AccessRights.ReadProperty);
}
