using System.Security.Cryptography;
using System.Text.Json;

namespace JustRight.Service.Data.Fits;

/// <summary>The hash of what something follows from: another where any of it is.</summary>
internal static class Basis
{
    /// <summary>This build of all that plans, judges and says it in words.</summary>
    public static string Program { get; } = Of(
        typeof(Core.Fit.FitJudge).Module.ModuleVersionId.ToString(),
        typeof(Formats.Installs.InstallReader).Module.ModuleVersionId.ToString(),
        typeof(Basis).Module.ModuleVersionId.ToString());

    /// <summary>The hash of parts, as hexadecimal digits. A JSON array keeps the parts apart.</summary>
    public static string Of(params IEnumerable<string?> parts) =>
        Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(parts)));
}
