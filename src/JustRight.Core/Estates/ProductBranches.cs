using JustRight.Core.Directory;

namespace JustRight.Core.Estates;

/// <summary>
/// Where the organization keeps what products own: in one of its branches, named by its key, or in an OU that each product has to
/// itself, named by a distinguished name with <c>{product}</c>.
/// </summary>
public static class ProductBranches
{
    /// <summary>The word in braces for a product's short name.</summary>
    public const string Product = "product";

    /// <summary>Whether each product has its own: what has no <c>=</c> is the key of a branch.</summary>
    /// <param name="said">What the estate says.</param>
    public static bool IsOwn(string said) => said.Contains('=', StringComparison.Ordinal);

    /// <summary>The name of the branch for what a product owns.</summary>
    /// <param name="said">What the estate says; it keeps the rules of estates.</param>
    /// <param name="product">The product, as its sheet calls it.</param>
    public static DistinguishedName Of(Estate estate, string said, string product)
    {
        if (!IsOwn(said)) return estate.Branches.First(b => b.Key == said).Name;
        var values = new Dictionary<string, string>
        {
            [Product] = estate.Naming.ShortNames.GetValueOrDefault(product, product),
        };
        var parts = DistinguishedName.Parse(said).Parts
            .Select(p => $"{p.Type}={DistinguishedName.Escape(NamePattern.Fill(p.Value, values))}");
        return DistinguishedName.Parse(string.Join(',', parts));
    }

    /// <summary>The parts of a name that have words in braces.</summary>
    public static IEnumerable<(string Type, string Value)> Filled(DistinguishedName name) =>
        name.Parts.Where(p => NamePattern.Placeholders(p.Value).Count > 0);
}
