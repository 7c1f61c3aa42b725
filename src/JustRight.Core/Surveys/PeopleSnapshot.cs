using JustRight.Core.Directory;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.Surveys;

/// <summary>What was read of the people and groups of a directory that people sign in with.</summary>
/// <param name="Directory">The estate's key of the directory.</param>
/// <param name="Family">Its family.</param>
/// <param name="ReadAs">The account that read; it may see less than is there.</param>
/// <param name="Objects">People and groups.</param>
/// <param name="Attributes">The attributes that were asked for.</param>
/// <param name="AttributeTypes">What the directory says of its attributes [RFC 4512 4.1.2]; empty when it did not.</param>
/// <param name="ObjectClasses">What it says of its classes.</param>
/// <param name="Unread">Why nothing could be read, or null.</param>
public sealed record PeopleSnapshot(
    string Directory, DirectoryFamily Family, string ReadAs, DateTimeOffset ReadAt, IReadOnlyList<PeopleObject> Objects,
    IReadOnlyList<string> Attributes, IReadOnlyList<string> AttributeTypes,
    IReadOnlyList<string> ObjectClasses, string? Unread)
{
    /// <summary>A snapshot of a directory that could not be read.</summary>
    public static PeopleSnapshot NotRead(
        string directory, DirectoryFamily family, string readAs, DateTimeOffset now,
        string reason) => new(directory, family, readAs, now, [], [], [], [], reason);

    /// <summary>The objects laid out for filters.</summary>
    public ObjectTable ToTable() => new(SchemaDescriptions.Read(Family, AttributeTypes, ObjectClasses), Objects, Attributes);
}
