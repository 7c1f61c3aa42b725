using System.IO.Compression;
using System.Text.Json;

namespace JustRight.Service.Storage;

/// <summary>What is too large to be kept as text: JSON, packed.</summary>
internal static class PackedJson
{
    /// <summary>Packs a value.</summary>
    public static byte[] Write<T>(T value)
    {
        using var packed = new MemoryStream();
        using (var packer = new BrotliStream(packed, CompressionLevel.Fastest, leaveOpen: true))
            JsonSerializer.Serialize(packer, value, StoredJson.Options);
        return packed.ToArray();
    }

    /// <summary>Reads a value that <see cref="Write"/> packed.</summary>
    public static T Read<T>(byte[] packed)
    {
        using var unpacker = new BrotliStream(new MemoryStream(packed), CompressionMode.Decompress);
        return JsonSerializer.Deserialize<T>(unpacker, StoredJson.Options)!;
    }
}
