using System.DirectoryServices.Protocols;
using System.Text;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;

namespace JustRight.Connectors.Tests.Differential;

/// <summary>What may decide a trial: the object's descriptor, and its parent's.</summary>
public sealed record TrialPlace(SceneObject Target, SecurityDescriptor Own, SecurityDescriptor Parent);

/// <summary>How a question is judged: by Just Right, or by the model of the test controller.</summary>
public delegate bool Judge(SecurityDescriptor descriptor, AccessQuestion question, SceneObject target);

/// <summary>One thing an account may try on an object: what Just Right predicts of it, and the attempt itself.</summary>
/// <param name="Predict">From the two descriptors, by a way of judging.</param>
/// <param name="Attempt">Whether the controller let it happen.</param>
public sealed record Trial(
    string Name, Func<TrialPlace, Judge, bool> Predict, Func<AccessScene, RawClient, SceneObject, bool> Attempt);

/// <summary>Everything that is tried.</summary>
public static class Trials
{
    private static int _next;

    public static IEnumerable<Trial> For(SceneObject target, DirectorySchema schema, SceneObject account)
    {
        var @class = schema.Class(target.Class)!;
        foreach (var attribute in target.Class switch
        {
            "organizationalUnit" => new[] { "description", "displayName", "telephoneNumber" },
            "group" => ["description", "info", "displayName"],
            _ => ["description", "telephoneNumber", "info", "wWWHomePage"],
        })
        {
            yield return Write(schema.Attribute(attribute)!, @class);
            yield return Read(schema.Attribute(attribute)!, @class);
        }

        yield return new Trial(
            "write the access list", (p, judge) => judge(p.Own, AccessQuestion.Simple(AccessRights.WriteDacl), p.Target),
            WriteDacl);
        yield return new Trial(
            "delete",
            (p, judge) =>
                judge(p.Own, AccessQuestion.Simple(AccessRights.Delete), p.Target)
                    || judge(
                        p.Parent, AccessQuestion.DeleteChild(@class),
                        p.Target with { Sid = default, Class = "organizationalUnit" }),
            Delete);
        if (target.Class == "group")
        {
            var member = schema.Attribute("member")!;
            yield return new Trial(
                "add another member", (p, judge) => judge(p.Own, AccessQuestion.Write(member, @class), p.Target),
                (s, c, o) => Member(s, c, o, s.Accounts.First(a => a.Object != account).Object));
            yield return new Trial(
                "add oneself",
                (p, judge) =>
                    judge(p.Own, AccessQuestion.Write(member, @class), p.Target)
                        || judge(p.Own, AccessQuestion.Validated(member.Id), p.Target),
                (s, c, o) => Member(s, c, o, account));
        }

        if (target.Class is "user" or "computer")
        {
            var reset = schema.Rights.Single(r => r.Name == "User-Force-Change-Password");
            yield return new Trial("reset the password", (p, judge) => judge(
                p.Own, AccessQuestion.Extended(reset), p.Target), (s, c, o) =>
                c.TryReplace(
                    o.Dn, "unicodePwd",
                    Encoding.Unicode.GetBytes($"\"Aa1-{Interlocked.Increment(ref _next)}-xyzzyplugh\"")) == ResultCode.Success);
        }

        if (target.Class == "user") yield return Read(schema.Attribute("msPKIAccountCredentials")!, @class);
        if (target.Class == "organizationalUnit")
            foreach (var child in new[] { "contact", "group", "organizationalUnit" })
                yield return new Trial(
                    $"create a {child}", (p, judge) => judge(p.Own, AccessQuestion.CreateChild(schema.Class(child)!), p.Target),
                    (s, c, o) => Create(s, c, o, child));
    }

    private static Trial Write(SchemaAttribute attribute, SchemaClass @class) => new(
        $"write {attribute.Name}",
        (p, judge) => judge(p.Own, AccessQuestion.Write(attribute, @class), p.Target),
        (_, client, target) => client.TryReplace(target.Dn, attribute.Name, "tried") == ResultCode.Success);

    /// <summary>An attribute shows only on an object that shows: list contents on the parent [MS-ADTS 5.1.3.3.6].</summary>
    private static Trial Read(SchemaAttribute attribute, SchemaClass @class) => new(
        $"read {attribute.Name}",
        (p, judge) =>
            judge(
                p.Parent, AccessQuestion.Simple(AccessRights.ListContents),
                p.Target with { Sid = default, Class = "organizationalUnit" })
                && judge(p.Own, AccessQuestion.Read(attribute, @class), p.Target),
        (scene, client, target) =>
        {
            if (scene.Admin.Entry(target.Dn, attribute.Name)!.Attributes[attribute.Name] is null)
                scene.Admin.TryReplace(
                    target.Dn, attribute.Name,
                    attribute.Name == "msPKIAccountCredentials" ? $"B:4:0102:{AccessScene.Root}" : "set")
                    .ShouldBe(ResultCode.Success);
            return client.Entry(target.Dn, attribute.Name)?.Attributes[attribute.Name] is not null;
        });

    private static bool WriteDacl(AccessScene scene, RawClient client, SceneObject target) =>
        client.TryReplace(
            target.Dn, "nTSecurityDescriptor",
            DescriptorBytes.Write(
                scene.Admin.Descriptor(target.Dn) with { Owner = default, Group = default })) == ResultCode.Success;

    private static bool Member(AccessScene scene, RawClient client, SceneObject group, SceneObject member)
    {
        scene.Admin.Try(new ModifyRequest(group.Dn, DirectoryAttributeOperation.Delete, "member", member.Dn));
        var done = client.Try(
            new ModifyRequest(group.Dn, DirectoryAttributeOperation.Add, "member", member.Dn)) == ResultCode.Success;
        if (done) scene.Admin.Do(new ModifyRequest(group.Dn, DirectoryAttributeOperation.Delete, "member", member.Dn));
        return done;
    }

    private static bool Create(AccessScene scene, RawClient client, SceneObject parent, string @class)
    {
        var dn = $"{(@class == "organizationalUnit" ? "OU" : "CN")}=try{Interlocked.Increment(ref _next)},{parent.Dn}";
        if (client.Try(new AddRequest(dn, new DirectoryAttribute("objectClass", @class))) != ResultCode.Success) return false;
        scene.Admin.Do(new DeleteRequest(dn));
        return true;
    }

    /// <summary>Tries on a child of the same class and with the same descriptor, so that the scene stays whole.</summary>
    private static bool Delete(AccessScene scene, RawClient client, SceneObject target)
    {
        var parent = target.Dn[(target.Dn.IndexOf(',', StringComparison.Ordinal) + 1)..];
        var number = Interlocked.Increment(ref _next);
        var twin = scene.Add($"{(target.Class == "organizationalUnit" ? "OU" : "CN")}=twin{number},{parent}", target.Class);
        scene.Objects.Remove(twin);
        var own = scene.Admin.Descriptor(target.Dn);
        scene.Admin.Protect(twin.Dn, own with { Dacl = Acl.Of([.. own.Entries.Where(a => own.IsProtected || !a.IsInherited)]) });
        var done = client.Try(new DeleteRequest(twin.Dn)) == ResultCode.Success;
        if (!done) scene.Admin.Do(new DeleteRequest(twin.Dn));
        return done;
    }
}
