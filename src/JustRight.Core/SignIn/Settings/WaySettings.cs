using JustRight.Core.Directory;
using JustRight.Core.Sheets;
using static JustRight.Core.SignIn.Settings.SettingsMaker;

namespace JustRight.Core.SignIn.Settings;

/// <summary>What a product is told of the way to the directory.</summary>
internal static class WaySettings
{
    /// <summary>The settings, in their order.</summary>
    public static IEnumerable<SignInSetting> Of(PlannedSignIn plan)
    {
        var (directory, security) = (plan.Directory, plan.Security);
        IReadOnlyList<string> hosts = [directory.Host, .. directory.OtherHosts];
        var one = directory.Host == directory.SharedName
            ? $"the estate's '{directory.Key}': the name that stands for all of its servers"
            : $"the estate's '{directory.Key}'";
        var order = $"the servers of the estate's '{directory.Key}', in the order in which to ask them";
        yield return Setting(SettingKeys.Address, directory.Address(security), SecurityReason(plan));
        yield return new SignInSetting(
            SettingKeys.Addresses, [.. hosts.Select(h => (directory with { Host = h }).Address(security))], order);
        yield return Setting(SettingKeys.Host, directory.Host, $"{one}: its certificate must have exactly this name");
        yield return new SignInSetting(SettingKeys.Hosts, hosts, order);
        yield return Setting(
            SettingKeys.Port, Number(directory.Offers[security]),
            directory.IsCatalog
                ? $"where the catalog of the forest is offered, {security.Word()}"
                : $"where '{directory.Key}' offers {security.Word()}");
        yield return Setting(SettingKeys.Security, security.Word(), SecurityReason(plan));
        if (security != WireSecurity.Plain)
            yield return Setting(
                SettingKeys.Authorities, directory.CaFolder,
                directory.CaFolder is null
                    ? "the estate does not name the authorities to trust"
                    : "the estate's ca-folder: only certificates issued by these are to be trusted");
        yield return Setting(
            SettingKeys.Referrals, YesNo(directory.FollowsReferrals),
            directory.FollowsReferrals
                ? "the estate says so: parts of the branches are in other directories, which get the password too"
                : "all of the branches is here; a product that follows referrals sends its password elsewhere");
        yield return Setting(
            SettingKeys.ConnectTimeout, Number(directory.ConnectSeconds),
            "the estate's connect-seconds: then the next server is asked");
        yield return Setting(
            SettingKeys.AnswerTimeout, Number(directory.AnswerSeconds), "the estate's answer-seconds: then the sign-in fails");
    }

    private static string SecurityReason(PlannedSignIn plan)
    {
        var both = $"of what the product can and '{plan.Directory.Key}' offers";
        return plan.Security switch
        {
            WireSecurity.Tls => $"the best {both}: LDAPS",
            WireSecurity.StartTls => $"the best {both}: StartTLS; check that the product does not continue without it",
            WireSecurity.Plain => $"nothing better {both}: passwords can be read on the network",
        };
    }
}
