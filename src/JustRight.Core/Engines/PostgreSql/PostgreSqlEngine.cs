using JustRight.Core.Changes;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>Database instances of the PostgreSQL family.</summary>
public sealed class PostgreSqlEngine : Engine
{
    private static readonly string[] Attributes = [.. RoleAttributeNames.All.Keys, .. ParameterPrivilege.All];
    private static readonly string[] Privileges = [.. RoleAttributeNames.Privileges.Keys, "TEMP", ObjectOwnershipRight.Word];

    /// <inheritdoc/>
    public override string Family => "postgresql";

    /// <inheritdoc/>
    public override IEnumerable<RightTail> Given(Survey survey, MembershipGraph graph, AccessTree? tree) =>
        survey.Instances.Where(i => i.PostgreSql is not null)
            .SelectMany(i => new PostgreSqlGrants(i, i.PostgreSql!).Given(survey.Directory.Principals));

    /// <inheritdoc/>
    public override Right? RightOf(Need need, AskedAt at)
    {
        if (at.Spot is not { Instance: { } instance } spot || spot.Engine != Family) return null;
        var database = need.Database ?? spot.Database;
        return need.Kind switch
        {
            NeedKind.InstanceRole => new RoleMembershipRight(instance, need.Value),
            NeedKind.InstancePermission when ParameterPrivilege.TryParse(need.Value) is { } asked =>
                new ParameterRight(instance, asked),
            NeedKind.InstancePermission => RoleAttributeNames.All.ContainsKey(need.Value.ToUpperInvariant())
                ? new RoleAttributeRight(instance, need.Value) : null,
            NeedKind.DatabasePermission => DatabasePrivilegeRight.Parse(instance, database!, need.Value),
            NeedKind.DatabaseOwner => new DatabaseOwnershipRight(instance, database!),
            NeedKind.DatabaseRole => null, // the family has roles of the instance alone
            NeedKind.Logon or NeedKind.KeptOut or NeedKind.Privilege or NeedKind.LocalGroup or NeedKind.Service => null,
            NeedKind.DomainGroup or NeedKind.Directory or NeedKind.Spn or NeedKind.Delegation => null,
            NeedKind.ProductRole or NeedKind.Task => null,
        };
    }

    /// <inheritdoc/>
    public override IReadOnlyCollection<string>? NamesFor(NeedKind kind, string? on) => kind switch
    {
        NeedKind.InstancePermission when on is null => Attributes,
        NeedKind.InstancePermission => ParameterPrivilege.NamesOn(on),
        NeedKind.DatabasePermission when on is null => Privileges,
        NeedKind.DatabasePermission => PostgreSqlSecurable.TryParse(on) is null
            ? []
            : [.. Privileges, ObjectOwnershipRight.Word],
        NeedKind.Logon or NeedKind.KeptOut or NeedKind.Privilege or NeedKind.LocalGroup => null,
        NeedKind.Service or NeedKind.DomainGroup => null,
        NeedKind.InstanceRole or NeedKind.DatabaseRole or NeedKind.DatabaseOwner => null,
        NeedKind.Directory or NeedKind.Spn or NeedKind.Delegation or NeedKind.ProductRole or NeedKind.Task => null,
    };

    /// <inheritdoc/>
    public override string? SaidAs(NeedKind kind) => kind == NeedKind.DatabaseRole
        ? "instance-role: PostgreSQL has roles of the instance, which hold in all its databases" : null;

    /// <inheritdoc/>
    public override IReadOnlyList<Loss>? LossesBy(Change change, SurveyView view)
    {
        if (change is not InstanceChange at || view.Instance(at.Instance)?.PostgreSql is not { } catalog) return null;
        var role = at is ChangeDatabaseOwner { Former: { } former } ? former : at.Principal;
        var rights = TakenBy(at).ToList();
        if (rights.Count == 0) return [];
        var signIns = RoleAuthority.Of(catalog).SignIns;
        return
        [
            .. view.Survey.Directory.Principals
                .Where(p => p.Kind != PrincipalKind.Group)
                .Where(p => signIns.RolesOf(new DomainName(p.Name, RolesOfHolder.RealmOf(p.Dn))).Contains(role))
                .SelectMany(p => rights, (p, r) => Loss.OfEntry(view.Graph.IndexOf(p.Sid), r)),
        ];
    }

    /// <inheritdoc/>
    public override IReadOnlyList<string>? RulersOf(InstanceSnapshot instance, SurveyView view)
    {
        const RoleAttributes ruling = RoleAttributes.Superuser | RoleAttributes.Login;
        if (instance.PostgreSql is not { } catalog) return null;
        var rulers = catalog.Roles.Where(r => r.Attributes.HasFlag(ruling)).Select(r => r.Name);
        return [.. rulers.Order(StringComparer.OrdinalIgnoreCase)];
    }

    /// <summary>What a change takes from the role, or from the owner of before.</summary>
    private static IEnumerable<Right> TakenBy(InstanceChange change) => change switch
    {
        RemoveInstanceRoleMember c => [new RoleMembershipRight(c.Instance, c.Role)],
        RevokeInstancePermission c =>
            [ParameterPrivilege.TryParse(c.Permission) is { } asked ? new ParameterRight(c.Instance, asked)
                : new RoleAttributeRight(c.Instance, c.Permission)],
        RevokeDatabasePermission c => [new DatabasePrivilegeRight(c.Instance, c.Database, c.Permission, c.On)],
        ChangeDatabaseOwner c => [new DatabaseOwnershipRight(c.Instance, c.Database)],
        DropLogin c => [new RoleAttributeRight(c.Instance, RoleAttributeNames.Login)],
        CreateLogin or CreateDatabaseUser or AddInstanceRoleMember or AddDatabaseRoleMember => [],
        GrantInstancePermission or GrantDatabasePermission => [],
        RemoveDatabaseRoleMember or DropDatabaseUser => [], // the family has neither
        _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
    };
}
