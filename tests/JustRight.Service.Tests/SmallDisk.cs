using System.Globalization;

namespace JustRight.Service.Tests;

/// <summary>A disk of some megabytes under the data folder of a stopped service; it can be filled, and made room on.</summary>
internal sealed class SmallDisk : IAsyncDisposable
{
    private readonly TestedService _service;

    private SmallDisk(TestedService service) => _service = service;

    private string Filler => Path.Combine(_service.Data, "filler");

    private string Kept => _service.Data + ".kept";

    /// <summary>Moves what the service left onto such a disk.</summary>
    public static async Task<SmallDisk> UnderAsync(TestedService service)
    {
        var disk = new SmallDisk(service);
        await Programs.MustRunAsync(
            "sh", "-c",
            $"cp -r {service.Data} {disk.Kept} && mount -t tmpfs -o size=32m tmpfs {service.Data} "
            + $"&& cp -r {disk.Kept}/. {service.Data}/");
        return disk;
    }

    /// <summary>Fills it, but for some kilobytes.</summary>
    public async Task FillAsync(int leave = 0)
    {
        var free = new DriveInfo(_service.Data).AvailableFreeSpace / 1024 - leave;
        await Programs.RunAsync(
            "dd", ["if=/dev/zero", $"of={Filler}", "bs=1k", string.Create(CultureInfo.InvariantCulture, $"count={free}")]);
    }

    /// <summary>Makes room again.</summary>
    public void MakeRoom() => File.Delete(Filler);

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        await _service.KillAsync();
        await Programs.MustRunAsync("umount", _service.Data);
        Directory.Delete(Kept, true);
    }
}
