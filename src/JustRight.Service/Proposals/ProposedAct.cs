using System.Security.Cryptography;
using System.Text;

namespace JustRight.Service.Proposals;

/// <summary>Something that is done at once, and that waits for a second person where two must agree.</summary>
/// <param name="Kind">One of <see cref="ActKinds"/>.</param>
/// <param name="Subject">What it is done to.</param>
/// <param name="Words">What it does, for the one who approves it, a line each.</param>
/// <param name="Content">All that decides what it does, and what it rests on: an approval is for just this.</param>
internal sealed record ProposedAct(string Kind, string Subject, IReadOnlyList<string> Words, params string[] Content)
{
    /// <summary>The hash of what it does.</summary>
    public string Basis { get; } = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(
        string.Join('\0', [Kind, Subject, .. Content.Select(c => $"{c.Length}:{c}")]))));
}

/// <summary>The kinds of acts. They are stored: a kind keeps its name.</summary>
internal static class ActKinds
{
    /// <summary>Replaces a sheet, an estate or an install, or adds an estate over systems of another.</summary>
    public const string Document = "document";

    /// <summary>Sets the stage of an install.</summary>
    public const string Stage = "stage";

    /// <summary>Accepts a deviation.</summary>
    public const string Exception = "exception";

    /// <summary>Allows a secret for a use.</summary>
    public const string Allowance = "allowance";

    /// <summary>Hands a password over, shown or sealed.</summary>
    public const string HandOver = "hand-over";

    /// <summary>Makes a backup with what is secret in it.</summary>
    public const string Backup = "backup";

    /// <summary>All of them.</summary>
    public static readonly string[] All = [Document, Stage, Exception, Allowance, HandOver, Backup];
}
