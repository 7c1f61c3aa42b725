namespace JustRight.Core.SignIn.SignInTests;

/// <summary>What mends each cause, where a check has nothing nearer to say.</summary>
public static class SignInRemedies
{
    /// <summary>The remedy of a cause.</summary>
    /// <param name="plan">The planned sign-in; null for what is found before anybody signs in.</param>
    /// <param name="who">The person it is about, for a sentence.</param>
    public static string Of(SignInCause cause, PlannedSignIn? plan = null, string who = "the account") => cause switch
    {
        SignInCause.NameUnknown => "Check the server's name in the estate, and the DNS of this machine.",
        SignInCause.NotAllowedThere => "Let an owner allow the network: JustRight:Outbound:Allow.",
        SignInCause.Silent => "Check that the server runs, its port, and the firewall in between.",
        SignInCause.AddressSilent => "Repair the address, or take it out of DNS.",
        SignInCause.OutOfTime => "Find out why the directory answers slowly, and run the sign-in test again.",
        SignInCause.NotADirectory => "Check the port in the estate: 636 for LDAPS and 389 otherwise, as a rule.",
        SignInCause.PlainPort => "Ask for StartTLS on this port, or name the port of LDAPS, which is 636 as a rule.",
        SignInCause.TlsPort => "Ask for TLS from the start on this port, or name the port without, which is 389 as a rule.",
        SignInCause.StartTlsRefused => "Give the directory a certificate, so that it answers StartTLS; or use LDAPS.",
        SignInCause.TlsFailed => "Check the directory's certificate, key, and the versions of TLS that it offers.",
        SignInCause.OldTls => "This version is no longer safe [RFC 8996]: have the server offer TLS 1.2 or later.",
        SignInCause.Unprotected =>
            "Enable TLS in the product or the directory; or give the reason in the estate: plain-text-because.",
        SignInCause.ProtectionRequired => "Have the product use TLS: the directory asks for it.",
        SignInCause.CertificateExpired or SignInCause.CertificateNotYetValid or SignInCause.CertificateName
            or SignInCause.CertificateAuthority or SignInCause.CertificateOther or SignInCause.AddressCertificate =>
            "Fix the certificate, as said above.",
        SignInCause.NotKnownYet => "Verify the install first, or carry out its worklist.",
        SignInCause.PasswordNotKnown => "Set it as a secret, or type it at the prompt.",
        SignInCause.PasswordWithheld => "Let an owner allow it, or type the password at the prompt.",
        SignInCause.WrongPassword =>
            "Check that the account exists, is enabled, and has this password. "
            + "The sign-in test tries once, so that it does not lock the account.",
        SignInCause.BadName => "Write the name as the directory takes it: its distinguished name as a rule.",
        SignInCause.Locked => "Unlock the account, and find out who signs in with a wrong password.",
        SignInCause.Disabled => "Enable the account.",
        SignInCause.AccountExpired => "Set a later end of the account, or none.",
        SignInCause.PasswordExpired => "Set the password again, and in every place where it is typed.",
        SignInCause.MustChangePassword => "Set the password again without asking for a change at the next sign-in.",
        SignInCause.NotHereOrNow => "Change the hours or the machines that the account may sign in from.",
        SignInCause.SignInRefused => "Ask the directory's people what this answer means there.",
        SignInCause.TakenForNobody => "Check that the password is not empty.",
        SignInCause.BaseMissing => "Correct the bases in the estate, or let the bind account read them.",
        SignInCause.BaseElsewhere => "Name the directory that holds this branch, or correct the base in the estate.",
        SignInCause.PartsElsewhere => "Use a narrower base, or the catalog of the forest.",
        SignInCause.MayNotSearch => $"Let {plan?.BindDn ?? plan?.BindLogonName ?? who} search this branch.",
        SignInCause.SizeLimit =>
            "Let the product ask page by page, raise the directory's limit, or limit the people by a group or an OU.",
        SignInCause.PagingRefused => "Turn paging off in the product, or let the directory answer page by page.",
        SignInCause.SearchRefused => "Correct the base, the filter or the attributes of the search.",
        SignInCause.GroupMissing => "Create the group, or name one that exists.",
        SignInCause.GroupEmpty or SignInCause.NotInGroup => $"Put {who} into {Group(plan)}.",
        SignInCause.NoBackLink =>
            "Let the directory keep memberOf, and fill it for the members there are; "
            + "or say in the estate that people carry none: back-link: no.",
        SignInCause.PrimaryGroup =>
            $"Give {who} another primary group and make {Group(plan)} an ordinary one, or use another group.",
        SignInCause.OnlyNested => $"Put {who} directly into {Group(plan)}, or let nested groups count.",
        SignInCause.NotInDirectory => $"Check how {who} is spelled, and that the account exists.",
        SignInCause.OutsideBase => "Use a wider base of people, or move the account below it.",
        SignInCause.TwiceBelowBase => "A logon name must be unique: use a narrower base, or rename one of the two.",
        SignInCause.InTwoPlaces => "A wider base would find both, and let neither in: have one of them renamed.",
        SignInCause.NothingToType => $"Fill in {Typed(plan)} of {who}.",
        SignInCause.SharedName => "Give each person their own, or let people type something else.",
        SignInCause.AttributeEmpty => "Fill in the attribute, or let the bind account read it.",
        SignInCause.NotInCatalog => "Use the directory itself, or have the schema put the attribute into the catalog.",
        SignInCause.NotForFilter => "Give the account the class and the attributes that the people filter asks for.",
        SignInCause.NobodyFound => "Check the base and the filter.",
        SignInCause.NotAsExpected => "Compare the people found with those expected, and correct the group or the install.",
        SignInCause.NothingExpected => "Say in the install what is expected.",
        SignInCause.Enters => $"Take {who} out of whatever lets them in, or narrow the filter.",
        SignInCause.BuiltInGroups => "Leave them out: built-in: no.",
        SignInCause.HoldsMore => "Take away what the account does not need: reading is enough.",
        SignInCause.PasswordExpires => "Renew the password before, in every place where it is typed.",
        SignInCause.AnonymousReading => "Have the directory ask for a sign-in before it shows people.",
        SignInCause.NotSaid => "Ask somebody who can read it.",
        SignInCause.OnlyTheProduct => "Try it on the product's own page.",
        SignInCause.TooSlow =>
            "Check that this is the directory's port, and what keeps it from answering: load, a missing index, the network.",
        SignInCause.Broken => "Check that the directory runs, and run the sign-in test again.",
        SignInCause.Unexpected => "Fix the failures above, and run the sign-in test again.",
    };

    private static string Group(PlannedSignIn? plan) => plan?.EnterName ?? "the group";

    private static string Typed(PlannedSignIn? plan) =>
        plan is null ? "what people type" : string.Join(" or ", plan.TypedAttributes);
}
