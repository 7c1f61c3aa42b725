using JustRight.Core.Estates;
using JustRight.Core.Sheets;

namespace JustRight.Core.Adoptions;

/// <summary>
/// A product that was there before us, to be taken into the books: which accounts are its, as far as somebody knows.
/// </summary>
/// <param name="Name">The name its install will have.</param>
/// <param name="Product">The product, as one word; with the release the name of its sheet.</param>
public sealed record Adoption(
    string Name, string Product, string Release, string Title, string Estate, IReadOnlyList<AdoptedAccount> Accounts);

/// <summary>An account to adopt.</summary>
/// <param name="Key">Its key in the draft sheet.</param>
/// <param name="Name">Its logon name.</param>
/// <param name="WorksAs">How it is used: <c>service</c>, <c>job</c>, <c>pool</c>, <c>setup</c> or <c>bind</c>.</param>
public sealed record AdoptedAccount(string Key, string Name, string Purpose, string WorksAs);

/// <summary>What a person says of something that an account holds.</summary>
public enum AdoptionWord
{
    /// <summary>The product needs it.</summary>
    Needed,

    /// <summary>The product does not need it: it will be excess.</summary>
    NotNeeded,

    /// <summary>Nobody knows: it is kept, and the sheet says that nobody knows.</summary>
    NotSure,
}

/// <summary>What a person said of one item.</summary>
/// <param name="Item">The id of the item.</param>
public sealed record AdoptionAnswer(string Item, AdoptionWord Word, string? Why, string By, DateTimeOffset At);
