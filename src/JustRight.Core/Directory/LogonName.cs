namespace JustRight.Core.Directory;

/// <summary>Logon names as people and changes write them: <c>DOMAIN\name</c>, or the name alone.</summary>
public static class LogonName
{
    /// <summary>The name without its domain.</summary>
    public static string WithoutDomain(string name) => name[(name.IndexOf('\\', StringComparison.Ordinal) + 1)..];
}
