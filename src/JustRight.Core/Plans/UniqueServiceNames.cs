using JustRight.Core.Faults;

namespace JustRight.Core.Plans;

/// <summary>A service principal name belongs to one account: a plan that asks for one twice could never be met.</summary>
internal static class UniqueServiceNames
{
    /// <summary>The faults, each at the line that asks for a name again.</summary>
    /// <param name="nameOf">The logon name of an account's key: two keys may be one account.</param>
    public static IEnumerable<Fault> Check(IEnumerable<PlannedGrant> grants, Func<string, string> nameOf)
    {
        foreach (var same in grants.Where(g => g.Right.ServiceName is not null).GroupBy(g => g.Right))
        {
            var (first, again) = (same.First(), same.FirstOrDefault(g =>
                !string.Equals(nameOf(g.Account), nameOf(same.First().Account), StringComparison.OrdinalIgnoreCase)));
            if (again is null) continue;
            yield return new Fault(
                "spn-twice", again.At, $"accounts.{again.Account}.needs",
                $"{first.Account} and {again.Account} would both have {same.Key.ServiceName}, "
                + $"and Kerberos sign-in would fail for both ({first.At}).")
            {
                Expected = "one account for each service principal name",
            };
        }
    }
}
