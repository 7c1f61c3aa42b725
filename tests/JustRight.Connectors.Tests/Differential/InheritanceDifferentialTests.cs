using System.Globalization;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;

namespace JustRight.Connectors.Tests.Differential;

/// <summary>What every descendant's access list becomes when a parent's changes: predicted before, read after, compared byte for byte.</summary>
public sealed class InheritanceDifferentialTests(Controller controller, ITestOutputHelper output)
{
    private const int AskedInAnyCase = 200;

    [Fact]
    public async Task Every_descendant_gets_the_list_that_was_predicted()
    {
        var random = new Random(
            int.Parse(Environment.GetEnvironmentVariable("JUSTRIGHT_SEED") ?? "7", CultureInfo.InvariantCulture));
        var wanted = int.Parse(Environment.GetEnvironmentVariable("JUSTRIGHT_CHANGES") ?? "200", CultureInfo.InvariantCulture);
        using var scene = await AccessScene.BuildAsync(controller, "heir", TestContext.Current.CancellationToken);
        var lists = new RandomDescriptors(random, scene);
        var branches = scene.Objects.Where(o => o.Class == "organizationalUnit").ToList();
        // lists of their own, some protected
        foreach (var other in scene.Objects.Where(_ => random.Next(3) == 0))
            scene.Admin.Protect(other.Dn, lists.Next(inheritable: true));
        var wrong = new List<string>();
        int compared = 0, changed = 0;
        for (var i = 0; i < Math.Max(wanted, AskedInAnyCase); i++)
        {
            var parent = branches[random.Next(branches.Count)];
            var before = Read(scene);
            scene.Admin.Protect(parent.Dn, lists.Next(inheritable: true));
            var after = Read(scene);
            var predicted = new Dictionary<string, SecurityDescriptor> { [parent.Dn] = after[parent.Dn] };
            foreach (var child in scene.Objects.Where(o =>
                o != parent && o.Dn.EndsWith("," + parent.Dn, StringComparison.Ordinal)))
            {
                var above = predicted[child.Dn[(child.Dn.IndexOf(',', StringComparison.Ordinal) + 1)..]];
                var expected = Inheritance.Apply(before[child.Dn], above.Dacl, [scene.Schema.Class(child.Class)!.Id]);
                predicted[child.Dn] = expected;
                compared++;
                if (!Bytes(expected).SequenceEqual(Bytes(before[child.Dn]))) changed++;
                if (Bytes(expected).SequenceEqual(Bytes(after[child.Dn]))) continue;
                wrong.Add($"{child.Class}\n before {Sddl.Write(before[child.Dn])}\n parent {Sddl.Write(above)}\n expected {Sddl.Write(expected)}\n was      {Sddl.Write(after[child.Dn])}");
                predicted[child.Dn] = after[child.Dn]; // one difference is told once, not again for all below
            }
        }

        output.WriteLine($"{compared} lists compared, {changed} of them changed");
        wrong.ShouldBeEmpty();
        changed.ShouldBeGreaterThan(compared / 4);
    }

    private static Dictionary<string, SecurityDescriptor> Read(AccessScene scene) =>
        scene.Admin.Search(
            scene.Objects[0].Dn, System.DirectoryServices.Protocols.SearchScope.Subtree, "(objectClass=*)",
            "nTSecurityDescriptor")
            .ToDictionary(e => e.DistinguishedName, e => DescriptorBytes.Read((byte[])e.Attributes["nTSecurityDescriptor"][0]));

    /// <summary>The list alone: without what the controller notes for itself in the control bits, and with the revision its entries ask for.</summary>
    private static byte[] Bytes(SecurityDescriptor descriptor) =>
        DescriptorBytes.Write(
            new SecurityDescriptor(
                descriptor.Control & (DescriptorControl.DaclPresent | DescriptorControl.DaclProtected), default, default,
                descriptor.Dacl is null ? null : Acl.Of(descriptor.Entries), null));
}
