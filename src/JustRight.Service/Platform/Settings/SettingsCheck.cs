using System.Collections;
using System.Net;
using System.Reflection;
using System.Text.RegularExpressions;
using JustRight.Connectors.Outbound;
using JustRight.Core.Faults;
using JustRight.Service.Platform.Faults;

namespace JustRight.Service.Platform.Settings;

/// <summary>Reads the settings, and checks each: one that is misspelt, or cannot be, keeps the service from starting.</summary>
internal static partial class SettingsCheck
{
    private const string Section = "JustRight";
    private const int HighestPort = 65535;

    /// <summary>The settings of a configuration.</summary>
    /// <param name="roles">The roles that there are, in order of power.</param>
    /// <exception cref="StartFault">One is none, or cannot be; the message names it.</exception>
    public static ServiceSettings Read(IConfiguration configuration, IReadOnlyList<string> roles)
    {
        var section = configuration.GetSection(Section);
        if (Unknown(section, typeof(ServiceSettings)) is { } unknown) throw new StartFault(StartFault.Setting, unknown);
        ServiceSettings settings;
        try
        {
            settings = section.Get<ServiceSettings>() ?? new ServiceSettings();
        }
        catch (InvalidOperationException e)
        {
            throw new StartFault(StartFault.Setting, e.Message); // names the setting, its value and what it must be
        }

        return Faults(settings, roles).FirstOrDefault(f => f is not null) is { } fault
            ? throw new StartFault(StartFault.Setting, fault) : settings;
    }

    /// <summary>What is wrong with each setting; null for each that is sound.</summary>
    private static IEnumerable<string?> Faults(ServiceSettings settings, IReadOnlyList<string> roles)
    {
        yield return Outbound(settings.Outbound);
        yield return Within("SignInLinks", settings.SignInLinks, 0, 5);
        yield return Within("TracesKept", settings.TracesKept, 1, int.MaxValue);
        yield return Within("Mail:Port", settings.Mail.Port, 1, HighestPort);
        yield return Within("DirectorySignIn:AskAgainMinutes", settings.DirectorySignIn.AskAgainMinutes, 0, int.MaxValue);
        yield return settings.Console is { } console && !File.Exists(Path.Combine(console, "index.html"))
            ? $"{Section}:Console: there is no index.html in {console}. Expected: the folder of the built console." : null;
        yield return settings.Mail is { Host: not null, From: "" } ? $"{Section}:Mail:From is missing: whom mail comes from."
            : null;
        yield return settings.Mail.Tls is null or "from-the-start" ? null
            : $"{Section}:Mail:Tls: '{settings.Mail.Tls}' is neither left out nor from-the-start.";
        yield return settings.Mail is { SignInAs: null, Secret: null } or { SignInAs: not null, Secret: not null } ? null
            : $"{Section}:Mail:SignInAs and {Section}:Mail:Secret go together: one is missing.";
        yield return settings.Keys is { PassphraseFile: not null, Certificate: not null }
            ? $"{Section}:Keys names both a PassphraseFile and a Certificate: one of them." : null;
        yield return Readable("Keys:PassphraseFile", settings.Keys.PassphraseFile);
        yield return Readable("Keys:Certificate", settings.Keys.Certificate);
        yield return Readable("Keys:CertificatePasswordFile", settings.Keys.CertificatePasswordFile);
        yield return Readable("Tls:Certificate", settings.Tls.Certificate);
        yield return Readable("Tls:Key", settings.Tls.Key);
        yield return settings.Tls is { Key: not null, Certificate: null }
            ? $"{Section}:Tls:Key has no {Section}:Tls:Certificate." : null;
        yield return settings.RehearseHaltAt is null || Halt().IsMatch(settings.RehearseHaltAt) ? null
            : $"{Section}:RehearseHaltAt: '{settings.RehearseHaltAt}' is no step and stage, such as 4:made.";
        yield return settings.DirectorySignIn.Fault(settings.Demo, roles);
    }

    private static string? Within(string name, int value, int least, int most) => value >= least && value <= most ? null
        : $"{Section}:{name}: {value} is not {(most == int.MaxValue ? $"{least} or more" : $"{least} to {most}")}.";

    private static string? Readable(string name, string? file)
    {
        if (file is null) return null;
        try
        {
            using var opened = File.OpenRead(file);
            return null;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return $"{Section}:{name} cannot be read: {e.Message}";
        }
    }

    private static string? Outbound(OutboundSettings outbound)
    {
        try
        {
            _ = new OutboundRules(outbound.Allow, Dns.GetHostAddressesAsync);
            return null;
        }
        catch (FormatException e)
        {
            return $"{Section}:Outbound:Allow: {e.Message}";
        }
    }

    /// <summary>That a key is no setting, or null when all are.</summary>
    private static string? Unknown(IConfigurationSection section, Type type)
    {
        var known = type.GetProperties(BindingFlags.Public | BindingFlags.Instance).Where(p => p.CanWrite).ToList();
        foreach (var child in section.GetChildren())
        {
            var property = known.Find(p => string.Equals(p.Name, child.Key, StringComparison.OrdinalIgnoreCase));
            if (property is null)
            {
                var near = Spelling.Nearest(child.Key, known.Select(p => p.Name));
                return $"{child.Path} is no setting."
                    + (near is null ? " docs/operations.md has all of them." : $" Did you mean {section.Path}:{near}?");
            }

            var isGroup = property.PropertyType.Namespace == type.Namespace
                && !typeof(IEnumerable).IsAssignableFrom(property.PropertyType);
            if (isGroup && Unknown(child, property.PropertyType) is { } inner) return inner;
        }

        return null;
    }

    [GeneratedRegex("^[0-9]+:[a-z-]+$")]
    private static partial Regex Halt();
}
