using JustRight.Core.Sheets;

namespace JustRight.Core.Changes;

/// <summary>A change inside a product. No connector makes it: a person does, and confirms it.</summary>
/// <param name="Product">The product's name in full.</param>
/// <param name="Identity">The identity inside the product.</param>
/// <param name="Principal"><c>DOMAIN\name</c> of the account or group that is mapped to it.</param>
/// <param name="Lets">The operations that it must allow, and no others; empty when the sheet names none.</param>
public abstract record ProductChange(string Product, string Identity, string Principal, IReadOnlyList<string> Lets) : Change
{
    /// <inheritdoc/>
    public override Team Team => Team.Product;

    /// <inheritdoc/>
    public override string Place => Product;
}

/// <summary>Maps an account to an identity inside a product.</summary>
public sealed record MapToProductRole(string Product, string Identity, string Principal, IReadOnlyList<string> Lets)
    : ProductChange(Product, Identity, Principal, Lets)
{
    /// <inheritdoc/>
    public override string Words =>
        $"map {Principal} to '{Identity}' inside {Product}{(Lets.Count == 0 ? "" : $", which lets it {string.Join(", ", Lets)} and nothing more")}";

    /// <inheritdoc/>
    public override Change? Inverse => new UnmapFromProductRole(Product, Identity, Principal, Lets);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> RestsOn => [Thing.Principal(Principal)];
}

/// <summary>Takes an account's identity inside a product away.</summary>
public sealed record UnmapFromProductRole(string Product, string Identity, string Principal, IReadOnlyList<string> Lets)
    : ProductChange(Product, Identity, Principal, Lets)
{
    /// <inheritdoc/>
    public override string Words => $"take '{Identity}' inside {Product} away from {Principal}";

    /// <inheritdoc/>
    public override Change? Inverse => new MapToProductRole(Product, Identity, Principal, Lets);

    /// <inheritdoc/>
    internal override IReadOnlyList<string> Makes => [Thing.Without(Thing.Principal(Principal))];
}
