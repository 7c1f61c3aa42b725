using CsCheck;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;

namespace JustRight.Core.Tests.Access;

/// <summary>The tricky cases of judging one question against one descriptor, a row each. ME is the account, MINE a group of it, HIM another account.</summary>
public sealed class AccessCheckTests
{
    private const string Me = "S-1-5-21-1-2-3-1001";
    private const string Mine = "S-1-5-21-1-2-3-1002";
    private const string Him = "S-1-5-21-1-2-3-1003";
    private const string Mail = "bf967961-0de6-11d0-a285-00aa003049e2";
    private const string PersonalSet = "77b5b886-944a-11d1-aebd-0000f80367c1";
    private const string Phone = "bf967a49-0de6-11d0-a285-00aa003049e2";
    private const string User = "bf967aba-0de6-11d0-a285-00aa003049e2";
    private const string Group = "bf967a9c-0de6-11d0-a285-00aa003049e2";
    private const string Reset = "00299570-246d-11d0-a768-00aa006e0529";
    private const string Change = "ab721a53-1e2f-11d0-9819-00aa0040529b";
    private static readonly DirectorySchema Schema = BuiltInSchema.Schema;
    private static readonly AccessToken Token = new(Sid.Parse(Me), [Sid.Parse(Mine), Sid.Everyone]);

    private static readonly Dictionary<string, AccessQuestion> Questions = new()
    {
        ["write mail"] = AccessQuestion.Write(Schema.Attribute("mail")!, Schema.Class("user")!),
        ["write phone"] = AccessQuestion.Write(Schema.Attribute("telephoneNumber")!, Schema.Class("user")!),
        ["read phone"] = AccessQuestion.Read(Schema.Attribute("telephoneNumber")!, Schema.Class("user")!),
        ["read secret"] = AccessQuestion.Read(Schema.Attribute("msFVE-RecoveryPassword")!, Schema.Class("user")!),
        ["reset"] = AccessQuestion.Extended(Schema.Right(Guid.Parse(Reset))!),
        ["join oneself"] = AccessQuestion.Validated(Schema.Attribute("member")!.Id),
        ["create group"] = AccessQuestion.CreateChild(Schema.Class("group")!),
        ["delete"] = AccessQuestion.Simple(AccessRights.Delete),
        ["everything"] = AccessQuestion.Simple(AccessRights.FullControl),
        ["write list"] = AccessQuestion.Simple(AccessRights.WriteDacl),
        ["write owner"] = AccessQuestion.Simple(AccessRights.WriteOwner),
        ["audit"] = AccessQuestion.Simple(AccessRights.AccessSystemSecurity),
    };

