using System.Text.Json.Nodes;

namespace JustRight.Tests.Shared;

/// <summary>A state as a set of lines, so that what differs between two is named.</summary>
public static class JsonLines
{
    /// <summary>Adds a line for each value. What stands in a list is told apart by its name, and has no order.</summary>
    /// <param name="path">Where it stands.</param>
    /// <param name="name">The key of the names of what stands in lists.</param>
    public static void Add(JsonNode? node, string path, string name, HashSet<string> lines)
    {
        switch (node)
        {
            case JsonObject o:
                foreach (var (key, value) in o) Add(value, $"{path}/{key}", name, lines);
                break;
            case JsonArray a:
                foreach (var item in a) Add(item, $"{path}/{(item as JsonObject)?[name]}", name, lines);
                break;
            default:
                lines.Add($"{path} = {node?.ToJsonString() ?? "null"}");
                break;
        }
    }
}
