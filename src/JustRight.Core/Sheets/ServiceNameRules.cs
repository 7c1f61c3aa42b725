using System.Text.RegularExpressions;
using JustRight.Core.Directory;
using JustRight.Core.Faults;

namespace JustRight.Core.Sheets;

/// <summary>
/// What stands in the pattern of a service principal name: <c>{host}</c> and <c>{short}</c> for the host of the need's place,
/// <c>{port}</c> and <c>{instance}</c> for its instance, and the key of any question for its answer.
/// </summary>
public static partial class ServiceNameRules
{
    /// <summary>The full DNS name of the place's host.</summary>
    public const string Host = "host";

    /// <summary>The name of the place's host alone.</summary>
    public const string ShortName = "short";

    /// <summary>The TCP port of the place's instance.</summary>
    public const string Port = "port";

    /// <summary>The name of the place's instance.</summary>
    public const string Instance = "instance";

    private const string AnyService = "any";
    private static readonly string[] OfHosts = [Host, ShortName];
    private static readonly string[] OfInstances = [Port, Instance];

    /// <summary>The pattern with each placeholder's value.</summary>
    public static string Fill(string pattern, Func<string, string> value) =>
        Placeholder().Replace(pattern, m => value(m.Groups[1].Value));

    /// <summary>The faults of a sheet.</summary>
    public static IEnumerable<Fault> Check(Sheet sheet) => sheet.Accounts.SelectMany(a =>
        a.Needs.SelectMany((n, i) => n.Needs($"accounts.{a.Key}.needs[{i}]"))
            .Where(n => n.Need.Kind is NeedKind.Spn or NeedKind.Delegation).SelectMany(n => Check(sheet, n.Need, n.Field)));

    private static IEnumerable<Fault> Check(Sheet sheet, Need need, string field)
    {
        var key = $"{field}.{NeedKinds.ByKind[need.Kind].Key}";
        if (need.Kind == NeedKind.Delegation && need.Value == AnyService)
        {
            yield return new Fault(
                "any-service", need.At, key,
                "An account that is trusted for delegation to any service can be everybody who signs in to it, everywhere.")
            {
                Expected = "the service principal names of the services, such as MSSQLSvc/{host}:{port}",
            };
            yield break;
        }

        var place = sheet.Places.FirstOrDefault(p => p.Key == need.Place);
        string[] known = [.. place is null ? [] : OfHosts, .. place?.Kind == PlaceKind.Instance ? OfInstances : [],
            .. sheet.Questions.Select(q => q.Key)];
        var unknown = Placeholder().Matches(need.Value).Select(m => m.Groups[1].Value).FirstOrDefault(p => !known.Contains(p));
        if (unknown is not null)
            yield return new Fault(
                "unknown-placeholder", need.At, key,
                OfHosts.Contains(unknown) ? $"'{{{unknown}}}' is said of a host, and this need has none."
                    : OfInstances.Contains(unknown) ? $"'{{{unknown}}}' is said of an instance, and this need has none."
                    : $"'{{{unknown}}}' means nothing here.")
            {
                Expected = known.Length == 0 ? "on: a place of this sheet, or no placeholder"
                    : string.Join(", ", known.Select(k => $"{{{k}}}")),
                Nearest = Spelling.Nearest(unknown, known),
            };
        else if (ServicePrincipalName.WhatIsWrong(Fill(need.Value, _ => "x")) is { } wrong)
            yield return new Fault(
                "wrong-value", need.At, key, $"'{need.Value}' is no service principal name (SPN): {wrong}.")
            {
                Expected = "a name such as HTTP/{host} or MSSQLSvc/{host}:{port}",
            };
        if (need.Through is not null)
            yield return new Fault(
                "needless-key", need.At, $"{field}.through", "It belongs to an account, and to no group.");
    }

    [GeneratedRegex(@"\{([A-Za-z0-9_-]*)\}")]
    private static partial Regex Placeholder();
}
