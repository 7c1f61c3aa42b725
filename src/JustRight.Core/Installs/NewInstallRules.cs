using JustRight.Core.Faults;

namespace JustRight.Core.Installs;

/// <summary>
/// What an install that is added must be besides: names of accounts and groups that we can make. One that is stored is read
/// without these.
/// </summary>
public static class NewInstallRules
{
    /// <summary>
    /// The faults, in the order of the file. A name that ends in <c>$</c> is a computer's or a managed account's [MS-SAMR
    /// 3.1.1.8.10]: neither is made here, and no group has one.
    /// </summary>
    public static IReadOnlyList<Fault> Check(Install install) =>
    [
        .. install.Accounts.Where(a => a.Value.Name.EndsWith('$') && !a.Value.Existing).Select(a => Fault(
            $"accounts.{a.Key}", a.Value, "is the name of a managed account or a computer, and no such account is made here",
            "existing: with the name of a managed account that is there, or a name without $")),
        .. install.Groups.Where(g => g.Value.Name.EndsWith('$')).Select(g => Fault(
            $"groups.{g.Key}", g.Value, "is the name of an account and not of a group", "a name without $")),
    ];

    private static Fault Fault(string field, NameChoice choice, string why, string expected) =>
        new("name", choice.At, field, $"'{choice.Name}' {why}.") { Found = choice.Name, Expected = expected };
}
