using System.Buffers.Binary;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Replicas;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>Reads one object as a controller has it, with what it keeps for replication.</summary>
internal static class LdapReplicas
{
    private const string MetaData = "replPropertyMetaData";
    private const int HeadLength = 16;
    private const int StampLength = 48;
    private static readonly DateTimeOffset Epoch = new(1601, 1, 1, 0, 0, 0, TimeSpan.Zero);

    /// <summary>Attributes that each controller keeps for itself, or computes [MS-ADA1, MS-ADA3: not replicated].</summary>
    private static readonly HashSet<string> Own = new(StringComparer.OrdinalIgnoreCase)
    {
        MetaData, "uSNChanged", "uSNCreated", "whenChanged", "dSCorePropagationData", "lastLogon", "lastLogoff", "logonCount",
        "badPwdCount", "badPasswordTime", "modifiedCount", "serverState",
    };

    /// <summary>Reads the object.</summary>
    public static ReplicaObject Read(LdapSession session, string dn)
    {
        var attributes = new SortedDictionary<string, IReadOnlyList<string>>(StringComparer.OrdinalIgnoreCase);
        if (session.Read(dn, "*", MetaData, AccessSurvey.Descriptor) is not { } entry)
            return new ReplicaObject(session.Controller, null, false, attributes, []);
        foreach (var name in entry.AttributeNames)
        {
            if (Own.Contains(name)) continue;
            var values = entry.AllBytes(name);
            attributes[name] = name.Equals(AccessSurvey.Descriptor, StringComparison.OrdinalIgnoreCase)
                ? [DescriptorText.Write(DescriptorBytes.Read(values[0]))]
                : [.. values.Select(Convert.ToHexStringLower).Order(StringComparer.Ordinal)];
        }

        return new ReplicaObject(session.Controller, null, true, attributes, [.. Stamps(entry.Bytes(MetaData))]);
    }

    /// <summary>
    /// The versions of the attributes [MS-DRSR 4.1.10.2.22, PROPERTY_META_DATA_EXT_VECTOR as kept: version 1, 48 bytes each].
    /// </summary>
    private static IEnumerable<ReplicaStamp> Stamps(byte[]? bytes)
    {
        if (bytes is null || bytes.Length < HeadLength || BinaryPrimitives.ReadUInt32LittleEndian(bytes) != 1) yield break;
        var count = Math.Min(
            BinaryPrimitives.ReadUInt32LittleEndian(bytes.AsSpan(8)), (uint)((bytes.Length - HeadLength) / StampLength));
        for (var i = 0; i < count; i++)
        {
            var at = HeadLength + (i * StampLength);
            var seconds = BinaryPrimitives.ReadInt64LittleEndian(bytes.AsSpan(at + 8));
            yield return new ReplicaStamp(
                BinaryPrimitives.ReadUInt32LittleEndian(bytes.AsSpan(at)), BinaryPrimitives.ReadUInt32LittleEndian(
                    bytes.AsSpan(at + 4)), Epoch.AddSeconds(
                    Math.Clamp(seconds, 0, 250_000_000_000)));
        }
    }
}
