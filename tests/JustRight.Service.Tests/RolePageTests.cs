using System.Globalization;
using System.Text;
using System.Text.Json;

namespace JustRight.Service.Tests;

/// <summary>
/// What each role may do stands on one page, made from the description of the API, which the roles are tested against.
/// <c>JUSTRIGHT_WRITE_API=yes</c> writes it anew.
/// </summary>
public sealed class RolePageTests
{
    private const string Mark = "<!-- made from the description of the API -->\n";
    private static readonly string Page = Path.Combine(Checkout.Top, "docs", "roles.md");

    private static readonly (string Role, string Head)[] Roles =
    [
        ("anybody", "Anybody, without signing in"), ("reader", "A reader"), ("planner", "A planner, beside that"),
        ("granter", "A granter, beside that"), ("owner", "An owner, beside that"),
    ];

    [Fact]
    public async Task The_page_says_what_each_role_may_do()
    {
        using var description = JsonDocument.Parse(await File.ReadAllTextAsync(
            Path.Combine(Checkout.Top, "docs", "api", "openapi.json"), TestContext.Current.CancellationToken));
        var page = await File.ReadAllTextAsync(Page, TestContext.Current.CancellationToken);
        page.ShouldContain(Mark);
        var made = page[..(page.IndexOf(Mark, StringComparison.Ordinal) + Mark.Length)] + Tables(description.RootElement);
        if (Environment.GetEnvironmentVariable("JUSTRIGHT_WRITE_API") == "yes")
            await File.WriteAllTextAsync(Page, made, TestContext.Current.CancellationToken);
        (await File.ReadAllTextAsync(Page, TestContext.Current.CancellationToken)).ShouldBe(made);
    }

    private static string Tables(JsonElement root)
    {
        var calls =
            (from path in root.GetProperty("paths").EnumerateObject()
             from call in path.Value.EnumerateObject()
             select (
                Role: call.Value.GetProperty("x-justright-role").GetString()!,
                    Call: $"{call.Name.ToUpperInvariant()} {path.Name}",
                Does: call.Value.GetProperty("summary").GetString()!)).ToList();
        calls.ShouldAllBe(c => Roles.Any(r => r.Role == c.Role));
        var text = new StringBuilder();
        foreach (var (role, head) in Roles)
        {
            text.Append(CultureInfo.InvariantCulture, $"\n## {head}\n\n| may | call |\n| --- | --- |\n");
            foreach (var (_, call, does) in calls.Where(c => c.Role == role).OrderBy(c => c.Does, StringComparer.Ordinal))
                text.Append(CultureInfo.InvariantCulture, $"| {does} | `{call}` |\n");
        }

        return text.ToString();
    }
}
