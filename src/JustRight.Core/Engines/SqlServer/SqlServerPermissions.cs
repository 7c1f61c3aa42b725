using System.Collections.Frozen;
using System.Globalization;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>A permission of the SQL Server family.</summary>
/// <param name="Name">In capitals, as the catalog writes it.</param>
/// <param name="CoveredBy">The permission on the same thing that brings it along; null for the widest.</param>
/// <param name="Above">The permission on what the thing lies in that brings it along; null at the instance.</param>
/// <param name="Since">The first release that has it, by its number; 13 also for older ones.</param>
/// <param name="Points">How far it reaches, on the scale of <see cref="Rights.RightReach"/>; null where the table does not
/// say.</param>
/// <param name="Lets">What it lets its holder do; null where the table does not say.</param>
public sealed record SqlServerPermission(string Name, string? CoveredBy, string? Above, int Since, int? Points, string? Lets);

/// <summary>A role that an instance or a database comes with, and what it has or denies.</summary>
/// <param name="Since">The first release that has it, by its number; 13 also for older ones.</param>
public sealed record SqlServerFixedRole(string Role, int Since, IReadOnlyList<string> Permissions);

/// <summary>
/// The permissions of the SQL Server family, what covers what, and what fixed roles have: the table in <c>permissions.txt</c>
/// beside this file, which names its source.
/// </summary>
public static class SqlServerPermissions
{
    /// <summary>What lets a login in.</summary>
    public const string ConnectSql = "CONNECT SQL";

    /// <summary>The widest permission at an instance.</summary>
    public const string ControlServer = "CONTROL SERVER";

    /// <summary>The widest permission on a database, and on what is in one.</summary>
    public const string Control = "CONTROL";

    /// <summary>What lets a user into a database.</summary>
    public const string Connect = "CONNECT";

    private const string Resource = "sql-server-permissions.txt";
    private const string RolesOf = "roles of ";
    private const string DenyingRolesOf = "denying roles of ";

    private static readonly Dictionary<string, List<string[]>> Sections = Read();

    private static readonly FrozenDictionary<SqlServerClass, FrozenDictionary<string, SqlServerPermission>> Table =
        Enum.GetValues<SqlServerClass>().ToFrozenDictionary(c => c, PermissionsOf);

    private static readonly FrozenDictionary<SqlServerClass, SqlServerClass?> LiesIn = Enum.GetValues<SqlServerClass>()
        .ToFrozenDictionary(c => c, c => SectionOf(c).Split(" in ") is [_, var outer] ? ClassOf(outer) : (SqlServerClass?)null);

    /// <summary>The permissions that the fixed roles of an instance have, but for the one that has all of them.</summary>
    public static IReadOnlyList<SqlServerFixedRole> InstanceRoles { get; } = Roles(RolesOf + "SERVER");

    /// <summary>The permissions that the fixed roles of a database have.</summary>
    public static IReadOnlyList<SqlServerFixedRole> DatabaseRoles { get; } = Roles(RolesOf + "DATABASE");

    /// <summary>The permissions that the denying roles of a database deny.</summary>
    public static IReadOnlyList<SqlServerFixedRole> DenyingRoles { get; } = Roles(DenyingRolesOf + "DATABASE");

    /// <summary>The permissions on things of a class, by their names.</summary>
    public static IReadOnlyDictionary<string, SqlServerPermission> On(SqlServerClass kind) => Table[kind];

    /// <summary>The class of what things of a class lie in; null of the instance.</summary>
    public static SqlServerClass? Around(SqlServerClass kind) => LiesIn[kind];

    /// <summary>A permission on things of a class, or null when the table does not have it.</summary>
    public static SqlServerPermission? Of(SqlServerClass kind, string name) => Table[kind].GetValueOrDefault(name);

    /// <summary>The permission on things of a class that covers all others on them.</summary>
    public static string WidestOn(SqlServerClass kind) => kind == SqlServerClass.Server ? ControlServer : Control;

    /// <summary>A permission on something, with those on it that bring it along, nearest first.</summary>
    public static IEnumerable<string> Wider(SqlServerClass kind, string name)
    {
        for (var at = name; at is not null; at = Of(kind, at)?.CoveredBy) yield return at;
    }

    private static FrozenDictionary<string, SqlServerPermission> PermissionsOf(SqlServerClass kind) =>
        Sections[SectionOf(kind)].Select(row => new SqlServerPermission(
                row[0], Known(row[1]), Known(row[2]), Number(row[3]), row.Length > 4 ? Number(row[4]) : null,
                row.ElementAtOrDefault(5)))
            .ToFrozenDictionary(p => p.Name, StringComparer.OrdinalIgnoreCase);

    private static List<SqlServerFixedRole> Roles(string section) =>
        [.. Sections[section].Select(row => new SqlServerFixedRole(row[0], Number(row[1]), row[2].Split(", ")))];

    private static string? Known(string field) => field == "-" ? null : field;

    private static int Number(string field) => int.Parse(field, CultureInfo.InvariantCulture);

    private static string SectionOf(SqlServerClass kind) =>
        Sections.Keys.Single(s => !s.Contains(RolesOf, StringComparison.Ordinal) && ClassOf(s.Split(" in ")[0]) == kind);

    private static SqlServerClass ClassOf(string word) => word switch
    {
        "SERVER" => SqlServerClass.Server,
        "DATABASE" => SqlServerClass.Database,
        _ => SqlServerSecurable.ClassOf(word),
    };

    /// <summary>The rows of each section of the table.</summary>
    private static Dictionary<string, List<string[]>> Read()
    {
        using var stream = typeof(SqlServerPermissions).Assembly.GetManifestResourceStream(Resource)
            ?? throw new InvalidOperationException($"The table {Resource} is not in the assembly.");
        using var text = new StreamReader(stream);
        var sections = new Dictionary<string, List<string[]>>(StringComparer.Ordinal);
        var rows = new List<string[]>();
        while (text.ReadLine() is { } line)
        {
            if (line.Length == 0 || line.StartsWith("# ", StringComparison.Ordinal) || line == "#") continue;
            if (line.StartsWith('[')) sections[line[1..^1]] = rows = [];
            else rows.Add(line.Split(" | "));
        }

        return sections;
    }
}
