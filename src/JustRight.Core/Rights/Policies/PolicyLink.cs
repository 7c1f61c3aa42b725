namespace JustRight.Core.Rights.Policies;

/// <summary>One link of a container to a policy.</summary>
/// <param name="Policy">The policy's identifier in braces, in capitals.</param>
/// <param name="IsDisabled">Flag 1: the link counts for nothing.</param>
/// <param name="IsEnforced">Flag 2: it wins over everything below and cannot be blocked.</param>
public sealed record PolicyLink(string Policy, bool IsDisabled, bool IsEnforced)
{
    private const int Disabled = 1;
    private const int Enforced = 2;

    /// <summary>
    /// Reads <c>gPLink</c> [MS-GPOL 2.2.2]: <c>[LDAP://cn={GUID},…;flags]…</c>. What is written last has link number 1 and wins,
    /// so the links come out reversed: link number 1 first.
    /// </summary>
    /// <param name="text">The attribute's value; empty when nothing is linked.</param>
    /// <param name="broken">Pieces that could not be read: what they would link is not known.</param>
    public static IReadOnlyList<PolicyLink> Read(string text, out IReadOnlyList<string> broken)
    {
        var links = new List<PolicyLink>();
        var unread = new List<string>();
        for (var at = 0; at < text.Length;)
        {
            if (char.IsWhiteSpace(text[at]))
            {
                at++;
                continue;
            }

            var end = text[at] == '[' ? text.IndexOf(']', at) : -1;
            if (end < 0)
            {
                unread.Add(text[at..]);
                break;
            }

            var piece = text[(at + 1)..end];
            if (One(piece) is { } link) links.Add(link);
            else unread.Add(piece);
            at = end + 1;
        }

        links.Reverse();
        broken = unread;
        return links;
    }

    /// <summary>Writes links as <c>gPLink</c>, link number 1 first in the list and last in the text.</summary>
    /// <param name="domain">The distinguished name of the domain that holds the policies.</param>
    public static string Write(IEnumerable<PolicyLink> links, string domain) =>
        string.Concat(links.Reverse().Select(l =>
            $"[LDAP://cn={l.Policy},cn=policies,cn=system,{domain};{(l.IsDisabled ? Disabled : 0) | (l.IsEnforced ? Enforced : 0)}]"));

    private static PolicyLink? One(string piece)
    {
        var semicolon = piece.LastIndexOf(';');
        var (open, close) = (piece.IndexOf('{', StringComparison.Ordinal), piece.IndexOf('}', StringComparison.Ordinal));
        if (semicolon < 0 || open < 0 || close < open || close > semicolon) return null;
        if (!Guid.TryParse(piece.AsSpan(open, close - open + 1), out var id)
            || !int.TryParse(piece.AsSpan(semicolon + 1), out var flags))
            return null;
        return new PolicyLink(IdOf(id), (flags & Disabled) != 0, (flags & Enforced) != 0);
    }

    /// <summary>An identifier as the directory writes it.</summary>
    public static string IdOf(Guid id) => id.ToString("B").ToUpperInvariant();
}
