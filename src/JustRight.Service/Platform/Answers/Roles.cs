using System.Security.Claims;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace JustRight.Service.Platform.Answers;

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

    /// <summary>
    /// Says in the description of the API which role a call needs: <c>x-justright-role</c>, with <c>anybody</c> for none.
    /// </summary>
    public static Task Describe(OpenApiOperation operation, OpenApiOperationTransformerContext context, CancellationToken cancel)
    {
        var role = context.Description.ActionDescriptor.EndpointMetadata.OfType<IAuthorizeData>().Select(a => a.Policy)
            .FirstOrDefault(p => p is not null);
        operation.AddExtension("x-justright-role", new JsonNodeExtension(role ?? "anybody"));
        return Task.CompletedTask;
    }

    /// <summary>Why somebody may not do what they asked for: the role they have, and the one that is needed.</summary>
    public static string Refusal(HttpContext http)
    {
        var needed = http.GetEndpoint()?.Metadata.GetOrderedMetadata<IAuthorizeData>().Select(a => a.Policy)
            .FirstOrDefault(p => p is not null);
        var has = http.User.FindFirstValue(ClaimTypes.Role);
        return needed is null || has is null
            ? "Your role does not allow this."
            : $"This needs the role {needed}; yours is {has}.";
    }

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
