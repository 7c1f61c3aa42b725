using System.IO.Compression;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace JustRight.Service.Data.Storage;

/// <summary>What is too large to be kept as text: JSON, packed.</summary>
internal static class PackedJson
{
    /// <summary>What is kept for years: the smallest before packing takes many times as long.</summary>
    private static readonly BrotliCompressionOptions Small = new() { Quality = 5 };

    private static readonly JsonSerializerOptions WithoutNulls =
        new(StoredJson.Options) { DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull };

    /// <summary>Packs a value.</summary>
    public static byte[] Write<T>(T value)
    {
        using var packed = new MemoryStream();
        using (var packer = new BrotliStream(packed, Small, leaveOpen: true))
            JsonSerializer.Serialize(packer, value, WithoutNulls);
        return packed.ToArray();
    }

    /// <summary>Reads a value that <see cref="Write"/> packed.</summary>
    public static T Read<T>(byte[] packed)
    {
        using var unpacker = new BrotliStream(new MemoryStream(packed), CompressionMode.Decompress);
        return JsonSerializer.Deserialize<T>(unpacker, StoredJson.Options)!;
    }

    /// <summary>Packs JSON that is written already.</summary>
    public static byte[] Pack(string json)
    {
        using var packed = new MemoryStream();
        using (var packer = new BrotliStream(packed, Small, leaveOpen: true))
            packer.Write(Encoding.UTF8.GetBytes(json));
        return packed.ToArray();
    }

    /// <summary>The JSON that <see cref="Pack"/> packed.</summary>
    public static string Unpack(byte[] packed)
    {
        using var reader = new StreamReader(new BrotliStream(new MemoryStream(packed), CompressionMode.Decompress),
            Encoding.UTF8);
        return reader.ReadToEnd();
    }
}
