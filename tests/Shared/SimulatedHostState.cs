using System.Text.Json.Nodes;

namespace JustRight.Tests.Shared;

/// <summary>The first state of a PRETEND Windows host: a member server of the demo's domain with two services.</summary>
public static class SimulatedHostState
{
    /// <summary>The domain's SID.</summary>
    public const string Domain = "S-1-5-21-1004336348-1177238915-682003330";

    /// <summary>The state of a host.</summary>
    public static JsonObject New(string name) => JsonNode.Parse($$"""
        {
          "name": "{{name}}", "domain": "fennmoor.example", "domain-short": "FENNMOOR", "role": "member",
          "fails": [], "rehearse": "", "made": [],
          "principals": [
            { "name": "svc-line", "sid": "{{Domain}}-2001", "groups": [], "password": "right password" },
            { "name": "app-line-senders", "sid": "{{Domain}}-2002", "groups": [] },
            { "name": "Domain Admins", "sid": "{{Domain}}-512", "groups": [] }
          ],
          "groups": [
            { "name": "Administrators", "sid": "S-1-5-32-544", "members": ["{{Domain}}-512"] },
            { "name": "Users", "sid": "S-1-5-32-545", "members": ["S-1-5-11"] },
            { "name": "Line Writers", "sid": "S-1-5-21-7-7-7-1001", "members": [] }
          ],
          "rights": {
            "SeServiceLogonRight": ["*S-1-5-80-0"],
            "SeBatchLogonRight": ["*S-1-5-32-544", "*S-1-5-32-551", "*S-1-5-32-559"],
            "SeAssignPrimaryTokenPrivilege": ["*S-1-5-19", "*S-1-5-20"]
          },
          "drivers": ["Tcpip"], "policies": [], "winners": [], "tasks": [], "windows": "/there-is-no-web-server",
          "services": [
            { "name": "LineHub", "title": "Line hub", "account": "NT AUTHORITY\\NetworkService", "start": "automatic", "pid": 400,
              "owner": "NT AUTHORITY\\NETWORK SERVICE", "since": "2026-11-20T04:00:30Z",
              "waits": ["Tcpip"], "typed": "" },
            { "name": "LineSender", "title": "Tanker clerk", "account": "NT AUTHORITY\\NetworkService",
              "start": "automatic-delayed", "pid": 404,
              "owner": "NT AUTHORITY\\NETWORK SERVICE", "since": "2026-11-20T04:02:30Z",
              "waits": ["LineHub"], "typed": "" }
          ]
        }
        """)!.AsObject();
}
