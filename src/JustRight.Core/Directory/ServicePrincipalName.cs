using System.Buffers;

namespace JustRight.Core.Directory;

/// <summary>
/// The form of a service principal name: <c>class/host</c>, with <c>:port</c> or <c>:instance</c> after the host and
/// <c>/name</c> at the end where there is one [MS-ADTS 5.1.1.4; RFC 4120 6.2].
/// </summary>
public static class ServicePrincipalName
{
    private static readonly SearchValues<char> Refused = SearchValues.Create(" \t\r\n\"\\*?<>|;,()=+&@{}[]");

    /// <summary>What is wrong with a text as a name; null when it is one.</summary>
    public static string? WhatIsWrong(string text)
    {
        var parts = text.Split('/');
        if (parts.Length is < 2 or > 3) return "it is a class, a slash and a host, and perhaps another slash and a name";
        if (parts.Any(p => p.Length == 0)) return "one of its parts is empty";
        if (text.AsSpan().IndexOfAny(Refused) is >= 0 and var at) return $"it holds '{text[at]}'";
        if (parts[0].Contains(':', StringComparison.Ordinal)) return "its class holds a colon";
        var host = parts[1].Split(':');
        return host.Length > 2 || host.Any(p => p.Length == 0)
            ? "after the host comes at most one colon with a port or an instance"
            : null;
    }
}
