using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Bench;

/// <summary>People in branches; what stands on the branches flows down, some do not inherit, some people have entries of their own; an account in 400 groups, some of which the lists name.</summary>
internal sealed class SyntheticTree(int objects, int lists)
{
    public const string Root = "DC=synth,DC=example";
    private const int Groups = 400;
    private const int ListsInEach = 5;
    private static readonly Guid[] Attributes = [.. new[] { "mail", "roomNumber", "wWWHomePage", "telephoneNumber", "info" }.Select(
        a => BuiltInSchema.Schema.Attribute(a)!.Id)];

    public static Sid DomainSid { get; } = Sid.Parse("S-1-5-21-1-2-3");

    public static AccessToken Token() =>
        new(DomainSid.Append(999_999), Enumerable.Range(0, Groups).Select(g => DomainSid.Append((uint)(10_000 + (g * 7)))));

    public AccessSnapshot Snapshot()
    {
        var random = new Random(5);
        var branches = Math.Max(1, lists / ListsInEach);
        var above = Entries(random, 20);
        var descriptors = new List<SecurityDescriptor> { Descriptor(above) };
        var all = new List<DirectoryObject>(objects + branches + 1) { new(Root, "domainDNS", DomainSid, 0, false) };
        for (var branch = 0; branch < branches; branch++)
        {
            // Some branches do not inherit; all have entries of their own, and so have some of the people in them.
            var own = Entries(random, 8);
            var stops = branch % 25 == 0;
            var entries = stops ? own : [.. own, .. above.Select(Inherited)];
            all.Add(new DirectoryObject($"OU=b{branch},{Root}", "organizationalUnit", default, descriptors.Count, false));
            descriptors.Add(Descriptor(entries, stops));
            var first = descriptors.Count;
            for (var list = 1; list < ListsInEach; list++)
                descriptors.Add(Descriptor([.. Entries(random, list), .. entries.Select(Inherited)]));
            for (var i = 0; i < objects / branches; i++)
                all.Add(new DirectoryObject(
                    $"CN=person {i},OU=b{branch},{Root}", "user", DomainSid.Append((uint)(2_000_000 + all.Count)),
                    first + random.Next(ListsInEach - 1), false));
        }

        return new AccessSnapshot(BuiltInSchema.Schema, descriptors, all, [Root], []);
    }

    private static List<Ace> Entries(Random random, int count) =>
    [
        .. Enumerable.Range(0, count)
            .Select(_ => new Ace(
                random.Next(40) == 0 ? AceType.DenyObject : AceType.AllowObject, AceFlags.ContainerInherit,
                AccessRights.WriteProperty, DomainSid.Append((uint)(10_000 + random.Next(9_000))))
        {
            ObjectType = Attributes[random.Next(Attributes.Length)],
        }),
    ];

    private static Ace Inherited(Ace ace) => ace with { Flags = ace.Flags | AceFlags.Inherited };

    private static SecurityDescriptor Descriptor(List<Ace> entries, bool isProtected = false) => new SecurityDescriptor(
        DescriptorControl.DaclPresent | DescriptorControl.DaclAutoInherited, DomainSid.Append(512), DomainSid.Append(512),
        Acl.Of(entries), null).WithProtection(isProtected);
}
