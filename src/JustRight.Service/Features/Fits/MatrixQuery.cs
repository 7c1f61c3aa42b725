using JustRight.Core.Fit;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Features.Fits;

/// <summary>Which rights of a matrix are asked for.</summary>
internal sealed class MatrixQuery
{
    /// <summary>Only those whose account, right or place has this in its name.</summary>
    [FromQuery(Name = "words")]
    public string? Words { get; init; }

    /// <summary>Only those that are not met.</summary>
    [FromQuery(Name = "off")]
    public bool? Off { get; init; }

    /// <summary>Whether everything is asked for.</summary>
    public bool IsAll => Off != true && string.IsNullOrWhiteSpace(Words);

    /// <summary>Those of an account's rights that are asked for.</summary>
    public IEnumerable<Judgement> Of(AccountFit account)
    {
        var rights = Off == true ? account.Judgements.Where(j => !IsFine(j.Verdict)) : account.Judgements;
        var words = Words?.Trim() ?? "";
        return words.Length == 0 || Has($"{account.Account.Key} {account.Account.Name}", words)
            ? rights
            : rights.Where(j => Has($"{j.Right.Words} {j.Right.Place}", words));
    }

    /// <summary>Whether a right is as it should be.</summary>
    public static bool IsFine(Verdict verdict) => verdict is Verdict.Met or Verdict.Done;

    private static bool Has(string text, string words) => text.Contains(words, StringComparison.OrdinalIgnoreCase);
}
