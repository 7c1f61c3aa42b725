using JustRight.Core.Directory;
using JustRight.Core.Rights.Access;

namespace JustRight.Connectors.Directories;

/// <summary>Who reads: what a directory does not show may be hidden from that account alone.</summary>
internal static class ReaderToken
{
    /// <summary>
    /// The token of the account that reads, as the directory itself says, or null when it does not [MS-ADTS 3.1.1.3.2.28].
    /// </summary>
    public static AccessToken? Of(IDirectoryReader directory)
    {
        var sids = new List<Sid>();
        foreach (var bytes in directory.Read("", "tokenGroups")?.AllBytes("tokenGroups") ?? [])
            if (Sid.TryFromBytes(bytes, out var sid)) sids.Add(sid);
        return sids.Count == 0 ? null : new AccessToken(sids[0], [.. sids, Sid.Everyone, Sid.AuthenticatedUsers]);
    }
}
