using System.Collections.Frozen;
using JustRight.Core.Changes;

namespace JustRight.Formats.Changes;

/// <summary>
/// What each kind of change is called in stored JSON. These names are kept: a class may be renamed, its name here may not, since
/// journals of years are read by it.
/// </summary>
internal static class ChangeNames
{
    /// <summary>The name of each kind.</summary>
    public static FrozenDictionary<Type, string> All { get; } = new Dictionary<Type, string>
    {
        [typeof(AddAccessRule)] = "add-access-rule",
        [typeof(AddDatabaseRoleMember)] = "add-database-role-member",
        [typeof(AddInstanceRoleMember)] = "add-instance-role-member",
        [typeof(AddLocalGroupMember)] = "add-local-group-member",
        [typeof(AddMember)] = "add-member",
        [typeof(ChangeDatabaseOwner)] = "change-database-owner",
        [typeof(ChangePolicyList)] = "change-policy-list",
        [typeof(CreateAccount)] = "create-account",
        [typeof(CreateBranch)] = "create-branch",
        [typeof(CreateDatabaseUser)] = "create-database-user",
        [typeof(CreateGroup)] = "create-group",
        [typeof(CreateLogin)] = "create-login",
        [typeof(DeleteAccount)] = "delete-account",
        [typeof(DeleteBranch)] = "delete-branch",
        [typeof(DeleteGroup)] = "delete-group",
        [typeof(DescribeAccount)] = "describe-account",
        [typeof(DisableAccount)] = "disable-account",
        [typeof(DoTask)] = "do-task",
        [typeof(DropDatabaseUser)] = "drop-database-user",
        [typeof(DropLogin)] = "drop-login",
        [typeof(EnableAccount)] = "enable-account",
        [typeof(GiveServicePassword)] = "give-service-password",
        [typeof(GrantDatabasePermission)] = "grant-database-permission",
        [typeof(GrantInstancePermission)] = "grant-instance-permission",
        [typeof(GrantLogonRight)] = "grant-logon-right",
        [typeof(AddServiceName)] = "add-service-name",
        [typeof(RemoveServiceName)] = "remove-service-name",
        [typeof(AllowDelegation)] = "allow-delegation",
        [typeof(EndDelegation)] = "end-delegation",
        [typeof(TrustForDelegation)] = "trust-for-delegation",
        [typeof(EndDelegationTrust)] = "end-delegation-trust",
        [typeof(DenyLogon)] = "deny-logon",
        [typeof(LiftLogonDenial)] = "lift-logon-denial",
        [typeof(GrantPrivilege)] = "grant-privilege",
        [typeof(MapToProductRole)] = "map-to-product-role",
        [typeof(RefreshPolicy)] = "refresh-policy",
        [typeof(RemoveAccessRule)] = "remove-access-rule",
        [typeof(RemoveDatabaseRoleMember)] = "remove-database-role-member",
        [typeof(RemoveInstanceRoleMember)] = "remove-instance-role-member",
        [typeof(RemoveLocalGroupMember)] = "remove-local-group-member",
        [typeof(RemoveMember)] = "remove-member",
        [typeof(RestartService)] = "restart-service",
        [typeof(RevokeDatabasePermission)] = "revoke-database-permission",
        [typeof(RevokeInstancePermission)] = "revoke-instance-permission",
        [typeof(RevokeLogonRight)] = "revoke-logon-right",
        [typeof(RevokePrivilege)] = "revoke-privilege",
        [typeof(SetPassword)] = "set-password",
        [typeof(SetServiceAccount)] = "set-service-account",
        [typeof(SetServiceOrder)] = "set-service-order",
        [typeof(SetServiceStart)] = "set-service-start",
        [typeof(SwitchInheritance)] = "switch-inheritance",
        [typeof(UnmapFromProductRole)] = "unmap-from-product-role",
    }.ToFrozenDictionary();
}
