using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Person;

/// <summary>An identity inside a product that an account is mapped to. No survey reads it: a person looks it up and confirms it.</summary>
/// <param name="product">The product's name in full.</param>
/// <param name="identity">The identity, as the product calls it.</param>
/// <param name="lets">The operations that it must allow, and no others; empty when the sheet leaves that to the identity's name.</param>
/// <param name="confirmedFor">How long a person's confirmation counts.</param>
public sealed class ProductRoleRight(string product, string identity, IReadOnlyList<string> lets, TimeSpan confirmedFor)
    : Right(NeedKind.ProductRole, product, identity, $"product-role:{identity}@{product}")
{
    /// <summary>The identity, as the product calls it.</summary>
    public string Identity { get; } = identity;

    /// <summary>The operations that it must allow.</summary>
    public IReadOnlyList<string> Lets { get; } = lets;

    /// <summary>How long a person's confirmation counts.</summary>
    public TimeSpan ConfirmedFor { get; } = confirmedFor;
}
