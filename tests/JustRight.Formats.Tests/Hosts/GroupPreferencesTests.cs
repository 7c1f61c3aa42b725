using System.Text;
using JustRight.Core.Surveys;
using JustRight.Formats.Hosts;

namespace JustRight.Formats.Tests.Hosts;

/// <summary>Items for local groups among a policy's preferences.</summary>
public sealed class GroupPreferencesTests
{
    [Fact]
    public void Items_are_read_in_their_order()
    {
        var rules = GroupPreferences.Read(Encoding.UTF8.GetBytes("""
            <?xml version="1.0" encoding="utf-8"?>
            <Groups clsid="{3125E937-EB16-4b4c-9934-544FC6D24D26}">
              <Group clsid="{6D4A79E4-529C-4481-ABD0-F5BD7EA93BA7}" name="Administrators (built-in)" image="2">
                <Properties action="U" newName="" description="" deleteAllUsers="1" deleteAllGroups="0" removeAccounts="0"
                    groupSid="S-1-5-32-544" groupName="Administrators (built-in)">
                  <Members>
                    <Member name="FENNMOOR\svc-line" action="ADD" sid="S-1-5-21-1-2-3-1001"/>
                    <Member name="FENNMOOR\svc-old" action="REMOVE" sid=""/>
                  </Members>
                </Properties>
              </Group>
              <Group name="Line Writers"><Properties action="R" deleteAllGroups="1" groupName="Line Writers"/>
                <Filters><FilterComputer bool="AND" not="0" type="NETBIOS" name="FM-LINE08"/></Filters></Group>
              <Group name="Users"><Properties groupName="Users (Built-In)"/><Filters/></Group>
              <Group name="Gone" disabled="1"><Properties action="D" groupName="Gone"/></Group>
              <Group name="Going"><Properties action="D" groupName="Going"/></Group>
              <Group name="New"><Properties action="c" groupName="New"/></Group>
              <User name="somebody"><Properties action="U" userName="somebody"/></User>
            </Groups>
            """));
        rules.Select(Words).ShouldBe(
            [
                @"Update *S-1-5-32-544: +*S-1-5-21-1-2-3-1001 -FENNMOOR\svc-old users",
                "Replace Line Writers: + - groups some hosts", "Update Users: + -", "Delete Going: + -", "Create New: + -",
            ]);
        rules.ShouldAllBe(r => r.Act != PolicyGroupAct.Members && r.Act != PolicyGroupAct.MemberOf);
    }

    [Theory]
    [InlineData("<Groups><Group", "this is no XML that can be read")]
    [InlineData("<Files/>", "this is no file of groups but of Files")]
    [InlineData("<Groups><Group name='x'/></Groups>", "the item x has no properties")]
    [InlineData("<Groups><Group><Properties action='X'/></Group></Groups>", "an item does X, which is not known here")]
    [InlineData("<!DOCTYPE a [<!ENTITY b SYSTEM 'file:///etc/hostname'>]><Groups>&b;</Groups>", "this is no XML that can be")]
    public void What_is_no_such_file_is_told(string text, string why) =>
        Should.Throw<InvalidDataException>(() => GroupPreferences.Read(Encoding.UTF8.GetBytes(text)))
            .Message.ShouldStartWith(why);

    private static string Words(PolicyGroupRule r) =>
        $"{r.Act} {r.Name}: +{string.Join('|', r.Entries)} -{string.Join('|', r.Removed)}"
        + $"{(r.ClearsUsers ? " users" : "")}{(r.ClearsGroups ? " groups" : "")}{(r.IsTargeted ? " some hosts" : "")}";
}
