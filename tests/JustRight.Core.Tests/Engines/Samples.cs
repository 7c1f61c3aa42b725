using JustRight.Core.Changes;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Tests.Engines;

/// <summary>A change of any kind, made up from what its constructor wants.</summary>
internal static class Samples
{
    private static readonly AccessRule Rule =
        new(KindScene.Account, false, AccessRights.WriteProperty, null, null, AceFlags.None);

    /// <summary>One of a kind.</summary>
    /// <param name="instance">The instance that it is made at, if it is made at one.</param>
    public static Change Of(Type change, string instance)
    {
        var constructor = change.GetConstructors().MaxBy(c => c.GetParameters().Length)!;
        var values = constructor.GetParameters().Select(p => ValueOf(p.Name!, p.ParameterType, instance));
        return (Change)constructor.Invoke([.. values]);
    }

    private static object? ValueOf(string name, Type type, string instance) =>
        type == typeof(string) ? TextOf(name, instance)
        : type == typeof(AccessRule) ? Rule
        : type == typeof(IReadOnlyList<string>) ? Array.Empty<string>()
        : Nullable.GetUnderlyingType(type) is not null ? null
        : type.IsValueType ? Activator.CreateInstance(type)
        : throw new NotSupportedException($"A {type.Name} is not made up here: say how.");

    private static string TextOf(string name, string instance) => name switch
    {
        "Instance" => instance,
        "Type" => "service",
        "Constant" => "SeAuditPrivilege",
        _ => KindScene.Account,
    };
}