    [Theory]
    // order and masks
    [InlineData("delete", "D:(A;;SD;;;ME)(D;;SD;;;ME)", "Yes: Allowed", "an allow before a deny stands")]
    [InlineData("delete", "D:(D;;SD;;;ME)(A;;SD;;;ME)", "No: Denied", "a deny before an allow stands")]
    [InlineData("write phone", "D:(D;;SD;;;ME)(A;;WPSD;;;ME)", "Yes: Allowed", "a deny takes only its own bits")]
    [InlineData("delete", "D:(A;;SD;;;ME)(D;ID;SD;;;ME)", "Yes: Allowed", "an inherited deny loses to an own allow")]
    [InlineData("delete", "D:(A;ID;SD;;;ME)(D;;SD;;;ME)", "Yes: Allowed", "a list out of order is judged as it stands")]
    [InlineData("everything", "D:(A;;CCDCLCSWRPWPDTLOCRSDRCWD;;;ME)", "No: NothingAllows", "all but one bit is not all")]
    [InlineData("everything", "D:(A;;GA;;;ME)", "Yes: Allowed", "generic bits are mapped when judging")]
    [InlineData("everything", "D:(A;;CCDCLCSWRPWPDTLO;;;ME)(A;;CRSDRCWDWO;;;MINE)", "Yes: Allowed", "partial grants combine")]
    [InlineData("delete", "D:(A;CIIO;SD;;;ME)", "No: NothingAllows", "inherit-only does not count")]
    [InlineData("delete", "D:(A;;SD;;;HIM)", "No: NothingAllows", "another's right is not mine")]
    [InlineData("delete", "D:(A;;CCDCLCSWRPWPDTLOCRRCWDWO;;;ME)", "No: NothingAllows", "every right but the needed one")]
    // no list, empty list, owner
    [InlineData("delete", "D:NO_ACCESS_CONTROL", "Yes: NoList", "no list allows all")]
    [InlineData("delete", "D:", "No: NothingAllows", "an empty list allows nothing")]
    [InlineData("write list", "O:MED:", "Yes: Owner", "the owner may always write the list")]
    [InlineData("write list", "O:MED:(D;;WD;;;ME)", "Yes: Owner", "even when denied")]
    [InlineData("delete", "O:MED:", "No: NothingAllows", "an owner has no more than that")]
    [InlineData("write list", "O:MED:(A;;RC;;;OW)", "No: NothingAllows", "Owner Rights takes the place of it")]
    [InlineData("write list", "O:MED:(A;;WD;;;OW)", "Yes: Allowed", "Owner Rights may give it back")]
    [InlineData("write list", "O:MED:(A;CIIO;RC;;;OW)", "Yes: Owner", "an inherit-only Owner Rights does not count")]
    [InlineData("delete", "O:HIMD:(A;;SD;;;OW)", "No: NothingAllows", "Owner Rights are the owner's")]
    [InlineData("write list", "O:MINED:", "Yes: Owner", "a group of mine owns it")]
    [InlineData("delete", "O:MED:(A;;SD;;;CO)", "No: NothingAllows", "Creator Owner in an entry that counts is nobody")]
    [InlineData("audit", "D:(A;;0x1000000;;;ME)", "No: NothingAllows", "the audit list comes from the privilege only")]
    // Self and object types
    [InlineData("write phone", "D:(A;;WP;;;PS)", "Yes: Allowed", "Self is the object's own SID")]
    [InlineData("write phone", "D:(OA;;WP;PHONE;;ME)", "Yes: Allowed", "the attribute")]
    [InlineData("write phone", "D:(OA;;WP;PERSONAL;;ME)", "Yes: Allowed", "its property set")]
    [InlineData("write phone", "D:(OA;;WP;USER;;ME)", "Yes: Allowed", "the object's own class covers every attribute")]
    [InlineData("write phone", "D:(OA;;WP;GROUP;;ME)", "No: NothingAllows", "another class does not")]
    [InlineData("write phone", "D:(OA;;WP;;;ME)", "Yes: Allowed", "an object entry without GUID equals the plain one")]
    [InlineData("write phone", "D:(OA;;WP;MAIL;;ME)", "No: NothingAllows", "another attribute")]
    [InlineData(
        "write phone", "D:(OD;;WP;PERSONAL;;ME)(OA;;WP;PHONE;;ME)", "No: Denied", "a deny on the set reaches the attribute")]
    [InlineData("write phone", "D:(OD;;WP;MAIL;;ME)(A;;WP;;;ME)", "Yes: Allowed", "a deny on another attribute does not")]
    [InlineData("write phone", "D:(OA;;WP;PHONE;GROUP;ME)", "Yes: Allowed", "the inherited type is not consulted when judging")]
    [InlineData("delete", "D:(OA;;SD;USER;;ME)", "No: NothingAllows", "a GUID does not count for a simple right")]
    [InlineData("delete", "D:(OA;;SD;;;ME)", "Yes: Allowed", "without one it does")]
    [InlineData("read secret", "D:(A;;RP;;;ME)", "No: NothingAllows", "a confidential attribute needs control access too")]
    [InlineData("read secret", "D:(A;;RP;;;ME)(A;;CR;;;MINE)", "Yes: Allowed", "from wherever")]
    [InlineData("create group", "D:(OA;;CC;GROUP;;ME)", "Yes: Allowed", "children of one class")]
    [InlineData("create group", "D:(OA;;CC;USER;;ME)", "No: NothingAllows", "not of another")]
    [InlineData("reset", "D:(OA;;CR;RESET;;ME)", "Yes: Allowed", "the extended right")]
    [InlineData("reset", "D:(OA;;CR;CHANGE;;ME)", "No: NothingAllows", "another extended right")]
    [InlineData("reset", "D:(OA;;WP;RESET;;ME)", "No: NothingAllows", "write property does not give it")]
    [InlineData("join oneself", "D:(A;;SW;;;ME)", "Yes: Allowed", "every validated write")]
    [InlineData("join oneself", "D:(A;;WP;;;ME)", "No: NothingAllows", "write property is another question")]
    public void Case(string question, string sddl, string expected, string why)
    {
        foreach (var (word, text) in new[] { ("HIM", Him), ("MINE", Mine), ("ME", Me), ("PHONE", Phone), (
            "PERSONAL", PersonalSet), ("MAIL", Mail), ("USER", User), ("GROUP", Group), ("RESET", Reset), ("CHANGE", Change) })
            sddl = System.Text.RegularExpressions.Regex.Replace(sddl, $@"(?<=[;:]){word}(?=[;)D])", text);
        var decision = AccessCheck.Judge(Sddl.Read(sddl), Token, Questions[question], Sid.Parse(Me));
        $"{decision.Answer}: {decision.Reason}".ShouldBe(expected, why);
        if (decision is { Answer: AccessAnswer.No, Reason: AccessReason.NothingAllows })
            decision.Missing.ShouldNotBe(AccessRights.None);
    }

