using JustRight.Core.Faults;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>What a survey says of instances and their databases, whatever family they are of.</summary>
internal static class InstanceReading
{
    /// <summary>Why an instance could not be read, or null when it was.</summary>
    public static string? WhyInstanceUnread(this SurveyView view, string name) => view.Instance(name) is not { } instance
        ? $"{name} was not surveyed"
        : instance.Unread is null ? null : $"{instance.Name} could not be read: {instance.Unread}";

    /// <summary>Why the permissions of an instance that was read could not be read, or null.</summary>
    public static string? WhyPermissionsUnread(this SurveyView view, string name) =>
        view.Instance(name)?.UnreadParts.FirstOrDefault(p => p.Part == InstanceSnapshot.PermissionsPart) is { } part
            ? $"the permissions of {name} could not be read: {part.Reason}"
            : null;

    /// <summary>A database, or null when it is not there or its instance was not read.</summary>
    public static DatabaseSnapshot? Database(this SurveyView view, string instance, string name) =>
        view.Instance(instance)?.Databases.FirstOrDefault(d => string.Equals(d.Name, name, StringComparison.OrdinalIgnoreCase));

    /// <summary>Why a database could not be read, or null.</summary>
    public static string? WhyDatabaseUnread(this SurveyView view, string instance, string name) =>
        view.Database(instance, name) is { Unread: { } reason } ? $"{instance}/{name} could not be read: {reason}" : null;

    /// <summary>That a database is not there, where its instance was read; null when it is, or that is not known.</summary>
    public static AbsentThing? AbsentDatabase(this SurveyView view, string instance, string name)
    {
        if (view.Instance(instance) is not { Unread: null } read || view.Database(instance, name) is not null) return null;
        return new AbsentThing($"database {read.Name}/{name}", Spelling.Nearest(name, read.Databases.Select(d => d.Name)));
    }
}
