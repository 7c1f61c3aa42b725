using JustRight.Core.Directory;

namespace JustRight.Core.Rights.Access;

/// <summary>Who asks: an account's SID with those of every group that counts for it [MS-DTYP 2.5.2].</summary>
public sealed class AccessToken(Sid account, IEnumerable<Sid> groups)
{
    private readonly HashSet<Sid> _sids = [account, .. groups];
    private HashSet<uint>? _rids;

    /// <summary>The account.</summary>
    public Sid Account { get; } = account;

    /// <summary>All SIDs, the account's own included.</summary>
    public IReadOnlySet<Sid> Sids => _sids;

    /// <summary>Holds the privilege to take ownership, which gives <c>write owner</c> in spite of any deny.</summary>
    public bool MayTakeOwnership { get; init; }

    /// <summary>Holds the security privilege, the only way to the audit list.</summary>
    public bool MayManageAudit { get; init; }

    /// <summary>
    /// Why a SID may count for it though that was not seen, or null when it does not; null altogether when everything it is in
    /// is known.
    /// </summary>
    public Func<Sid, string?>? WhyDoubtful { get; init; }

    /// <summary>The same with more groups.</summary>
    public AccessToken With(IEnumerable<Sid> groups) => new(Account, _sids.Concat(groups))
    {
        MayTakeOwnership = MayTakeOwnership,
        MayManageAudit = MayManageAudit,
        WhyDoubtful = WhyDoubtful,
    };

    /// <summary>Whether a SID counts for it.</summary>
    // most do not: a number is quicker than a SID
    public bool Holds(Sid sid) => (_rids ??= [.. _sids.Select(s => s.Rid)]).Contains(sid.Rid) && _sids.Contains(sid);
}
