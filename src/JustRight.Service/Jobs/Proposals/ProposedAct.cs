using System.Security.Cryptography;
using System.Text;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Proposals;

/// <summary>Something that is done at once, and that waits for a second person where two must agree.</summary>
/// <param name="Kind">One of <see cref="JobKinds.Acts"/>.</param>
/// <param name="Subject">What it is done to.</param>
/// <param name="Words">What it does, for the one who approves it, a line each.</param>
/// <param name="Content">All that decides what it does, and what it rests on: an approval is for just this.</param>
internal sealed record ProposedAct(JobKind Kind, string Subject, IReadOnlyList<string> Words, params string[] Content)
{
    /// <summary>The hash of what it does.</summary>
    public string Basis { get; } = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(
        string.Join('\0', [Kind.Word(), Subject, .. Content.Select(c => $"{c.Length}:{c}")]))));
}
