using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>secret</c>: what goes in and is never shown.</summary>
internal static class SecretCommands
{
    public static Command Make()
    {
        var name = new Argument<string>("name") { Description = "The secret's name, as the estate names it" };
        return CommandKit.Group(
            "secret", "Secrets for connections; stored encrypted, never shown",
            CommandKit.Make(
                "set", "Stores a secret, read from standard input, never from the command line",
                ["justright secret set fennmoor-directory < password.txt"], [name], c => SetAsync(c, c.Parsed.GetValue(name)!))
                .Answers(j => j.DoneView),
            CommandKit.Make(
                "list",
                "Lists the secrets without their values: what each is asked for today, and what is allowed\n"
                + "A secret is used only for what an owner allowed.",
                ["justright secret list", "justright secret list --json"], [], ListAsync)
                .Answers(j => j.IReadOnlyListSecretView),
            SecretUseCommands.MakeAllow(),
            SecretUseCommands.MakeDisallow(),
            CommandKit.Make(
                "remove", "Removes a secret", ["justright secret remove fennmoor-directory"], [name],
                c => RemoveAsync(c, c.Parsed.GetValue(name)!))
                .Answers(j => j.DoneView));
    }

    private static async Task<int> SetAsync(Call call, string name)
    {
        if (!Console.IsInputRedirected) call.Screen.Error.MarkupLine("Type the secret, then Enter and Ctrl-D:");
        var value = (await Console.In.ReadToEndAsync(call.Cancel)).TrimEnd('\r', '\n');
        await call.Api.PutAsync(
            $"secrets/{Names.Part(name)}", new SecretValue(value), ContractsJson.Default.SecretValue, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(new DoneView(name, "set"), ContractsJson.Default.DoneView);
        else call.Screen.Line(Markup.Escape($"the secret {name} is kept"));
        return ExitCode.Fine;
    }

    private static async Task<int> ListAsync(Call call)
    {
        var secrets = await call.Api.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(secrets, ContractsJson.Default.IReadOnlyListSecretView);
            return ExitCode.Fine;
        }

        foreach (var secret in secrets)
        {
            var kept = secret.SetAt is { } at ? $"set {Times.Exact(at)} by {secret.SetBy}" : "not kept";
            call.Screen.Line($"[bold]{Markup.Escape(secret.Name)}[/]  {Markup.Escape(kept)}");
            SecretUseCommands.Write(call.Screen, secret);
        }

        var left = secrets.Sum(s => s.Uses.Count(u => u.AllowedAt is null));
        if (left > 0) call.Screen.Line($"{left} not allowed; an owner allows them: justright secret allow NAME");
        return ExitCode.Fine;
    }

    private static async Task<int> RemoveAsync(Call call, string name)
    {
        await call.Api.DeleteAsync($"secrets/{Names.Part(name)}", call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(new DoneView(name, "removed"), ContractsJson.Default.DoneView);
        else call.Screen.Line(Markup.Escape($"removed {name}"));
        return ExitCode.Fine;
    }
}
