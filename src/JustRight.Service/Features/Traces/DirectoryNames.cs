using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;

namespace JustRight.Service.Features.Traces;

/// <summary>
/// What a person may call an account, a group or an object: by its own name, by the key that a sheet gives it
/// (<c>install/key</c>, or the key alone where only one plan has it and nothing in the directory is called so), and an OU by its
/// key in the estate.
/// </summary>
internal sealed class DirectoryNames
{
    private readonly Estate _estate;
    private readonly ILookup<string, string> _byKey;
    private readonly SurveyView? _view;

    private DirectoryNames(Estate estate, IReadOnlyList<Plan> plans, SurveyView? view)
    {
        (_estate, _view) = (estate, view);
        _byKey = plans
            .SelectMany(p => p.Accounts.Select(a => (p.Install, a.Key, a.Name))
                .Concat(p.Groups.Select(g => (p.Install, g.Key, g.Name))))
            .SelectMany(n => new[] { (Key: $"{n.Install}/{n.Key}", n.Name), (n.Key, n.Name) })
            .Distinct().ToLookup(n => n.Key, n => n.Name, StringComparer.Ordinal);
    }

    /// <summary>
    /// What some texts mean in an estate, by its latest survey, and by its plans where that does not tell: planning takes longer.
    /// </summary>
    public static async Task<DirectoryNames> OfAsync(
        Estate estate, IEnumerable<string?> texts, FitService fits, SurveyStore surveys, CancellationToken cancel)
    {
        var view = await surveys.LatestAsync(estate.Name, cancel);
        var bare = new DirectoryNames(estate, [], view);
        return texts.OfType<string>().Distinct().All(t => bare.Branch(t) is not null || IsSeen(view, t))
            ? bare
            : new DirectoryNames(estate, await fits.PlansOfAsync(estate.Name, cancel), view);
    }

    /// <summary>The logon name of an account or a group, however it was called.</summary>
    public string Principal(string text)
    {
        var name = LogonName.WithoutDomain(text);
        if (IsSeen(_view, text)) return name;
        return _byKey[text].Distinct(StringComparer.OrdinalIgnoreCase).ToList() is [var only] ? only : name;
    }

    private static bool IsSeen(SurveyView? view, string text) =>
        view is not null && view.Graph.IndexOf(LogonName.WithoutDomain(text)) >= 0;

    /// <summary>An object as it is read: a distinguished name as it is, an OU's by its key, or a logon name.</summary>
    public string Object(string text) => Branch(text) ?? (text.Contains('=', StringComparison.Ordinal) ? text : Principal(text));

    /// <summary>
    /// The distinguished name of an OU by its key, of the whole domain, or one that was written out; null for others.
    /// </summary>
    public string? Branch(string text)
    {
        if (text == Estate.WholeDomain) return _estate.Domain.Root;
        if (_estate.Branches.FirstOrDefault(b => b.Key == text) is { } branch) return branch.Name.Text;
        return DistinguishedName.TryParse(text, out var dn) && dn.IsAtOrBelow(DistinguishedName.Parse(_estate.Domain.Root))
            ? dn.Text
            : null;
    }
}
