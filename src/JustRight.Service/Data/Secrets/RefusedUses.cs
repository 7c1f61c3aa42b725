using JustRight.Core.SecretUses;

namespace JustRight.Service.Data.Secrets;

/// <summary>
/// The uses for which a secret was asked and not given since the start, so that an owner finds each in the list.
/// </summary>
internal sealed class RefusedUses
{
    private const int Most = 1000;
    private readonly Lock _lock = new();
    private readonly Dictionary<string, AskedUse> _uses = new(StringComparer.Ordinal);

    /// <summary>All of them.</summary>
    public IReadOnlyList<AskedUse> All
    {
        get
        {
            lock (_lock) return [.. _uses.Values];
        }
    }

    /// <summary>Adds one. Beyond a thousand none is added: those that the estates ask for are found without.</summary>
    public void Add(string subject, SecretUse use)
    {
        lock (_lock)
            if (_uses.Count < Most) _uses[SecretGate.Key(subject, use)] = new AskedUse(subject, use);
    }
}
