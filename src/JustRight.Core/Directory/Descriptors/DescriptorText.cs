namespace JustRight.Core.Directory.Descriptors;

/// <summary>
/// Descriptors as text for keeping: SDDL, or bytes in base 64 where an entry has no word in SDDL. Nothing is lost either way.
/// </summary>
public static class DescriptorText
{
    private const string Bytes = "bytes:";

    /// <summary>Writes a descriptor.</summary>
    public static string Write(SecurityDescriptor descriptor) =>
        Sddl.Write(descriptor) ?? Bytes + Convert.ToBase64String(DescriptorBytes.Write(descriptor));

    /// <summary>
    /// Reads what <see cref="Write"/> wrote; throws <see cref="DescriptorFormatException"/> when it is malformed.
    /// </summary>
    public static SecurityDescriptor Read(string text)
    {
        if (!text.StartsWith(Bytes, StringComparison.Ordinal)) return Sddl.Read(text);
        try
        {
            return DescriptorBytes.Read(Convert.FromBase64String(text[Bytes.Length..]));
        }
        catch (FormatException e) when (e is not DescriptorFormatException)
        {
            throw new DescriptorFormatException("this is no base 64", Bytes.Length);
        }
    }
}
