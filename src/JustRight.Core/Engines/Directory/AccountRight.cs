using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;

namespace JustRight.Core.Engines.Directory;

/// <summary>A need of the account itself, judged like a right.</summary>
public sealed class AccountRight(string domain, AccountAspect aspect)
    : Right(null, domain, WordsOf(aspect), $"account:{aspect}")
{
    /// <summary>Which need.</summary>
    public override AccountAspect? OfAccount { get; } = aspect;

    /// <inheritdoc/>
    public override JudgedBy JudgedBy => JudgedBy.Account;

    /// <inheritdoc/>
    public override RightReach Reach => RightReach.NotKnown(Words);

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => null;

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <inheritdoc/>
    public override Gate GateFor(SurveyView view, Holdings holdings) => Gate.Open;

    /// <summary>Made with the account's object, and no right to be given.</summary>
    public override void Give(Giving giving) => throw new InvalidOperationException($"No need asks for {this}.");

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => Taken.NoStep;

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) => Drafted.NoWords;

    private protected override IReadOnlyList<Right> FindAbove() => [];

    private protected override IReadOnlyList<Right> FindEntrances() => [];

    private static string WordsOf(AccountAspect aspect) => aspect switch
    {
        AccountAspect.Exists => "exists",
        AccountAspect.Branch => "in its branch",
        AccountAspect.PasswordExpiry => "password expiry",
        AccountAspect.PasswordChange => "own password change",
        AccountAspect.Description => "description",
        AccountAspect.Usable => "usable",
    };
}
