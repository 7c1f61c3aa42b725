using JustRight.Core.Surveys;
using JustRight.Formats.Hosts;

namespace JustRight.Connectors.Directories.Files;

/// <summary>
/// A copy of the policies' templates, as they lie on the controllers' file share [MS-GPSB 2.2]: one folder a policy.
/// </summary>
public static class PolicyFolder
{
    private static readonly string[] Template = ["Machine", "Microsoft", "Windows NT", "SecEdit", "GptTmpl.inf"];

    /// <summary>
    /// The policies with the lists that the folder gives; those that the folder does not know stay as they are, with the
    /// reason.
    /// </summary>
    public static PolicySnapshot Fill(PolicySnapshot policies, string folder)
    {
        if (!Directory.Exists(folder))
            return policies with
            {
                Policies = [.. policies.Policies.Select(p =>
                    p with { ListsUnread = $"there is no folder {folder} (directory.policy-folder)" })],
            };
        return policies with { Policies = [.. policies.Policies.Select(p => Fill(p, folder))] };
    }

    private static GroupPolicy Fill(GroupPolicy policy, string folder)
    {
        if (Inside(folder, policy.Id) is not { } own) return policy with { ListsUnread = $"it is not in {folder}" };
        string? at = own;
        foreach (var name in Template)
            if (at is not null) at = Inside(at, name);
        if (at is null) return policy with { Lists = [] }; // a policy without a template governs no right
        try
        {
            return policy with { Lists = SecurityTemplate.Read(File.ReadAllBytes(at)).Rights() };
        }
        catch (Exception e) when (e is InvalidDataException or IOException or UnauthorizedAccessException)
        {
            return policy with { ListsUnread = $"{at}: {e.Message}" };
        }
    }

    /// <summary>The share knows no case; a copy on this machine does.</summary>
    private static string? Inside(string folder, string name) =>
        Directory.EnumerateFileSystemEntries(folder)
            .FirstOrDefault(e => string.Equals(Path.GetFileName(e), name, StringComparison.OrdinalIgnoreCase));
}
