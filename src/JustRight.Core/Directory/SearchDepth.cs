namespace JustRight.Core.Directory;

/// <summary>How far below a base a search looks [RFC 4511 4.5.1.2].</summary>
public enum SearchDepth
{
    /// <summary>The base and all below it.</summary>
    Subtree,

    /// <summary>What is directly below the base alone.</summary>
    OneLevel,
}

/// <summary>Words of <see cref="SearchDepth"/>.</summary>
public static class SearchDepthWords
{
    /// <summary>The words of files and pages.</summary>
    public static readonly IReadOnlyList<string> All = ["subtree", "one-level"];

    /// <summary>The word for one.</summary>
    public static string Word(this SearchDepth depth) => All[(int)depth];

    /// <summary>The depth of a word.</summary>
    public static SearchDepth Of(string word) => (SearchDepth)All.ToList().IndexOf(word);
}
