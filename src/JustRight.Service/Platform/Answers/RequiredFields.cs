using System.Text.Json.Serialization.Metadata;

namespace JustRight.Service.Platform.Answers;

/// <summary>
/// A field that a contract does not allow to be null must be sent: a request without it is refused where it is read, and never
/// reaches what would stumble over it.
/// </summary>
internal static class RequiredFields
{
    /// <summary>Marks the fields of a type.</summary>
    public static void Mark(JsonTypeInfo type)
    {
        foreach (var field in type.Properties)
            if (field.AssociatedParameter is { HasDefaultValue: false, IsNullable: false }) field.IsRequired = true;
    }
}
