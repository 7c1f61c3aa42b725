using JustRight.Core.Drafts;
using JustRight.Core.Sheets;

namespace JustRight.Core.Tests.Drafts;

/// <summary>Rights in the words of guides.</summary>
public sealed class RightWordsTests
{
    [Theory]
    [InlineData("Log on as a service", NeedKind.Logon, "service")]
    [InlineData("the \"Log on as a service\" right", NeedKind.Logon, "service")]
    [InlineData("User right: log on as a batch job.", NeedKind.Logon, "batch")]
    [InlineData("SeServiceLogonRight", NeedKind.Logon, "service")]
    [InlineData("Lock pages in memory (SeLockMemoryPrivilege)", NeedKind.Privilege, "SeLockMemoryPrivilege")]
    [InlineData("Perform volume maintenance tasks", NeedKind.Privilege, "SeManageVolumePrivilege")]
    [InlineData("local administrator", NeedKind.LocalGroup, "Administrators")]
    [InlineData("Member of the local Administrators group", NeedKind.LocalGroup, "Administrators")]
    [InlineData("Must be a member of Event Log Readers", NeedKind.LocalGroup, "Event Log Readers")]
    [InlineData("Domain Users", NeedKind.DomainGroup, "Domain Users")]
    [InlineData("member of domain admins", NeedKind.DomainGroup, "Domain Admins")]
    [InlineData("sysadmin", NeedKind.InstanceRole, "sysadmin")]
    [InlineData("sysadmin fixed server role", NeedKind.InstanceRole, "sysadmin")]
    [InlineData("SQL Server dbcreator role", NeedKind.InstanceRole, "dbcreator")]
    [InlineData("db_owner", NeedKind.DatabaseRole, "db_owner")]
    [InlineData("the DB_DATAREADER database role", NeedKind.DatabaseRole, "db_datareader")]
    [InlineData("SQLAgentOperatorRole", NeedKind.DatabaseRole, "SQLAgentOperatorRole")]
    [InlineData("view server state", NeedKind.InstancePermission, "VIEW SERVER STATE")]
    [InlineData("EXECUTE permission", NeedKind.DatabasePermission, "EXECUTE")]
    [InlineData("dbo", NeedKind.DatabaseOwner, "yes")]
    [InlineData("Reset passwords of users", NeedKind.Directory, "reset password")]
    [InlineData("Unlock accounts", NeedKind.Directory, "unlock")]
    [InlineData("Join computers to the domain", NeedKind.Directory, "join computers")]
    [InlineData("Create computer objects", NeedKind.Directory, "create")]
    [InlineData("Modify group membership", NeedKind.Directory, "change membership")]
    [InlineData("Deny log on locally", NeedKind.KeptOut, "interactive")]
    [InlineData("SeDenyServiceLogonRight", NeedKind.KeptOut, "service")]
    public void What_guides_write_is_understood(string text, NeedKind kind, string value)
    {
        var right = RightWords.Read(text).ShouldNotBeNull(text);
        (right.Kind, right.Value).ShouldBe((kind, value));
    }

    [Theory]
    [InlineData("")]
    [InlineData("Read")]
    [InlineData("Full access")]
    [InlineData("Control")]
    [InlineData("SePotatoPrivilege")]
    [InlineData("Modify on D:\\Data")]
    [InlineData("administrator of the product")]
    [InlineData("member of app-whey-operators")]
    public void What_is_not_known_is_not_guessed(string text) => RightWords.Read(text).ShouldBeNull();

    [Fact]
    public void Attributes_come_with_their_class()
    {
        var right = RightWords.Read("Write the attributes mail, roomNumber and info of users")!;
        right.ShouldSatisfyAllConditions(
            r => r.Value.ShouldBe("write attributes"), r => r.Attributes.ShouldBe(["mail", "roomNumber", "info"]),
            r => r.Of.ShouldBe("user"));
    }

    [Theory]
    [InlineData("db_datareader, db_datawriter", "db_datareader|db_datawriter")]
    [InlineData("db_datareader; db_owner", "db_datareader|db_owner")]
    [InlineData("Log on as a service\ndb_owner", "service|db_owner")]
    [InlineData("• sysadmin\n• something else, db_owner", "sysadmin|?")]
    public void A_cell_may_hold_several(string cell, string values) =>
        string.Join('|', RightWords.All(cell).Select(r => r.Right?.Value ?? "?")).ShouldBe(values);

    [Fact]
    public void Every_name_of_a_user_right_is_one_that_the_language_takes()
    {
        string[] names = ["log on as a service", "debug programs", "create a pagefile", "bypass traverse checking"];
        foreach (var right in names.Select(n => RightWords.Read(n)!))
            NeedKinds.ByKind[right.Kind].Values!.ShouldContain(right.Value);
    }
}
