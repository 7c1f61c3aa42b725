using System.CommandLine;
using System.Globalization;
using JustRight.Cli.Api;
using JustRight.Cli.Output;

namespace JustRight.Cli.Commands;

/// <summary>What a list is asked for, as the query of a call.</summary>
/// <param name="IsNarrowed">Whether only some of all are asked for, wherever in the list they are.</param>
internal sealed record ListQuery(string Text, bool IsNarrowed);

/// <summary>What a list is asked for: what is looked for, in which order, and how much of it.</summary>
internal sealed class ListOptions
{
    private const int MostTaken = 500;
    private readonly Option<string?> _search = new("--search") { Description = "Only what contains this", HelpName = "TEXT" };
    private readonly Option<string?> _sort;
    private readonly Option<int> _skip = new("--skip") { Description = "How many to leave out from the beginning" };
    private readonly Option<int> _take = new("--take")
    {
        Description = "The most to list, 1 to 500",
        DefaultValueFactory = _ => 100,
    };

    /// <summary>The options of a list that can be sorted by columns.</summary>
    public ListOptions(params string[] columns)
    {
        _sort = new Option<string?>("--sort")
        {
            Description = $"The column to sort by: {string.Join(", ", columns)}; with - before it, from its end",
            HelpName = "COLUMN",
        };
        _sort.CompletionSources.Add(columns);
    }

    /// <summary>All of them.</summary>
    public Option[] All => [_search, .. Paging];

    /// <summary>All but what is looked for, where the command has words of its own for that.</summary>
    public Option[] Paging => [_sort, _skip, _take];

    /// <summary>Whether an order was asked for.</summary>
    public bool IsSorted(Call call) => call.Parsed.GetValue(_sort) is not null;

    /// <summary>What is asked for.</summary>
    /// <param name="filters">By what else only some are asked for; those without a value are left out.</param>
    public ListQuery Query(Call call, params (string Name, string? Value)[] filters)
    {
        var (skip, take) = (call.Parsed.GetValue(_skip), call.Parsed.GetValue(_take));
        if (take is < 1 or > MostTaken) throw new ClientException(ExitCode.BadInput, $"--take goes from 1 to {MostTaken}.");
        if (skip < 0) throw new ClientException(ExitCode.BadInput, "--skip goes from 0.");
        List<(string Name, string? Value)> narrowing = [("search", call.Parsed.GetValue(_search)), .. filters];
        narrowing.RemoveAll(p => string.IsNullOrEmpty(p.Value));
        List<(string Name, string? Value)> all =
        [
            .. narrowing, ("take", take.ToString(CultureInfo.InvariantCulture)),
            ("skip", skip == 0 ? null : skip.ToString(CultureInfo.InvariantCulture)), ("sort", call.Parsed.GetValue(_sort)),
        ];
        return new ListQuery(
            string.Join(
                '&', all.Where(p => !string.IsNullOrEmpty(p.Value)).Select(p => $"{p.Name}={Uri.EscapeDataString(p.Value!)}")),
            narrowing.Count > 0);
    }

    /// <summary>Says how much of how much was listed, where it is not all; or that nothing matches.</summary>
    /// <param name="what">What is listed, in the plural.</param>
    public static void Tell(Call call, int listed, int skipped, int total, string what)
    {
        if (listed == total) return;
        call.Screen.Line(
            listed == 0 ? $"[grey]none of {total} {what} from there on[/]"
                : $"[grey]{skipped + 1} to {skipped + listed} of {total} {what}[/]");
    }
}
