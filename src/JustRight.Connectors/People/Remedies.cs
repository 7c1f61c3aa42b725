using JustRight.Core.SignIn;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>What mends what a directory answered instead of doing what the product asks for.</summary>
internal static class Remedies
{
    /// <summary>The remedy of a cause that a directory's answer has.</summary>
    public static string Of(SignInCause cause, PlannedSignIn plan) => cause switch
    {
        SignInCause.BaseMissing => "Correct the bases in the estate, or let the bind account read them.",
        SignInCause.BaseElsewhere => "Name the directory that holds this branch, or correct the base in the estate.",
        SignInCause.MayNotSearch => $"Let {plan.BindDn ?? plan.BindLogonName} search this branch.",
        SignInCause.SizeLimit =>
            "Let the product ask page by page, raise the directory's limit, or limit the people by a group or an OU.",
        SignInCause.PagingRefused => "Turn paging off in the product, or let the directory answer page by page.",
        SignInCause.ProtectionRequired => "Have the product use TLS: the directory asks for it.",
        SignInCause.TooSlow => "Find out what keeps the directory from answering: load, a missing index, the network.",
        SignInCause.Broken => "Check that the directory runs, and run the sign-in test again.",
        SignInCause.SearchRefused => "Correct the base, the filter or the attributes of the search.",
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
        SignInCause.Unprotected =>
            "Enable TLS in the product or the directory; or give the reason in the estate: plain-text-because.",
        SignInCause.CertificateExpired or SignInCause.CertificateNotYetValid or SignInCause.CertificateName
            or SignInCause.CertificateAuthority or SignInCause.CertificateOther or SignInCause.AddressCertificate =>
            "Fix the certificate, as said above.",
        SignInCause.SignInRefused => "Ask the directory's people what this answer means there.",
        _ => "Fix the failures above, and run the sign-in test again.",
    };
}
