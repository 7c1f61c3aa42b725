using JustRight.Connectors;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SecretUses;
using JustRight.Core.SignIn;

namespace JustRight.Service.Data.Secrets;

/// <summary>The use of a bind account's password by a sign-in test.</summary>
internal static class SignInTestUse
{
    /// <summary>The use, with the authorities as they lie there now.</summary>
    public static SecretUse Of(Estate estate, PlannedSignIn signIn) => EstateSecretUses.OfSignInTest(
        estate.Name, signIn.Directory, signIn.Security,
        signIn.BindLogonName is { } account ? $"{estate.Domain.ShortName}\\{account}" : signIn.BindDn ?? "",
        signIn.Security == WireSecurity.Plain ? EstateSecretUses.NothingProves : TrustAnchors.OfFolder(
            signIn.Directory.CaFolder));
}
