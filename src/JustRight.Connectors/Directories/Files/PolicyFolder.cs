using JustRight.Core.Surveys;
using JustRight.Formats.Hosts;

namespace JustRight.Connectors.Directories.Files;

/// <summary>
/// A copy of the policies' templates and preferences, as they lie on the controllers' file share [MS-GPSB 2.2]: one folder a
/// policy.
/// </summary>
public static class PolicyFolder
{
    private static readonly string[] Template = ["Machine", "Microsoft", "Windows NT", "SecEdit", "GptTmpl.inf"];
    private static readonly string[] Preferences = ["Machine", "Preferences", "Groups", "Groups.xml"];

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
                    p with { ListsUnread = NoFolder(folder), GroupsUnread = NoFolder(folder) })],
            };
        return policies with { Policies = [.. policies.Policies.Select(p => Fill(p, folder))] };
    }

    private static string NoFolder(string folder) => $"there is no folder {folder} (directory.policy-folder)";

    private static GroupPolicy Fill(GroupPolicy policy, string folder)
    {
        if (Inside(folder, policy.Id) is not { } own)
            return policy with { ListsUnread = $"it is not in {folder}", GroupsUnread = $"it is not in {folder}" };
        var (template, templateUnread) = Read(own, Template, SecurityTemplate.Read, SecurityTemplate.Empty);
        var (preferences, preferencesUnread) = Read(own, Preferences, GroupPreferences.Read, []);
        var unread = templateUnread ?? preferencesUnread;
        return policy with
        {
            Lists = template?.Rights(),
            ListsUnread = templateUnread,
            Groups = unread is null ? [.. preferences!, .. template!.Groups()] : null,
            GroupsUnread = unread,
        };
    }

    private delegate T Reading<T>(ReadOnlySpan<byte> bytes);

    /// <summary>What a file of a policy says; where there is none, the policy says nothing.</summary>
    private static (T? Said, string? Unread) Read<T>(string policy, string[] path, Reading<T> read, T nothing)
        where T : class
    {
        string? at = policy;
        foreach (var name in path)
            if (at is not null) at = Inside(at, name);
        if (at is null) return (nothing, null);
        try
        {
            return (read(File.ReadAllBytes(at)), null);
        }
        catch (Exception e) when (e is InvalidDataException or IOException or UnauthorizedAccessException)
        {
            return (null, $"{at}: {e.Message}");
        }
    }

    /// <summary>The share knows no case; a copy on this machine does.</summary>
    private static string? Inside(string folder, string name) =>
        Directory.EnumerateFileSystemEntries(folder)
            .FirstOrDefault(e => string.Equals(Path.GetFileName(e), name, StringComparison.OrdinalIgnoreCase));
}
