using System.Text;
using JustRight.Cli.Api;

namespace JustRight.Cli.Commands;

/// <summary>
/// Reads passwords: at a terminal without showing them, else a line of standard input. Never from the command line, which
/// histories and process lists keep.
/// </summary>
internal static class PasswordPrompt
{
    /// <summary>Reads one.</summary>
    public static async Task<string> ReadAsync(Call call, string asks)
    {
        var typed = Console.IsInputRedirected ? await Console.In.ReadLineAsync(call.Cancel) : Typed(call, asks);
        return typed is { Length: > 0 } password
            ? password
            : throw new ClientException(
                ExitCode.BadInput, "No password was typed.", "An empty password is an anonymous bind, and is never tested.");
    }

    private static string Typed(Call call, string asks)
    {
        call.Screen.Error.Write(new Spectre.Console.Text(asks + " "));
        var password = new StringBuilder();
        while (Console.ReadKey(intercept: true) is { Key: not ConsoleKey.Enter } key)
        {
            if (key.Key == ConsoleKey.Backspace && password.Length > 0) password.Length--;
            else if (!char.IsControl(key.KeyChar)) password.Append(key.KeyChar);
        }

        call.Screen.Error.Write(new Spectre.Console.Text("\n"));
        return password.ToString();
    }
}
