using JustRight.Core.Installs;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Data.Documents;

/// <summary>The stages of an install, as calls say them.</summary>
internal static class StageWords
{
    /// <summary>All of them, in their order.</summary>
    public static IReadOnlyList<string> All { get; } = [.. Enum.GetValues<Stage>().Select(s => s.Word())];
}
