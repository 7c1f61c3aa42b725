using System.Security.Cryptography;
using System.Text;

namespace JustRight.Tests.Shared;

/// <summary>
/// A provisioned controller that was never started, kept packed: made once a machine, and made anew when it is old or another
/// release of the server is installed. Making one takes far longer than unpacking it.
/// </summary>
internal static class ControllerArchive
{
    private const string MadeIn = "made-in", PasswordFile = "administrator-password";

    /// <summary>An older one is made anew: the passwords in it are given 42 days by the domain's policy.</summary>
    private static readonly TimeSpan Oldest = TimeSpan.FromDays(7);

    private static readonly string[] Provision =
    [
        "domain", "provision", "--realm=FENNMOOR.EXAMPLE", "--domain=FENNMOOR", "--server-role=dc", "--dns-backend=NONE",
        "--host-name=fm-dc01", "--host-ip=127.0.0.1", "--option=interfaces=127.0.0.1/8", "--option=bind interfaces only=yes",
    ];

    private static string Folder { get; } = Path.Combine(
        Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData, Environment.SpecialFolderOption.Create),
        "justright-tests");

    /// <summary>Unpacks the controller into a folder that is not there yet, and returns the administrator's password.</summary>
    public static async Task<string> UnpackAsync(string folder)
    {
        using (await LockAsync("archive"))
        {
            var archive = Path.Combine(Folder, $"controller-{await KeyAsync()}.tar");
            if (!File.Exists(archive) || DateTime.UtcNow - File.GetLastWriteTimeUtc(archive) > Oldest) await MakeAsync(archive);
            Directory.CreateDirectory(folder);
            await Programs.MustRunAsync("tar", "--xattrs", "--xattrs-include=*", "-C", folder, "-xf", archive);
        }

        // The configuration names the folder that it was made in; nothing else does.
        var configuration = Path.Combine(folder, "etc", "smb.conf");
        var madeIn = await File.ReadAllTextAsync(Path.Combine(folder, MadeIn));
        var text = await File.ReadAllTextAsync(configuration);
        await File.WriteAllTextAsync(configuration, text.Replace(madeIn, folder, StringComparison.Ordinal));
        return await File.ReadAllTextAsync(Path.Combine(folder, PasswordFile));
    }

    private static async Task MakeAsync(string archive)
    {
        foreach (var old in Directory.GetFiles(Folder, "controller-*.tar")) File.Delete(old);
        var made = Directory.CreateTempSubdirectory("justright-provision-").FullName;
        try
        {
            var password = "Aa1-" + RandomNumberGenerator.GetHexString(16);
            await Programs.MustRunAsync("samba-tool", [.. Provision, $"--targetdir={made}", $"--adminpass={password}"]);
            await File.WriteAllTextAsync(Path.Combine(made, MadeIn), made);
            await File.WriteAllTextAsync(Path.Combine(made, PasswordFile), password);
            await Programs.MustRunAsync("tar", "--xattrs", "--xattrs-include=*", "-C", made, "-cf", archive + ".new", ".");
            await Programs.MustRunAsync("chmod", "600", archive + ".new");
            File.Move(archive + ".new", archive, overwrite: true);
        }
        finally
        {
            Directory.Delete(made, true);
        }
    }

    /// <summary>What the archive depends on: the server's release and how it was provisioned.</summary>
    private static async Task<string> KeyAsync()
    {
        var release = await Programs.MustRunAsync("samba", "--version");
        return Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(release + string.Join('\n', Provision))))[..12];
    }

    /// <summary>Holds off the other parts of the tests, which are programs of their own, until it is disposed of.</summary>
    /// <param name="name">What only one of them may have.</param>
    public static async Task<FileStream> LockAsync(string name)
    {
        Directory.CreateDirectory(Folder);
        var file = Path.Combine(Folder, name + ".lock");
        while (true)
        {
            try
            {
                return new FileStream(file, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            }
            catch (IOException)
            {
                await Task.Delay(TimeSpan.FromMilliseconds(200));
            }
        }
    }
}
