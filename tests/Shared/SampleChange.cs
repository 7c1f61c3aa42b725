using JustRight.Core.Changes;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Tests.Shared;

/// <summary>A change of any kind, made up from what its constructor wants.</summary>
public static class SampleChange
{
    /// <summary>The kinds of change there are.</summary>
    public static IEnumerable<Type> Kinds =>
        typeof(Change).Assembly.GetTypes().Where(t => t is { IsAbstract: false } && t.IsAssignableTo(typeof(Change)));

    /// <summary>One of a kind.</summary>
    /// <param name="textOf">The text for a parameter, by its name.</param>
    public static Change Of(Type kind, Func<string, string> textOf)
    {
        var constructor = kind.GetConstructors().MaxBy(c => c.GetParameters().Length)!;
        var values = constructor.GetParameters().Select(p => ValueOf(p.Name!, p.ParameterType, textOf));
        return (Change)constructor.Invoke([.. values]);
    }

    private static object? ValueOf(string name, Type type, Func<string, string> textOf) =>
        type == typeof(string) ? textOf(name)
        : type == typeof(AccessRule)
            ? new AccessRule(textOf("Principal"), false, AccessRights.WriteProperty, null, null, AceFlags.None)
        : type == typeof(IReadOnlyList<string>) ? Array.Empty<string>()
        : Nullable.GetUnderlyingType(type) is not null ? null
        : type.IsValueType ? Activator.CreateInstance(type)
        : throw new NotSupportedException($"A {type.Name} is not made up here: say how.");
}
