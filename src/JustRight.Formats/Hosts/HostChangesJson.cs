using System.Text.Json;
using System.Text.Json.Nodes;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Hosts;
using JustRight.Core.Worklists;

namespace JustRight.Formats.Hosts;

/// <summary>
/// Changes of one host as the working script takes them: JSON in plain ASCII, each change with all it needs to be understood
/// alone. Names travel as data from here to the command that uses them, and are never part of a script.
/// </summary>
public static class HostChangesJson
{
    /// <summary>Writes a list of changes.</summary>
    /// <param name="for">What they are for, in words.</param>
    /// <param name="sidOf">The SID of a principal where it is known: a host then need not look it up.</param>
    public static string Write(string host, string @for, IEnumerable<HostChange> changes, Func<string, Sid?> sidOf) =>
        List(host, @for, changes.Select(c => Step(c, sidOf))).ToJsonString(new JsonSerializerOptions { WriteIndented = true });

    /// <summary>
    /// Writes one change on one line, with the password it needs. What comes out is a secret when a password went in.
    /// </summary>
    public static string WriteLine(HostChange change, Func<string, Sid?> sidOf, string? password)
    {
        var step = Step(change, sidOf);
        if (password is not null) step["password"] = password;
        return List(change.Host, "", [step]).ToJsonString();
    }

    private static JsonObject List(string host, string @for, IEnumerable<JsonObject> steps) =>
        new() { ["host-changes"] = 1, ["host"] = host, ["for"] = @for, ["steps"] = new JsonArray([.. steps]) };

    private static JsonObject Step(HostChange change, Func<string, Sid?> sidOf)
    {
        var step = new JsonObject { ["id"] = change.Key, ["words"] = change.Words, ["change"] = Word(change) };
        switch (change)
        {
            case AddLocalGroupMember c:
                Group(c.Group);
                Principal(step, c.Principal);
                break;
            case RemoveLocalGroupMember c:
                Group(c.Group);
                Principal(step, c.Principal);
                break;
            case GrantLogonRight c:
                step["right"] = LogonRights.Constant(c.Type);
                Principal(step, c.Principal);
                break;
            case RevokeLogonRight c:
                step["right"] = LogonRights.Constant(c.Type);
                Principal(step, c.Principal);
                break;
            case DenyLogon c:
                step["right"] = LogonRights.DenyConstant(c.Type);
                Principal(step, c.Principal);
                break;
            case LiftLogonDenial c:
                step["right"] = LogonRights.DenyConstant(c.Type);
                Principal(step, c.Principal);
                break;
            case GrantPrivilege c:
                step["right"] = c.Constant;
                Principal(step, c.Principal);
                break;
            case RevokePrivilege c:
                step["right"] = c.Constant;
                Principal(step, c.Principal);
                break;
            case SetServiceAccount c:
                (step["service"], step["account"], step["needs-password"]) = (c.Service, c.Account, c.NeedsPassword);
                break;
            case GiveServicePassword c:
                (step["service"], step["account"], step["needs-password"]) = (c.Service, c.Account, true);
                break;
            case SetServiceStart c:
                (step["service"], step["start"]) = (c.Service, ServiceWords.Of(c.Start));
                break;
            case SetServiceOrder c:
                (step["service"], step["waits-for"]) = (
                    c.Service, new JsonArray([.. c.WaitsFor.Select(w => JsonValue.Create(w))]));
                break;
            case RestartService c:
                (step["service"], step["account"], step["dependents"]) = (
                    c.Service, c.Account, new JsonArray([.. c.Dependents.Select(d => JsonValue.Create(d))]));
                if (c.Anew) step["anew"] = true;
                if (c is { Anew: true, RanSince: { } since }) step["ran-since-ms"] = since.ToUnixTimeMilliseconds();
                break;
            case RefreshPolicy c:
                step["expect"] = new JsonArray([.. c.Expect.Select(e =>
                {
                    var expected = new JsonObject { ["right"] = e.Constant, ["holds"] = e.Holds };
                    Principal(expected, e.Principal);
                    return expected;
                })]);
                break;
            default:
                throw new InvalidOperationException($"Unknown change {change.GetType().Name}.");
        }

        return step;

        void Group(string name)
        {
            step["group"] = name;
            // on a host of another language it has another name
            if (BuiltInGroups.Find(name) is { } sid) step["group-sid"] = sid.ToString();
        }

        void Principal(JsonObject into, string name)
        {
            into["principal"] = name;
            if (sidOf(name) is { } sid) into["principal-sid"] = sid.ToString();
        }
    }

    private static string Word(HostChange change) => change switch
    {
        AddLocalGroupMember => "add-local-group-member",
        RemoveLocalGroupMember => "remove-local-group-member",
        GrantLogonRight or GrantPrivilege or DenyLogon => "grant-right",
        RevokeLogonRight or RevokePrivilege or LiftLogonDenial => "revoke-right",
        SetServiceAccount => "set-service-account",
        GiveServicePassword => "give-service-password",
        SetServiceStart => "set-service-start",
        SetServiceOrder => "set-service-order",
        RestartService => "restart-service",
        RefreshPolicy => "refresh-policy",
        _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
    };
}
