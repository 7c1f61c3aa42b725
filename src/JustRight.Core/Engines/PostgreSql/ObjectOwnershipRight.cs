using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>Ownership of something in a database: its owner changes and drops it, and gives rights on it to others.</summary>
public sealed class ObjectOwnershipRight(string instance, string database, PostgreSqlSecurable thing) : InDatabaseRight(
    NeedKind.DatabasePermission, instance, database, $"{Word} on {thing.Words}", Word, thing)
{
    /// <summary>As a sheet asks for it, in the place of a privilege.</summary>
    internal const string Word = "OWNER";

    private const int OfSchema = 45;
    private const int OfOne = 25;

    /// <summary>What is owned.</summary>
    public PostgreSqlSecurable Thing { get; } = thing;

    /// <inheritdoc/>
    public override RightReach Reach => Thing.Class == SecurableClass.Schema
        ? new RightReach(OfSchema, $"the owner of {Thing.Words} makes, gives on and drops what is in it")
        : new RightReach(OfOne, $"the owner of {Thing.Words} changes, gives on and drops it");

    /// <summary>Every privilege comes along.</summary>
    public override bool BringsAlong => true;

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => base.WhyUnread(view) ?? WhyInside(view);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.DatabasePermission, Words, PlaceKind.Database, Place);

    private protected override IReadOnlyList<Right> FindAbove() => [Superuser];

    private protected override IReadOnlyList<Right> FindEntrances() => [Login, Connect];

    private protected override void GiveTo(Giving giving, PostgreSqlCatalog catalog, RoleOfAccount signIn) =>
        giving.LeaveToPerson($"whoever owns {Thing.Words} now, or a superuser, gives it away: ALTER … OWNER TO {signIn.Role}");

    private protected override Taken TakeFrom(string role, Taking taking) =>
        Taken.Not($"only the organization can choose another owner of {Thing.Words}");
}
