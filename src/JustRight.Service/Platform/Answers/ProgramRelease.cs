using System.Reflection;

namespace JustRight.Service.Platform.Answers;

/// <summary>The release that runs. docs/installing.md says what its numbers mean.</summary>
internal static class ProgramRelease
{
    /// <summary>Its number, such as <c>0.2.0</c>.</summary>
    public static string Number { get; } =
        typeof(ProgramRelease).Assembly.GetCustomAttribute<AssemblyInformationalVersionAttribute>()!.InformationalVersion;
}
