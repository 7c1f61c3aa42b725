using Microsoft.AspNetCore.Authorization;

namespace JustRight.Service.Access;

/// <summary>The roles, each of which may do what the ones before may.</summary>
public static class Roles
{
    /// <summary>Sees everything but secrets.</summary>
    public const string Reader = "reader";

    /// <summary>Adds sheets, estates and installs, and takes surveys.</summary>
    public const string Planner = "planner";

    /// <summary>Carries out changes of the estate and hands passwords over.</summary>
    public const string Granter = "granter";

    /// <summary>Gives access to others and keeps secrets.</summary>
    public const string Owner = "owner";

    /// <summary>In order of power.</summary>
    public static IReadOnlyList<string> All { get; } = [Reader, Planner, Granter, Owner];

    /// <summary>One policy a role: that role or a stronger one.</summary>
    public static void AddPolicies(AuthorizationOptions options)
    {
        for (var i = 0; i < All.Count; i++)
        {
            var enough = All.Skip(i).ToArray();
            options.AddPolicy(All[i], policy => policy.RequireRole(enough));
        }
    }
}