    [Fact]
    public void Self_is_nobody_where_the_object_has_no_SID_and_a_group_is_its_members()
    {
        var list = Sddl.Read("D:(A;;WP;;;PS)");
        AccessCheck.Judge(list, Token, Questions["write phone"]).Answer.ShouldBe(AccessAnswer.No);
        // [MS-DTYP 2.5.3.1.1]
        AccessCheck.Judge(list, Token, Questions["write phone"], Sid.Parse(Mine)).Answer.ShouldBe(AccessAnswer.Yes);
        AccessCheck.Judge(list, Token, Questions["write phone"], Sid.Parse(Him)).Answer.ShouldBe(AccessAnswer.No);
    }

    [Fact]
    public void Taking_ownership_is_a_privilege_that_beats_a_deny()
    {
        var list = Sddl.Read($"D:(D;;WO;;;{Me})");
        AccessCheck.Judge(list, Token, Questions["write owner"]).Reason.ShouldBe(AccessReason.Denied);
        AccessCheck.Judge(
            list, new AccessToken(Sid.Parse(Me), []) { MayTakeOwnership = true }, Questions["write owner"]).Reason.ShouldBe(
            AccessReason.Privilege);
    }

    [Theory]
    [InlineData(0x42, "", AccessAnswer.Unknown)] // nobody knows what it does
    [InlineData(0x09, "00000100" + "010100000000000100000000", AccessAnswer.Unknown)] // allows Everyone to delete, on a condition
    [InlineData(0x0A, "00000100" + "010100000000000100000000", AccessAnswer.Unknown)] // denies it on a condition
    [InlineData(0x0A, "20000000" + "010100000000000100000000", AccessAnswer.Yes)] // denies something else on a condition
    [InlineData(0x0A, "00000100" + "010100000000000509000000", AccessAnswer.Yes)] // denies somebody else on a condition
    [InlineData(0x11, "00000100" + "010100000000000100000000", AccessAnswer.Yes)] // a label speaks of integrity
    public void An_entry_not_understood_makes_the_answer_unknown_only_where_it_could_matter(
        int type, string body, AccessAnswer expected)
    {
        var strange = new Ace((AceType)type, AceFlags.None, AccessRights.None, default) { RawBody = body };
        var descriptor = Sddl.Read("D:").WithEntries([strange, Ace.Allow(Sid.Parse(Me), AccessRights.Delete)]);
        // a later allow gives it in any case
        AccessCheck.Judge(descriptor, Token, Questions["delete"]).Answer.ShouldBe(type == 0x09 ? AccessAnswer.Yes : expected);
        // settled before it
        AccessCheck.Judge(
            descriptor.WithEntries([Ace.Allow(Sid.Parse(Me), AccessRights.Delete), strange]), Token,
            Questions["delete"]).Answer.ShouldBe(AccessAnswer.Yes);
        if (type == 0x09)
            AccessCheck.Judge(descriptor.WithEntries([strange]), Token, Questions["delete"]).Answer.ShouldBe(
                AccessAnswer.Unknown);
    }

    [Fact]
    public void More_allowing_entries_never_take_a_right_away() =>
        Gen.Select(
            RandomAccess.KnownAce.Array[0, 6], RandomAccess.KnownAce, Gen.Int[0, 6], Gen.OneOfConst(Questions.Keys.ToArray()))
            .Sample((aces, more, at, name) =>
    {
        if (!more.Allows || more.Trustee == Sid.OwnerRights) return; // an entry for Owner Rights takes the owner's own away
        var before = Sddl.Read("O:WDD:").WithEntries(aces);
        var after = before.WithEntries([.. aces.Take(at), more, .. aces.Skip(at)]);
        if (AccessCheck.Judge(before, Token, Questions[name]).Answer == AccessAnswer.Yes)
            AccessCheck.Judge(after, Token, Questions[name]).Answer.ShouldBe(AccessAnswer.Yes);
    });
}
