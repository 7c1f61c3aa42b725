using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>secret allow</c> and <c>secret disallow</c>: what an owner lets a secret be used for.</summary>
internal static class SecretUseCommands
{
    private static readonly Argument<string> Name = new("name")
    {
        Description = "The secret's name, or DOMAIN\\account for the password that is kept of an account",
    };

    /// <summary><c>secret allow</c>.</summary>
    public static Command MakeAllow()
    {
        var uses = new Argument<string[]>("uses")
        {
            Description = "Uses, as 'secret list' names them; without any, all that are asked for and not allowed",
            Arity = ArgumentArity.ZeroOrMore,
        };
        var yes = new Option<bool>("--yes") { Description = "Do not ask; for scripts" };
        return CommandKit.Make(
            "allow",
            "Allows a secret for uses: shows each whole, asks, and allows it\n"
            + "A use is allowed exactly as shown. When the estate, the address, the port, the sign-in name, the host key or the\n"
            + "authorities change, it is another use and must be allowed again. A new value of the same secret changes nothing.",
            ["justright secret list", "justright secret allow host-key", "justright secret allow host-key 3f9a01c2d4e5b6a7c8d9"],
            [Name, uses, yes],
            c => AllowAsync(c, c.Parsed.GetValue(Name)!, c.Parsed.GetValue(uses)!, c.Parsed.GetValue(yes)))
            .Answers(j => j.DoneView);
    }

    /// <summary><c>secret disallow</c>.</summary>
    public static Command MakeDisallow()
    {
        var use = new Argument<string>("use") { Description = "The use, as 'secret list' names it" };
        return CommandKit.Make(
            "disallow", "No longer allows a secret for a use",
            ["justright secret disallow host-key 3f9a01c2d4e5b6a7c8d9"], [Name, use],
            c => DisallowAsync(c, c.Parsed.GetValue(Name)!, c.Parsed.GetValue(use)!)).Answers(j => j.DoneView);
    }

    /// <summary>The lines of the uses of a secret, for people.</summary>
    public static void Write(Screen screen, SecretView secret)
    {
        foreach (var use in secret.Uses)
        {
            var state = use.AllowedAt is { } at
                ? $"[green]allowed[/] {Times.Exact(at)} by {Markup.Escape(use.AllowedBy!)}"
                    + (use.IsAsked ? "" : ", not asked for now")
                : "[yellow]not allowed[/]";
            screen.Line($"  {use.Id}  {state}");
            screen.Line($"      it {Markup.Escape(use.Words)}");
        }
    }

    private static async Task<int> AllowAsync(Call call, string name, string[] uses, bool yes)
    {
        var secret = (await call.Api.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView, call.Cancel))
            .FirstOrDefault(s => s.Name == name)
            ?? throw new ClientException(
                ExitCode.BadInput, $"Nothing is kept or asked for under {name}.", "See: justright secret list");
        foreach (var use in uses)
        {
            if (secret.Uses.All(u => u.Id != use))
                throw new ClientException(
                    ExitCode.BadInput, $"{name} is not asked for the use {use}.", "See: justright secret list");
        }

        var chosen = secret.Uses.Where(u => u.AllowedAt is null && (uses.Length == 0 || uses.Contains(u.Id))).ToList();
        if (chosen.Count == 0)
        {
            Done(call, name, "nothing left to allow");
            return ExitCode.Fine;
        }

        if (!call.Screen.IsJson) Write(call.Screen, secret with { Uses = chosen });
        var question = chosen.Count == 1 ? "Allow this use?" : $"Allow these {chosen.Count} uses?";
        if (!yes && !StepPrinter.Confirm(call.Screen, question)) return ExitCode.Waits;
        foreach (var use in chosen)
            await call.Api.PutAsync($"{Path(name)}/{use.Id}", call.Cancel);
        Done(call, name, chosen.Count == 1 ? "1 use is allowed" : $"{chosen.Count} uses are allowed");
        return ExitCode.Fine;
    }

    private static async Task<int> DisallowAsync(Call call, string name, string use)
    {
        await call.Api.DeleteAsync($"{Path(name)}/{Names.Part(use)}", call.Cancel);
        Done(call, name, "no longer allowed for this use");
        return ExitCode.Fine;
    }

    private static string Path(string name) => $"secrets/{Names.Part(name)}/uses";

    private static void Done(Call call, string name, string what)
    {
        if (call.Screen.IsJson) call.Screen.Json(new DoneView(name, what), ContractsJson.Default.DoneView);
        else call.Screen.Line(Markup.Escape($"{name}: {what}"));
    }
}
