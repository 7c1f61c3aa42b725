namespace JustRight.Core.Directory.Descriptors;

/// <summary>Why a descriptor could not be read. The only exception its readers throw.</summary>
/// <param name="position">The byte or character where reading stopped.</param>
public sealed class DescriptorFormatException(string message, int position) : FormatException($"{message} (at {position})")
{
    /// <summary>The byte or character where reading stopped, from 0.</summary>
    public int Position { get; } = position;
}
