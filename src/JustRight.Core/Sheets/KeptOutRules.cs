using JustRight.Core.Faults;
using JustRight.Core.Hosts;

namespace JustRight.Core.Sheets;

/// <summary>What must be so of the log-ons that an account is kept from: it must be able to do its work.</summary>
public static class KeptOutRules
{
    /// <summary>The faults of a sheet.</summary>
    public static IEnumerable<Fault> Check(Sheet sheet) => sheet.Accounts.SelectMany(a => Check(sheet, a));

    /// <summary>
    /// Why an account that is used in some way cannot be kept from a type of log-on; null when it can. A bind account comes to
    /// controllers, and is none of the hosts' affair.
    /// </summary>
    public static string? WhyNot(WorksAs use, string type) => use switch
    {
        WorksAs.Person => "a person is not kept out",
        WorksAs.Bind => null,
        WorksAs.Service or WorksAs.Job or WorksAs.Pool or WorksAs.Setup => WorksAsWords.LogonsOf(use).Contains(type)
            ? $"an account that works as '{WorksAsWords.Of(use)}' must {LogonRights.Words(type)}"
            : null,
    };

    private static IEnumerable<Fault> Check(Sheet sheet, SheetAccount account)
    {
        var field = $"accounts.{account.Key}";
        if (account.KeptOutThrough is { } through)
        {
            if (account.KeptOut.Count == 0)
                yield return new Fault(
                    "missing-key", account.KeptOutAt, $"{field}.kept-out", "Nothing says what the account is kept from.")
                {
                    Expected = $"kept-out: a list of {string.Join(", ", LogonKind.All)}",
                };
            if (sheet.Groups.All(g => g.Key != through))
                yield return new Fault(
                    "unknown-group", account.KeptOutAt, $"{field}.kept-out-through", $"'{through}' is not a group of this sheet.")
                {
                    Expected = "a group of this sheet",
                    Nearest = Spelling.Nearest(through, sheet.Groups.Select(g => g.Key)),
                };
        }

        if (account.KeptOut.Count > 0 && sheet.Places.All(p => p.Kind != PlaceKind.Host))
            yield return new Fault("no-host", account.KeptOutAt, $"{field}.kept-out",
                "This sheet has no hosts to be kept out of.")
            {
                Expected = "a place with kind: host",
            };
        var always = account.Needs.SelectMany(Unconditional).ToList();
        var kept = account.KeptOut.Select(t => (Type: t, Place: (string?)null, At: account.KeptOutAt, Field: $"{field}.kept-out"))
            .Concat(account.Needs.SelectMany((n, i) => n.Needs($"{field}.needs[{i}]")
                .Where(k => k.Need.Kind == NeedKind.KeptOut)
                .Select(k => (Type: k.Need.Value, k.Need.Place, k.Need.At, Field: $"{k.Field}.kept-out"))));
        foreach (var (type, place, at, where) in kept.Where(k => LogonKind.All.Contains(k.Type)))
        {
            if (WhyNot(account.WorksAs, type) is { } why)
                yield return new Fault("kept-from-work", at, where, $"'{account.Key}' cannot be kept from '{type}': {why}.")
                {
                    Expected = "log-ons that its work does not need",
                };
            else if (always.FirstOrDefault(n =>
                n.Kind == NeedKind.Logon && n.Value == type && (place is null || n.Place == place)) is { } needed)
                yield return new Fault(
                    "kept-from-need", at, where, $"'{account.Key}' cannot be kept from '{type}': it needs that ({needed.At}).")
                {
                    Expected = "either the need or kept-out",
                };
        }
    }

    /// <summary>The needs that stand whatever is chosen.</summary>
    private static IEnumerable<Need> Unconditional(NeedClause clause) => clause.When is not null ? [] : clause switch
    {
        Need need => [need],
        AllOf all => all.Parts.SelectMany(Unconditional),
        AnyOf => [],
        _ => throw new InvalidOperationException($"Unknown clause {clause.GetType().Name}."),
    };
}
