namespace JustRight.Core.SignIn.Objects;

/// <summary>
/// What AD-like directories take the name of a class for, where an object's category is asked for: the category that objects of
/// the class get [MS-ADTS 3.1.1.3.1.3.5], which is another one than the class for people.
/// </summary>
internal static class ObjectCategories
{
    private static readonly Dictionary<string, string> Of = new(StringComparer.OrdinalIgnoreCase)
    {
        ["person"] = "Person",
        ["organizationalPerson"] = "Person",
        ["user"] = "Person",
        ["inetOrgPerson"] = "Person",
        ["contact"] = "Person",
        ["computer"] = "Computer",
        ["group"] = "Group",
        ["organizationalUnit"] = "Organizational-Unit",
        ["container"] = "Container",
    };

    /// <summary>
    /// The name of the category, as objects of the table spell it; null when no object has it or the class is not known here.
    /// </summary>
    public static string? NameOf(string className, ObjectTable table)
    {
        if (!Of.TryGetValue(className, out var category)) return null;
        var start = $"CN={category},CN=Schema,";
        return table.Objects.SelectMany(o => o.All("objectCategory"))
            .FirstOrDefault(c => c.StartsWith(start, StringComparison.OrdinalIgnoreCase))
            ?? $"CN={category},CN=Schema,CN=Configuration";
    }
}
