namespace JustRight.Lab.Tests;

/// <summary>The lab's file: begun from what ships, kept whole, changed by one at a time.</summary>
public sealed class LabFileTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-labfile-").FullName;

    private string Kept => Path.Combine(_folder, "data", "lab.json");

    private static string Shipped => Path.Combine(DemoLab.DemoData, "lab", "fennmoor.json");

    public void Dispose() => Directory.Delete(_folder, true);

    [Fact]
    public void It_begins_with_what_ships_and_keeps_what_was_changed()
    {
        LabFile.Open(Kept, Shipped).Change(s => s.Branches.Add("OU=New,DC=fennmoor,DC=example"));
        LabFile.Open(Kept, Shipped).Read(s => s.Branches).ShouldContain("OU=New,DC=fennmoor,DC=example");
        File.ReadAllText(Shipped).ShouldNotContain("OU=New");
    }

    [Fact]
    public void A_change_that_throws_keeps_nothing()
    {
        var lab = LabFile.Open(Kept, Shipped);
        var before = File.ReadAllText(Kept);
        Should.Throw<InvalidOperationException>(() => lab.Change(s =>
        {
            s.Branches.Clear();
            throw new InvalidOperationException("in the middle");
        }));
        File.ReadAllText(Kept).ShouldBe(before);
    }

    [Fact]
    public void Many_changes_at_once_are_all_kept()
    {
        var lab = LabFile.Open(Kept, Shipped);
        Parallel.For(0, 20, i => lab.Change(s => s.Branches.Add($"OU=B{i},DC=fennmoor,DC=example")));
        lab.Read(s => s.Branches.Count(b => b.StartsWith("OU=B", StringComparison.Ordinal))).ShouldBe(20);
    }

    [Fact]
    public void Without_a_first_state_it_says_which_file_is_missing() =>
        Should.Throw<FileNotFoundException>(() => LabFile.Open(Kept, Path.Combine(_folder, "none.json"))).FileName.ShouldEndWith("none.json");

    [Fact]
    public void The_pretend_estate_knows_every_name_it_uses()
    {
        var lab = LabFile.Open(Kept, Shipped);
        lab.Read(s =>
        {
            var names = s.Principals.SelectMany(p => p.Members)
                .Concat(s.Hosts.SelectMany(h => h.LocalGroups.SelectMany(g => g.Members).Concat(h.LogonRights.Values.SelectMany(v => v))))
                .Concat(s.Instances.SelectMany(i => i.Logins.Concat(i.Databases.SelectMany(d => d.Users))));
            return names.Where(n => !n.StartsWith("S-1-", StringComparison.Ordinal) && s.Principals.All(p => p.Name != n)).ToList();
        }).ShouldBeEmpty();
    }
}
