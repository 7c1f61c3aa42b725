using JustRight.Core.Estates;
using JustRight.Core.Rights;

namespace JustRight.Core.Plans;

/// <summary>
/// What a right at an instance asks of the instances that take over from it. A database comes over with its users, roles and
/// permissions; logins, what is granted at the instance, and the system databases do not.
/// </summary>
internal static class FailoverPartners
{
    /// <summary>
    /// The rights that must hold at the partners of the right's instance, each with the partner; none for a right elsewhere.
    /// </summary>
    public static IEnumerable<(Right Right, EstateInstance Partner)> Of(Right right, EstateInstance instance, Estate estate) =>
        from partner in estate.PartnersOf(instance)
        let there = right.AtPartner(partner.Name)
        where there is not null
        select (there, partner);
}
