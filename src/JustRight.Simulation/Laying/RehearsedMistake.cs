namespace JustRight.Simulation.Laying;

/// <summary>A mistake that a rehearsal can hold on purpose, to be found.</summary>
public enum RehearsedMistake
{
    /// <summary>A branch that inherits nothing, where an account of an install needs a right over all below.</summary>
    BlockedInheritance,

    /// <summary>A policy that at its next refresh takes back a right of a host that an install gives.</summary>
    PolicyTakesRightBack,

    /// <summary>An account of an earlier try, still in the local administrators of a host.</summary>
    Leftover,

    /// <summary>A service that runs as the account of another duty.</summary>
    SharedAccount,
}

/// <summary>What mistakes are called.</summary>
public static class RehearsedMistakes
{
    private static readonly Dictionary<RehearsedMistake, string> Words = new()
    {
        [RehearsedMistake.BlockedInheritance] = "blocked-inheritance",
        [RehearsedMistake.PolicyTakesRightBack] = "policy-takes-right-back",
        [RehearsedMistake.Leftover] = "leftover",
        [RehearsedMistake.SharedAccount] = "shared-account",
    };

    /// <summary>All words.</summary>
    public static IReadOnlyList<string> All { get; } = [.. Words.Values];

    /// <summary>The word of a mistake.</summary>
    public static string Word(this RehearsedMistake mistake) => Words[mistake];

    /// <summary>The mistake of a word, or null.</summary>
    public static RehearsedMistake? Find(string word) =>
        Words.Where(w => w.Value == word).Select(w => (RehearsedMistake?)w.Key).FirstOrDefault();
}

/// <summary>A mistake has no place in the installs that are to be rehearsed.</summary>
public sealed class MistakeException(RehearsedMistake mistake, string why) : Exception($"{mistake.Word()}: {why}")
{
    /// <summary>The mistake.</summary>
    public RehearsedMistake Mistake => mistake;
}
