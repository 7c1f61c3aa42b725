using System.Text.RegularExpressions;

namespace JustRight.Core.Sheets;

/// <summary>What a sheet may write where it asks for a permission of a database server.</summary>
public static partial class DatabaseNeedRules
{
    /// <summary>
    /// Whether a text can be a permission: words of letters; in a database also on a schema, or on an object of a schema.
    /// </summary>
    public static bool IsPermission(string text, NeedKind kind) =>
        (kind == NeedKind.InstancePermission ? AtInstance() : InDatabase()).IsMatch(text);

    /// <summary>What is expected, in words.</summary>
    public static string Expected(NeedKind kind) =>
        kind == NeedKind.InstancePermission
            ? "words, such as VIEW SERVER STATE"
            : "words, such as EXECUTE, if wanted with on SCHEMA::name or on OBJECT::schema.name";

    [GeneratedRegex("^[A-Za-z]+( [A-Za-z]+)*$")]
    private static partial Regex AtInstance();

    [GeneratedRegex("^[A-Za-z]+( [A-Za-z]+)*?( on (SCHEMA::[^.]+|OBJECT::[^.]+\\..+))?$")]
    private static partial Regex InDatabase();
}
