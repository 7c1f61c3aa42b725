using JustRight.Core.Sheets;
using static JustRight.Core.SignIn.Settings.SettingsMaker;

namespace JustRight.Core.SignIn.Settings;

/// <summary>What a product is told of the account it binds as, or of how people bind themselves.</summary>
internal static class BindSettings
{
    /// <summary>The settings, in their order.</summary>
    public static IEnumerable<SignInSetting> Of(PlannedSignIn plan) => plan.Wants.BindsAs switch
    {
        BindsAs.Account => [Name(plan), Password(plan)],
        BindsAs.Person => [Setting(
            SettingKeys.PersonTemplate, plan.PersonTemplate(plan.Wants.TypedName ?? ""),
            $"each person binds as themselves; the product puts what they type in place of {plan.Wants.TypedName}")],
        BindsAs.Certificate => Certificate(plan),
    };

    private static IEnumerable<SignInSetting> Certificate(PlannedSignIn plan)
    {
        yield return Setting(
            SettingKeys.ClientCertificate, plan.Install.ClientCertificate,
            plan.Install.ClientCertificate is null
                ? "the install does not name the file: sign-in.client-certificate"
                : "the product binds with it, without a password [RFC 4513 5.2.3]");
        yield return Setting(
            SettingKeys.ClientKey, plan.Install.ClientKey,
            plan.Install.ClientKey is null
                ? "the install does not name the file: sign-in.client-key"
                : "the private key of that certificate, to be read by the product alone");
    }

    private static SignInSetting Name(PlannedSignIn plan)
    {
        var (value, because) = plan.Wants.BindForm switch
        {
            BindForm.Upn => ($"{plan.BindLogonName}@{plan.Domain.DnsName}", "the product wants name@domain"),
            BindForm.ShortName => ($"{plan.Domain.ShortName}\\{plan.BindLogonName}", "the product wants DOMAIN\\name"),
            BindForm.Dn when plan.BindDn is null =>
                (
                    null,
                    $"the product needs a distinguished name, and the location of {plan.BindLogonName} is unknown: run a survey"),
            BindForm.Dn => (plan.BindDn, "the product needs a distinguished name; it changes when the account is moved"),
        };
        return Setting(SettingKeys.BindName, value, because);
    }

    private static SignInSetting Password(PlannedSignIn plan)
    {
        var secret = plan.Install.BindSecret;
        return new SignInSetting(
            SettingKeys.BindPassword, [$"<secret: {secret ?? plan.BindLogonName ?? "bind account"}>"],
            secret is null
                ? "a reference; type the password that was handed over"
                : $"a reference to the secret '{secret}'; type the password itself", IsReference: true);
    }
}
