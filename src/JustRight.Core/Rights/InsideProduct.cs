namespace JustRight.Core.Rights;

/// <summary>An identity inside a product that an account is mapped to.</summary>
/// <param name="Product">The product's name in full.</param>
/// <param name="Identity">The identity, as the product calls it.</param>
/// <param name="Lets">The operations that it must allow, and no others; empty when the sheet leaves that to its name.</param>
/// <param name="ConfirmedFor">How long a person's confirmation counts.</param>
public sealed record InsideProduct(string Product, string Identity, IReadOnlyList<string> Lets, TimeSpan ConfirmedFor);
