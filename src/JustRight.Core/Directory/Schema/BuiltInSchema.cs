namespace JustRight.Core.Directory.Schema;

/// <summary>
/// The schema used only where there is none to read: in the simulation, and for checking sheets before a survey.
/// </summary>
public static class BuiltInSchema
{
    /// <summary>The schema.</summary>
    public static DirectorySchema Schema { get; } = Parse(BuiltInSchemaData.Text);

    private static DirectorySchema Parse(string text)
    {
        var lines = text.Split('\n').Select(l => l.Split(' ')).ToList();
        var attributes = lines.Where(l => l[0] == "a").Select(l => new SchemaAttribute(
            l[1], Guid.Parse(l[2]), l[3] == "-"
                ? null
                : Guid.Parse(l[3]), l[4].Contains('c', StringComparison.Ordinal), l[4].Contains('s', StringComparison.Ordinal)));
        var classes = new List<SchemaClass>();
        foreach (var line in lines)
        {
            if (line[0] == "c")
                classes.Add(new SchemaClass(
                    line[1], Guid.Parse(line[2]), line[3], Names(line[5]), [],
                    int.Parse(line[4], System.Globalization.CultureInfo.InvariantCulture)));
            else if (line[0] == "d") classes[^1] = classes[^1] with { DefaultDescriptor = line[1] };
            else if (line[0] == "m") classes[^1] = classes[^1] with { Attributes = [.. classes[^1].Attributes, .. line.Skip(1)] };
        }

        var rights = lines.Where(l => l[0] == "r").Select(l => new ControlRight(
            l[1], string.Join(' ', l.Skip(5)), Guid.Parse(l[2]), Kinds(l[3]), [.. Names(l[4]).Select(n =>
                classes.First(c => c.Name == n).Id)]));
        return new DirectorySchema("built-in", [.. attributes], classes, [.. rights]);
    }

    private static string[] Names(string word) => word == "-" ? [] : word.Split(',');

    private static ControlRightKinds Kinds(string word) =>
        word.Aggregate(ControlRightKinds.None, (kinds, letter) => kinds | letter switch
        {
            'x' => ControlRightKinds.ExtendedRight,
            'v' => ControlRightKinds.ValidatedWrite,
            _ => ControlRightKinds.PropertySet,
        });
}
