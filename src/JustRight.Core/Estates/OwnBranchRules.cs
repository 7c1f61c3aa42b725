using JustRight.Core.Directory;
using JustRight.Core.Faults;

namespace JustRight.Core.Estates;

/// <summary>The rules for the name of an OU that each product has to itself.</summary>
internal static class OwnBranchRules
{
    private const string Shape = "an OU for each product, such as OU={product},OU=Services,DC=fennmoor,DC=example";

    /// <summary>What is wrong with a name, or null.</summary>
    /// <param name="said">What the estate says.</param>
    /// <param name="root">The domain that it must be in.</param>
    public static Fault? Check(string said, string field, Origin at, DistinguishedName root)
    {
        if (!DistinguishedName.TryParse(said, out var name))
            return Of("not-a-dn", "This is neither a key of 'branches' nor a distinguished name.", Shape);
        if (!name.IsAtOrBelow(root)) return Of("branch-outside", "This OU is not in the domain.", $"a name that ends in {root}");
        var filled = ProductBranches.Filled(name).ToList();
        var words = filled.SelectMany(p => NamePattern.Placeholders(p.Value)).ToList();
        if (words.Find(w => w != ProductBranches.Product) is { } word)
            return Of("unknown-placeholder", $"'{{{word}}}' means nothing here.", "{product}");
        if (words.Count == 0)
            return Of("pattern", "An OU for all products is named under 'branches', and here by its key.", Shape);
        return filled.Exists(p => p.Type != "OU") ? Of("pattern", "Only an OU can be a product's own.", Shape) : null;

        Fault Of(string code, string text, string expected) => new(code, at, field, text) { Found = said, Expected = expected };
    }
}
