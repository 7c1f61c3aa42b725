using JustRight.Core.Estates;
using JustRight.Service.Platform.Settings;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Jobs.Runs;

/// <summary>
/// Lets one rehearse a crash: at the named stage of the named step, carrying out halts and waits to be killed. For the simulation
/// only; on any other estate it does nothing.
/// </summary>
public sealed class CrashRehearsal(IOptions<ServiceSettings> settings)
{
    /// <summary>The file in the data folder that says that the halt was reached.</summary>
    public const string HaltFile = "halted-for-rehearsal";

    /// <summary>Called after each stage.</summary>
    public async Task ReachedAsync(int step, string stage, Estate estate, CancellationToken cancel)
    {
        if (!estate.IsSimulated || settings.Value.RehearseHaltAt != $"{step}:{stage}") return;
        await File.WriteAllTextAsync(Path.Combine(settings.Value.Data, HaltFile), $"{step}:{stage}", cancel);
        await Task.Delay(Timeout.Infinite, cancel);
    }
}
