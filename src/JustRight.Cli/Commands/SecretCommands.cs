using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>secret</c> and <c>password</c>: what goes in and is never shown, and what comes out sealed.</summary>
internal static class SecretCommands
{
    public static Command Make()
    {
        var name = new Argument<string>("name") { Description = "The secret's name, as the estate names it" };
        return CommandKit.Group(
            "secret", "Secrets that connectors need; kept encrypted, never shown",
            CommandKit.Make("set", "Keeps a secret; it is read from standard input, never from the command line", ["justright secret set fennmoor-directory < password.txt"], [name], c => SetAsync(c, c.Parsed.GetValue(name)!)),
            CommandKit.Make("list", "Lists the secrets, without their values", [], [], ListAsync),
            CommandKit.Make("remove", "Removes a secret", ["justright secret remove fennmoor-directory"], [name], c => RemoveAsync(c, c.Parsed.GetValue(name)!)));
    }

    public static Command MakePassword()
    {
        var install = Names.Install();
        var account = new Argument<string>("account") { Description = "The account's logon name" };
        var certificate = new Option<string>("--certificate") { Description = "A PEM certificate with an RSA key", Required = true, HelpName = "FILE" };
        return CommandKit.Group(
            "password", "Passwords that grants made and that wait to be handed over",
            CommandKit.Make("list", "Lists the accounts whose password waits", ["justright password list thermograph-dataroom"], [install], c => PasswordsAsync(c, c.Parsed.GetValue(install)!)),
            CommandKit.Make("seal", "Hands a password over, once, sealed to a certificate (CMS); its key opens it, for example with openssl cms -decrypt",
                ["justright password seal thermograph-dataroom svc-thermo-poller --certificate keeper.pem > poller.cms"], [install, account, certificate],
                c => SealAsync(c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(account)!, c.Parsed.GetValue(certificate)!)));
    }

    private static async Task<int> SetAsync(Call call, string name)
    {
        if (!Console.IsInputRedirected) call.Screen.Error.MarkupLine("Type the secret, then Enter and Ctrl-D:");
        var value = (await Console.In.ReadToEndAsync(call.Cancel)).TrimEnd('\r', '\n');
        await call.Api.PutAsync($"secrets/{Names.Part(name)}", new SecretValue(value), ContractsJson.Default.SecretValue, call.Cancel);
        if (call.Screen.IsJson) Screen.Json(new WhoView(name, "set"), ContractsJson.Default.WhoView);
        else call.Screen.Line(Markup.Escape($"the secret {name} is kept"));
        return ExitCode.Fine;
    }

    private static async Task<int> ListAsync(Call call)
    {
        var secrets = await call.Api.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView, call.Cancel);
        if (call.Screen.IsJson)
        {
            Screen.Json(secrets, ContractsJson.Default.IReadOnlyListSecretView);
            return ExitCode.Fine;
        }

        var table = Screen.List("secret", "set", "by");
        foreach (var s in secrets) table.AddRow(s.Name, Times.Exact(s.SetAt), s.SetBy);
        call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> RemoveAsync(Call call, string name)
    {
        await call.Api.DeleteAsync($"secrets/{Names.Part(name)}", call.Cancel);
        if (call.Screen.IsJson) Screen.Json(new WhoView(name, "removed"), ContractsJson.Default.WhoView);
        else call.Screen.Line(Markup.Escape($"removed {name}"));
        return ExitCode.Fine;
    }

    private static async Task<int> PasswordsAsync(Call call, string install)
    {
        var passwords = await call.Api.GetAsync($"installs/{Names.Part(install)}/passwords", ContractsJson.Default.IReadOnlyListPasswordView, call.Cancel);
        if (call.Screen.IsJson)
        {
            Screen.Json(passwords, ContractsJson.Default.IReadOnlyListPasswordView);
            return ExitCode.Fine;
        }

        var table = Screen.List("account", "made", "handed over");
        foreach (var p in passwords) table.AddRow(new Text(p.Account), new Text(Times.Exact(p.CreatedAt)), new Text(p.HandedOverAt is { } at ? $"{Times.Exact(at)} to {p.HandedOverBy}" : "waits"));
        call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> SealAsync(Call call, string install, string account, string certificate)
    {
        string pem;
        try
        {
            pem = await File.ReadAllTextAsync(certificate, call.Cancel);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new ClientException(ExitCode.BadInput, $"{certificate} cannot be read: {e.Message}");
        }

        var seal = await call.Api.PostAsync($"installs/{Names.Part(install)}/passwords/{Names.Part(account)}/seal", new SealOrder(pem), ContractsJson.Default.SealOrder, ContractsJson.Default.SealedPassword, call.Cancel);
        if (call.Screen.IsJson) Screen.Json(seal, ContractsJson.Default.SealedPassword);
        else Console.Out.WriteLine(seal.Cms);
        return ExitCode.Fine;
    }
}
