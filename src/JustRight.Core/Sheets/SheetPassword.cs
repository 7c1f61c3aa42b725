using JustRight.Core.Faults;
using JustRight.Core.Passwords;

namespace JustRight.Core.Sheets;

/// <summary>What a sheet says of the password of an account.</summary>
/// <param name="ChangedBy">Who changes it: we, or the product.</param>
/// <param name="CanBeManaged">Whether the product works with an account that the directory keeps the password of; null when the
/// sheet does not say.</param>
/// <param name="TypedIn">Where in the product it is typed, beside its services and its sign-in.</param>
public sealed record SheetPassword(PasswordKeeper ChangedBy, bool? CanBeManaged, IReadOnlyList<TypedIn> TypedIn, Origin At)
{
    /// <summary>What holds when the sheet says nothing.</summary>
    public static SheetPassword Unsaid(Origin at) => new(PasswordKeeper.Us, null, [], at);
}

/// <summary>A setting of a product in which a password is typed.</summary>
/// <param name="In">The file or the page.</param>
/// <param name="On">The key of the host place; null for one setting of the whole product.</param>
/// <param name="ReadBy">The service that reads it at its start only, or null when it is read at each use.</param>
/// <param name="Breaks">What stops while another password is there.</param>
public sealed record TypedIn(string In, string Setting, string? On, string? ReadBy, string Breaks, Origin At);
