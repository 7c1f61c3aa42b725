using System.Text.RegularExpressions;

namespace JustRight.Core.Sheets;

/// <summary>What a sheet may write where it asks for a permission of a database server.</summary>
public static partial class DatabaseNeedRules
{
    /// <summary>
    /// Whether a text can be a permission: words of letters, if wanted on something. What it may be on, the family says.
    /// </summary>
    public static bool IsPermission(string text) => MaybeOn().IsMatch(text);

    /// <summary>What is expected, in words.</summary>
    public static string Expected(NeedKind kind) =>
        kind == NeedKind.InstancePermission
            ? "words, such as VIEW SERVER STATE"
            : "words, such as EXECUTE, if wanted with on SCHEMA::name or on OBJECT::schema.name";

    /// <summary>Whether a text can be a permission by itself: words of letters.</summary>
    public static bool IsPermissionAlone(string text) => Alone().IsMatch(text);

    [GeneratedRegex("^[A-Za-z]+( [A-Za-z]+)*$")]
    private static partial Regex Alone();

    [GeneratedRegex("^[A-Za-z]+( [A-Za-z]+)*?( on [A-Za-z]+( [A-Za-z]+)*::.+)?$")]
    private static partial Regex MaybeOn();
}
