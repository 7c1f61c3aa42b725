using System.Text.Json;

namespace JustRight.Formats.Hosts;

/// <summary>What came of one change on a host, as the working script says.</summary>
/// <param name="Number">Its place in the list, from 1.</param>
/// <param name="Id">The change's key.</param>
/// <param name="Result"><c>already</c>, <c>would</c>, <c>made</c> or <c>failed</c>.</param>
/// <param name="Before">What was seen before it.</param>
/// <param name="After">What was seen after it; the reason, where it failed.</param>
public sealed record HostRecord(int Number, string Id, string Result, string Before, string After)
{
    /// <summary>Reads the lines of a record; lines that are none, such as what a log-on script prints, are passed over.</summary>
    public static IReadOnlyList<HostRecord> Read(string output)
    {
        var records = new List<HostRecord>();
        foreach (var line in output.Split('\n').Select(l => l.Trim()).Where(l => l.StartsWith('{')))
        {
            try
            {
                using var json = JsonDocument.Parse(line);
                var root = json.RootElement;
                records.Add(new HostRecord(
                    root.GetProperty("step").GetInt32(), Text("id"), Text("result"), Text("before"), Text("after")));

                string Text(string name) => root.GetProperty(name).GetString() ?? "";
            }
            catch (Exception e) when (e is JsonException or KeyNotFoundException or InvalidOperationException)
            {
                // A line cut off in the middle: what it would have said is not known, and is read from the host again.
            }
        }

        return records;
    }
}
