using JustRight.Core.Plans;
using JustRight.Core.SignIn.Cards;

namespace JustRight.Core.SignIn;

/// <summary>A place where the password of an account is typed.</summary>
/// <param name="Account">The account: a logon name of the domain, or a distinguished name.</param>
/// <param name="Where">The file, the page, or that it is a service.</param>
/// <param name="Setting">The product's own name of the setting, or the name of the service.</param>
/// <param name="Breaks">What stops when the password is changed in the directory and not here.</param>
public sealed record PasswordPlace(string Account, string Product, string Install, string Host, string Where, string Setting, string Breaks);

/// <summary>Knows, from the plans of an estate, where passwords are typed.</summary>
public static class PasswordPlaces
{
    /// <summary>Every place, in the order of the plans.</summary>
    public static IReadOnlyList<PasswordPlace> Of(IEnumerable<Plan> plans) => [.. plans.SelectMany(Of)];

    private static IEnumerable<PasswordPlace> Of(Plan plan)
    {
        foreach (var service in plan.Services)
        {
            var account = plan.Accounts.First(a => a.Key == service.Account).Name;
            if (!account.EndsWith('$')) yield return new PasswordPlace(account, plan.Title, plan.Install, service.Host, "service", service.Name, $"{service.Name} runs on until its next start on {service.Host}, and does not start again");
        }

        if (plan.SignIn is not { } signIn || (signIn.BindLogonName ?? signIn.BindDn) is not { } bind) yield break;
        var fields = signIn.Wants.Settings.Fields.Where(f => f.Is == CardKeys.BindPassword).Select(f => f.Name).DefaultIfEmpty("the bind account's password");
        foreach (var host in signIn.TypedOn)
            foreach (var field in fields)
                yield return new PasswordPlace(bind, plan.Title, plan.Install, host, signIn.Wants.Settings.Where, field, $"nobody can sign in to {plan.Title} until it is typed here");
    }
}
