using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>token</c>: access for clients.</summary>
internal static class TokenCommands
{
    public static Command Make()
    {
        var link = new Argument<string>("link") { Description = "The one-time sign-in link the service printed" };
        var name = new Argument<string>("name") { Description = "The token's name" };
        var role = new Option<string>("--role")
        {
            Description = "reader, planner, granter or owner",
            DefaultValueFactory = _ => "reader",
        };
        role.CompletionSources.Add("reader", "planner", "granter", "owner");
        var days = new Option<int>("--days")
        {
            Description = "For how many days it is valid, 1 to 366",
            DefaultValueFactory = _ => 90,
        };
        var person = new Option<string?>("--for")
        {
            Description = @"Whom it is issued to, as they sign in to the console, such as FENNMOOR\a.brandt: with both they are one person",
            HelpName = "PERSON",
        };
        return CommandKit.Group(
            "token", "Tokens: access for clients",
            CommandKit.Make(
                "claim", "Exchanges a sign-in link for a token and stores it for this client",
                ["justright token claim 'http://127.0.0.1:5820/enter#…'"], [link], c => ClaimAsync(c, c.Parsed.GetValue(link)!))
                .Answers(j => j.WhoView),
            CommandKit.Make("make", "Creates a token for someone else; it is shown only once", ["justright token make nightly-check --role planner --days 30"], [
                name, role, days, person],
                c => MakeAsync(
                    c, c.Parsed.GetValue(name)!, c.Parsed.GetValue(role)!, c.Parsed.GetValue(days), c.Parsed.GetValue(person)))
                .Answers(j => j.NewTokenView),
            CommandKit.Make("list", "Lists the tokens, without their values", [], [], ListAsync)
                .Answers(j => j.IReadOnlyListTokenView),
            CommandKit.Make(
                "revoke", "Revokes a token", ["justright token revoke nightly-check"], [name],
                c => RevokeAsync(c, c.Parsed.GetValue(name)!))
                .Answers(j => j.DoneView));
    }

    private static async Task<int> ClaimAsync(Call call, string link)
    {
        if (!Uri.TryCreate(link, UriKind.Absolute, out var uri) || uri.Fragment.Length < 2)
            throw new ClientException(
                ExitCode.BadInput, "This is not a sign-in link.", "Give the whole link, with what follows the #, in quotes.");
        var address = uri.GetLeftPart(UriPartial.Authority);
        using var api = new ApiClient(address, null);
        var claim = new TokenClaim(uri.Fragment[1..], $"{Environment.UserName}@{Environment.MachineName}");
        var token = await api.PostAsync(
            "tokens/claim", claim, ContractsJson.Default.TokenClaim, ContractsJson.Default.NewTokenView, call.Cancel);
        var settings = ClientSettings.Load();
        settings.Tokens[address] = token.Token;
        settings.Save();
        if (call.Screen.IsJson) call.Screen.Json(new WhoView(token.Name, token.Role), ContractsJson.Default.WhoView);
        else
            call.Screen.Line(Markup.Escape(
                $"{token.Name} is signed in at {address} as {token.Role} until {Times.Exact(token.ExpiresAt)}"));
        return ExitCode.Fine;
    }

    private static async Task<int> MakeAsync(Call call, string name, string role, int days, string? person)
    {
        var token = await call.Api.PostAsync(
            "tokens", new TokenOrder(name, role, days) { Person = person }, ContractsJson.Default.TokenOrder,
            ContractsJson.Default.NewTokenView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(token, ContractsJson.Default.NewTokenView);
        else Console.Out.WriteLine(token.Token);
        return ExitCode.Fine;
    }

    private static async Task<int> ListAsync(Call call)
    {
        var tokens = await call.Api.GetAsync("tokens", ContractsJson.Default.IReadOnlyListTokenView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(tokens, ContractsJson.Default.IReadOnlyListTokenView);
            return ExitCode.Fine;
        }

        var table = Screen.List("token", "role", "for", "made", "good until", "last used");
        foreach (var t in tokens)
            table.AddRow(
                t.Name, t.Role, Markup.Escape(t.Person ?? ""), Times.Exact(t.CreatedAt), Times.Exact(t.ExpiresAt),
                t.LastUsedAt is { } used ? Times.Exact(used) : "never");
        call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> RevokeAsync(Call call, string name)
    {
        await call.Api.DeleteAsync($"tokens/{Names.Part(name)}", call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(new DoneView(name, "revoked"), ContractsJson.Default.DoneView);
        else call.Screen.Line(Markup.Escape($"revoked {name}"));
        return ExitCode.Fine;
    }
}
