using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Rights.Access;

/// <summary>
/// Judges one question against one descriptor [MS-DTYP 2.5.3.2, MS-ADTS 5.1.3.3]: the entries in stored order, the first that
/// settles a bit settles it. Nothing is sorted before judging: lists out of canonical order exist, and count as they stand.
/// </summary>
public static class AccessCheck
{
    private const AccessRights OwnersOwn = AccessRights.ReadControl | AccessRights.WriteDacl;
    private const byte AllowCallback = 0x9;
    private const byte DenyCallback = 0xA;
    private const byte AllowCallbackObject = 0xB;
    private const byte DenyCallbackObject = 0xC;
    private const byte FirstAuditOnly = 0xD;
    private const byte LastAuditOnly = 0x14;

    /// <summary>Judges.</summary>
    /// <param name="descriptor">The object's descriptor.</param>
    /// <param name="token">Who asks.</param>
    /// <param name="question">What is asked.</param>
    /// <param name="self">The object's own SID, or empty when it has none: what Self in an entry stands for.</param>
    public static AccessDecision Judge(
        SecurityDescriptor descriptor, AccessToken token, AccessQuestion question, Sid self = default)
    {
        var worst = Walk(descriptor, token, question, self, unknownAllows: false, out var unknown);
        if (unknown is not (var at, var reason)) return worst;
        // An entry that is not understood, or is for somebody whom the account may belong to, may count or not. Only where that
        // would change the answer is the answer unknown.
        var best = Walk(descriptor, token, question, self, unknownAllows: true, out _);
        if (best.Answer != worst.Answer) return new AccessDecision(AccessAnswer.Unknown, reason, at, worst.Missing);
        return worst.Answer == AccessAnswer.Yes ? worst : best;
    }

    private static AccessDecision Walk(
        SecurityDescriptor descriptor, AccessToken token, AccessQuestion question, Sid self, bool unknownAllows,
        out (int At, AccessReason Reason)? unknown)
    {
        unknown = null;
        var left = question.Rights;
        var reason = AccessReason.Allowed;
        if ((left & AccessRights.AccessSystemSecurity) != 0)
        {
            if (!token.MayManageAudit)
                return new AccessDecision(AccessAnswer.No, AccessReason.NothingAllows, -1, AccessRights.AccessSystemSecurity);
            (left, reason) = (left & ~AccessRights.AccessSystemSecurity, AccessReason.Privilege);
        }

        if ((left & AccessRights.WriteOwner) != 0 && token.MayTakeOwnership)
            (left, reason) = (left & ~AccessRights.WriteOwner, AccessReason.Privilege);
        else if ((left & AccessRights.WriteOwner) != 0 && IsDoubtful(AccessTokens.Administrators, token))
        {
            unknown = (-1, AccessReason.UnreadMembership);
            if (unknownAllows) left &= ~AccessRights.WriteOwner;
        }

        if (descriptor is { HasDacl: true, Dacl: null } or { HasDacl: false })
            return new AccessDecision(AccessAnswer.Yes, AccessReason.NoList, -1, AccessRights.None);
        var entries = descriptor.Entries;
        var isOwner = token.Holds(descriptor.Owner);
        if (isOwner && (left & OwnersOwn) != 0 && !HasOwnerRights(entries))
            (left, reason) = (left & ~OwnersOwn, AccessReason.Owner);
        else if (!isOwner && (left & OwnersOwn) != 0 && IsDoubtful(descriptor.Owner, token) && !HasOwnerRights(entries))
        {
            unknown = (-1, AccessReason.UnreadMembership);
            if (unknownAllows) left &= ~OwnersOwn;
        }

        if (left == AccessRights.None) return new AccessDecision(AccessAnswer.Yes, reason, -1, AccessRights.None);

        for (var i = 0; i < entries.Count; i++)
        {
            var ace = entries[i];
            if (!ace.IsEffective) continue;
            if (!ace.IsKnown)
            {
                var might = MightCover(ace, token, self, isOwner) & left;
                if (might == 0) continue;
                unknown ??= (i, AccessReason.UnknownEntry);
                var onlyDenies = (byte)ace.Type is DenyCallback or DenyCallbackObject;
                var onlyAllows = (byte)ace.Type is AllowCallback or AllowCallbackObject;
                if (!unknownAllows && !onlyAllows) return new AccessDecision(AccessAnswer.No, AccessReason.UnknownEntry, i, left);
                if (unknownAllows && !onlyDenies) left &= ~might;
            }
            else
            {
                if (!ace.Allows && !ace.Denies) continue;
                if (ace.ObjectType is { } id && !question.Names(id)) continue;
                var bits = ace.Mask.Mapped() & left;
                if (bits == 0) continue;
                if (!Concerns(ace.Trustee, token, self, isOwner))
                {
                    if (!IsDoubtful(
                        ace.Trustee == Sid.Self ? self : ace.Trustee == Sid.OwnerRights ? descriptor.Owner : ace.Trustee, token))
                        continue;
                    unknown ??= (i, AccessReason.UnreadMembership);
                    if (ace.Denies == unknownAllows) continue;
                }

                if (ace.Denies) return new AccessDecision(AccessAnswer.No, AccessReason.Denied, i, bits);
                left &= ~bits;
            }

            if (left == AccessRights.None)
                return new AccessDecision(AccessAnswer.Yes, AccessReason.Allowed, i, AccessRights.None);
        }

        return new AccessDecision(AccessAnswer.No, AccessReason.NothingAllows, -1, left);
    }

    /// <summary>
    /// Whether an entry's trustee counts for who asks. Self stands for the object's SID [MS-DTYP 2.5.3.1.1]; Creator Owner, in
    /// an entry that counts, is nobody.
    /// </summary>
    private static bool Concerns(Sid trustee, AccessToken token, Sid self, bool isOwner)
    {
        if (token.Holds(trustee)) return true;
        if (trustee == Sid.Self) return !self.IsEmpty && token.Holds(self);
        return isOwner && trustee == Sid.OwnerRights;
    }

    private static bool IsDoubtful(Sid sid, AccessToken token) =>
        token.WhyDoubtful is { } why && !sid.IsEmpty && why(sid) is not null;

    private static bool HasOwnerRights(IReadOnlyList<Ace> entries)
    {
        foreach (var ace in entries)
            if (ace.IsEffective && ace.Trustee == Sid.OwnerRights && (ace.Allows || ace.Denies)) return true;
        return false;
    }

    /// <summary>
    /// The bits that an entry of a type not understood might allow or deny. Conditional entries are laid out like plain ones,
    /// so that their mask and trustee can be read.
    /// </summary>
    private static AccessRights MightCover(Ace ace, AccessToken token, Sid self, bool isOwner)
    {
        var type = (byte)ace.Type;
        if (type is >= FirstAuditOnly and <= LastAuditOnly) return AccessRights.None;
        if (type is < AllowCallback or > DenyCallbackObject) return (AccessRights)uint.MaxValue;
        return ConditionalEntry.TryRead(ace, out var mask, out var trustee) && !Concerns(trustee, token, self, isOwner)
            && !IsDoubtful(trustee, token)
            ? AccessRights.None
            : mask.Mapped();
    }
}
