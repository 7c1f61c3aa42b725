using System.Text.Json;
using System.Text.Json.Serialization;
using JustRight.Core.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Simulation;

/// <summary>
/// The simulation's file in the data folder. One writer at a time; each change replaces the file whole, so that a crash leaves the old
/// state or the new one, never half of each.
/// </summary>
public sealed class SimulationFile
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    private readonly string _path;
    private readonly Lock _lock = new();
    private byte[] _bytes = [];
    private SimulationState? _read;
    private Stamp? _stamp;

    private SimulationFile(string path) => _path = path;

    /// <summary>Opens the simulation, copying the state that ships with the product when there is none yet.</summary>
    /// <param name="path">The file in the data folder.</param>
    /// <param name="seed">The state that ships with the product.</param>
    public static SimulationFile Open(string path, string seed)
    {
        if (!File.Exists(path))
        {
            if (!File.Exists(seed)) throw new FileNotFoundException("The simulation's first state is missing.", seed);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            Replace(path, File.ReadAllBytes(seed));
        }

        return new SimulationFile(path);
    }

    /// <summary>Lays a state in place of any that was there.</summary>
    public static void Lay(string path, SimulationState state)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        Replace(path, JsonSerializer.SerializeToUtf8Bytes(state, Options));
    }

    /// <summary>Reads something of the state, which the reader leaves as it is.</summary>
    public T Read<T>(Func<SimulationState, T> read)
    {
        lock (_lock)
        {
            // a survey of many hosts asks as often, and a person may edit the file at any time
            var stamp = Stamp.Of(_path);
            if (_read is not null && stamp == _stamp && stamp.IsSettled) return read(_read);
            var bytes = File.ReadAllBytes(_path);
            if (_read is null || !bytes.AsSpan().SequenceEqual(_bytes)) (_bytes, _read) = (bytes, Parse(bytes));
            _stamp = stamp; // of before it was read: what changed meanwhile is read next time
            return read(_read);
        }
    }

    /// <summary>Changes the state and keeps it; nothing is kept when the change throws.</summary>
    public void Change(Action<SimulationState> change)
    {
        lock (_lock)
        {
            var state = Parse(File.ReadAllBytes(_path));
            change(state);
            Replace(_path, JsonSerializer.SerializeToUtf8Bytes(state, Options));
        }
    }

    /// <summary>When a file was written last, and how long it is.</summary>
    private sealed record Stamp(DateTime WrittenAt, long Length)
    {
        /// <summary>Two changes in a row may leave the same time behind: one that is younger than that proves nothing.</summary>
        private static readonly TimeSpan Coarsest = TimeSpan.FromSeconds(2);

        public bool IsSettled => DateTime.UtcNow - WrittenAt > Coarsest;

        public static Stamp Of(string path)
        {
            var file = new FileInfo(path);
            return new Stamp(file.LastWriteTimeUtc, file.Length);
        }
    }

    private static SimulationState Parse(byte[] bytes) =>
        JsonSerializer.Deserialize<SimulationState>(bytes, Options)
            ?? throw new InvalidDataException("The simulation's file is empty.");

    private static void Replace(string path, byte[] bytes)
    {
        var next = path + ".next";
        using (var file = new FileStream(next, FileMode.Create, FileAccess.Write))
        {
            file.Write(bytes);
            file.Flush(flushToDisk: true);
        }

        File.Move(next, path, overwrite: true);
    }
}

/// <summary>Names and SIDs of the simulation's principals.</summary>
internal static class SimulationNames
{
    /// <summary>What an entry that is a role begins with.</summary>
    public const string RolePrefix = "role:";

    /// <summary>The SID of a logon name, of <c>DOMAIN\name</c>, or of a SID in text.</summary>
    public static Sid SidOf(this SimulationState state, string name)
    {
        if (Sid.TryParse(name, out var sid)) return sid;
        var principal = state.Find(name) ?? throw new InvalidDataException($"The simulation knows no '{name}'.");
        return Sid.Parse(state.DomainSid).Append(principal.Rid);
    }

    /// <summary>A principal by logon name, with or without the domain; null when there is none.</summary>
    public static SimulationPrincipal? Find(this SimulationState state, string name) =>
        state.Principals.TryGetValue(LogonName.WithoutDomain(name), out var found) ? found : null;

    /// <summary>Whether a branch is there.</summary>
    public static bool HasBranch(this SimulationState state, string dn) =>
        state.Branches.Contains(dn, StringComparer.OrdinalIgnoreCase);

    /// <summary>What the simulation's lists call a SID: the logon name where there is one.</summary>
    public static string NameOf(this SimulationState state, string sid) =>
        Sid.TryParse(sid, out var of) && Sid.Parse(state.DomainSid).Append(of.Rid) == of
            ? state.Principals.FirstOrDefault(p => p.Rid == of.Rid)?.Name ?? sid
            : sid;

    /// <summary>Whether a list names a principal.</summary>
    public static bool Holds(this SimulationState state, IEnumerable<string> names, string name) =>
        state.Find(name) is not null && names.Where(n => !IsRole(n)).Select(state.SidOf).Contains(state.SidOf(name));

    /// <summary>Whether an entry of a list is a role of the same instance or database, written <c>role:name</c>, and no principal.</summary>
    public static bool IsRole(string entry) => entry.StartsWith(RolePrefix, StringComparison.Ordinal);

    /// <summary>Takes a principal off a list.</summary>
    public static void TakeOff(this SimulationState state, List<string> names, string name)
    {
        var sid = state.SidOf(name);
        names.RemoveAll(n => !IsRole(n) && state.SidOf(n) == sid);
    }

    /// <summary>What hosts and instances do when an account is deleted: its entries stay, as a SID that no longer has a name.</summary>
    public static void LeaveSidBehind(this SimulationState state, SimulationPrincipal principal)
    {
        var sid = state.SidOf(principal.Name);
        var lists = state.Hosts.SelectMany(h => h.LocalGroups.Select(g => g.Members).Concat(h.LogonRights.Values))
            .Concat(state.Instances.SelectMany(i =>
                i.Roles.Values.Concat(i.Permissions.Values).Append(i.Logins)
                    .Concat(i.Databases.SelectMany(d => d.Roles.Values.Concat(d.Permissions.Values).Append(d.Users)))));
        foreach (var list in lists)
            for (var i = 0; i < list.Count; i++)
                if (!IsRole(list[i]) && state.SidOf(list[i]) == sid) list[i] = sid.ToString();
    }

    /// <summary>The SIDs of a list.</summary>
    public static IReadOnlyList<Sid> Sids(this SimulationState state, IEnumerable<string> names) =>
        [.. names.Select(state.SidOf)];

    /// <summary>The members of roles as a survey holds them. A member <c>role:name</c> is a role.</summary>
    public static IReadOnlyList<RoleMembers> RoleMembers(
        this SimulationState state, SortedDictionary<string, List<string>> roles) =>
    [
        .. roles.Select(r => new RoleMembers(
            r.Key,
            state.Sids(r.Value.Where(m => !IsRole(m))),
            [.. r.Value.Where(IsRole).Select(m => m[RolePrefix.Length..])])),
    ];
}
