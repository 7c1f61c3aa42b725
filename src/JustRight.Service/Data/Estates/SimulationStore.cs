using System.Collections.Concurrent;
using JustRight.Connectors;
using JustRight.Core.Estates;
using JustRight.Formats.Simulations;
using JustRight.Service.Platform.Settings;
using JustRight.Simulation;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Data.Estates;

/// <summary>
/// The simulations in the data folder: those that ship with the product, copied when they are first asked for, and those of
/// rehearsals, which are laid.
/// </summary>
internal sealed class SimulationStore(IOptions<ServiceSettings> settings)
{
    private readonly ConcurrentDictionary<string, SimulationFile> _open = new(StringComparer.Ordinal);

    /// <summary>The simulation of an estate.</summary>
    /// <exception cref="ConnectorException">There is none.</exception>
    public SimulationFile Open(Estate estate) => _open.GetOrAdd(estate.Name, _ => OpenFile(estate));

    /// <summary>Lays the state of a rehearsal, in place of the one before.</summary>
    public void Lay(string rehearsal, SimulationState state) => SimulationFile.Lay(FileOf(rehearsal), state);

    /// <summary>Forgets a rehearsal.</summary>
    public void End(string rehearsal)
    {
        _open.TryRemove(rehearsal, out _);
        File.Delete(FileOf(rehearsal));
    }

    private SimulationFile OpenFile(Estate estate)
    {
        var kept = FileOf(estate.Name);
        var first = estate.IsRehearsal ? kept : Path.Combine(settings.Value.SimulationStates, estate.Name + ".json");
        if (File.Exists(kept) || File.Exists(first))
        {
            Check(File.Exists(kept) ? kept : first);
            return SimulationFile.Open(kept, first);
        }

        if (estate.IsRehearsal)
            throw new ConnectorException(
                ConnectorFailure.NotFound,
                $"the rehearsal has no state; lay it anew: justright estate rehearse {estate.Rehearses} --fresh");
        IEnumerable<string?> known = Directory.Exists(settings.Value.SimulationStates)
            ? Directory.EnumerateFiles(settings.Value.SimulationStates, "*.json").Select(Path.GetFileNameWithoutExtension).Order()
            : [];
        throw new ConnectorException(
            ConnectorFailure.NotFound,
            $"the simulation has no simulated estate called {estate.Name}; it ships with: {string.Join(", ", known)}.");
    }

    /// <summary>A person may write such a file, or change it.</summary>
    private static void Check(string file)
    {
        if (SimulationCheck.Faults(File.ReadAllBytes(file), Path.GetFileName(file)) is [var first, ..])
            throw new ConnectorException(ConnectorFailure.NotFound, $"the state of the simulation cannot be read: {first}");
    }

    private string FileOf(string estate) => Path.Combine(settings.Value.Data, "simulation", estate + ".json");
}
