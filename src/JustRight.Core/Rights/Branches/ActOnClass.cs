using JustRight.Core.Directory.Schema;
using JustRight.Core.Sheets;

namespace JustRight.Core.Rights.Branches;

/// <summary>What can be done to objects of a class at all, whoever does it.</summary>
public static class ActOnClass
{
    /// <summary>Why an act cannot be done to objects of its class, or null when it can.</summary>
    /// <param name="right">The act with its class; both are in the schema.</param>
    public static string? WhyNot(BranchAsked right, DirectorySchema schema) =>
        right.Attributes.FirstOrDefault(a => schema.Attribute(a) is not null && !schema.Holds(right.Of, a)) is { } attribute
            ? $"objects of class {right.Of} do not hold the attribute '{schema.Attribute(attribute)!.Name}'"
            : WhyNot(right.Act, right.Of, schema);

    /// <summary>Why an act that names no attributes cannot be done to objects of a class, or null when it can.</summary>
    public static string? WhyNot(DirectoryAct act, string of, DirectorySchema schema) => act switch
    {
        DirectoryAct.ChangeMembership => schema.Holds(of, "member") ? null : $"objects of class {of} have no members",
        DirectoryAct.ResetPassword or DirectoryAct.Unlock =>
            schema.IsA(of, "user") ? null : $"objects of class {of} have no password",
        DirectoryAct.JoinComputers => schema.IsA(of, "computer") ? null : $"objects of class {of} are no computers",
        DirectoryAct.WriteAttributes or DirectoryAct.ReadAttributes or DirectoryAct.Create or DirectoryAct.Delete
            or DirectoryAct.Move or DirectoryAct.FullControl => null,
    };
}
