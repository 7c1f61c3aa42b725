using System.Globalization;
using System.Text;

namespace JustRight.Tests.Shared;

/// <summary>
/// Broken sheets, each with the code of its fault and where it stands. The service's and the client's tests send the same ones.
/// </summary>
public static class BrokenSheets
{
    private const string Sound = """
        sheet: 1
        product: sample
        release: "1.0"
        title: Sample
        source: Sample guide, chapter 1
        places:
          web: { kind: host, count: 1 or more }
          store: { kind: database, engine: sqlserver, name: Sample }
        facts:
          apart: store.host not in web
        groups:
          ops: { purpose: Runs it, members: [poller] }
        accounts:
          poller:
            purpose: Polls
            needs:
              - { local-group: Administrators, on: web, through: ops }
              - { logon: service, on: web, given-by: setup }
              - { database-role: db_owner, in: store, when: apart }

        """;

    /// <summary>Every broken sheet.</summary>
    public static IReadOnlyList<BrokenSheet> All { get; } =
    [
        Slip("an unknown key", "purpose: Polls", "purpos: Polls", "unknown-key", 15, 5),
        Slip("a mark of writing direction", "purpose: Polls", "purpose: Po\u202Ells", "hidden-character", 15, 16),
        Slip("the same as an escape", "purpose: Polls", "purpose: \"Po\\u202Ells\"", "hidden-character", 15, 14),
        Slip("a control character", "purpose: Polls", "purpose: \"Po\\u001B[2Jlls\"", "hidden-character", 15, 14),
        Slip("a wrong type", "members: [poller]", "members: { poller: yes }", "wrong-type", 12, 37),
        Slip("a wrong value", "count: 1 or more", "count: some", "wrong-value", 7, 29),
        Slip("secrets where no database is",
            "kind: host, count: 1 or more", "kind: host, holds-secrets: yes", "needless-key", 7, 37),
        Slip("operations of what is no identity",
            "logon: service, on: web", "logon: service, on: web, lets: [x]", "needless-key", 18, 42),
        Slip("an unknown place", "on: web, through", "on: wob, through", "unknown-place", 17, 9),
        Slip("a place of the wrong kind", "in: store", "in: web", "wrong-place", 19, 9),
        Slip("an unknown group", "through: ops", "through: opps", "unknown-group", 17, 9),
        Slip("a group in a ring",
            "  ops: { purpose: Runs it, members: [poller] }",
            "  ops: { purpose: Runs it, members: [more] }\n  more: { purpose: More, members: [ops] }", "cyclic-group", 12, 3),
        Slip("an unknown member", "members: [poller]", "members: [puller]", "unknown-member", 12, 3),
        Slip("a condition on an undeclared fact", "when: apart", "when: remote", "undeclared-name", 19, 53),
        Slip("a condition that cannot be read", "when: apart", "when: apart and", "condition", 19, 62),
        Slip("a condition of the wrong type", "store.host not in web", "store.release", "condition-type", 10, 10),
        Slip("a duplicate account",
            "accounts:\n  poller:\n", "accounts:\n  poller: { purpose: First }\n  poller:\n", "duplicate-key", 15, 3),
        Slip("a missing key", "title: Sample\n", "", "missing-key", 1, 1),
        Slip("two rights in one entry",
            "{ logon: service, on: web,", "{ logon: service, privilege: SeTcbPrivilege, on: web,", "two-kinds", 18, 27),
        Slip("no right in an entry",
            "{ logon: service, on: web, given-by: setup }", "{ on: web, given-by: setup }", "missing-key", 18, 9),
        Slip("an unknown log-on type", "logon: service", "logon: servise", "wrong-value", 18, 18),
        Slip("a permission that cannot be one",
            "{ logon: service, on: web, given-by: setup }", "{ instance-permission: \"VIEW; DROP\", at: store }",
            "unknown-value", 18, 9),
        Slip("a permission on what is no schema",
            "{ logon: service, on: web, given-by: setup }", "{ database-permission: SELECT on TABLE::x, in: store }",
            "unknown-value", 18, 9),
        Slip("a qualifier of another kind",
            "{ logon: service, on: web,", "{ logon: service, at: web,", "wrong-qualifier", 18, 27),
        Slip("a later version", "sheet: 1", "sheet: 2", "wrong-value", 1, 8),
        Slip("a text torn by a comma", "{ purpose: Runs it,", "{ purpose: Runs it, and well,", "unknown-key", 12, 28),
        Slip("tab indentation", "    purpose: Polls", "\tpurpose: Polls", "tab", 15, 1),
        Slip("not YAML", "facts:\n", "facts: [\n", "yaml", 10, 8),
        Slip("an alias", "purpose: Polls", "purpose: *elsewhere", "alias", 15, 14),
        Slip("a tag", "purpose: Polls", "purpose: !!binary aGk=", "tag", 15, 14),
        Slip("two documents", "sheet: 1\n", "sheet: 1\n---\n", "documents", 2, 1),
        new("a list in place of a sheet", "- sheet: 1\n"u8.ToArray(), "wrong-type", 1, 1),
        new("nothing", [], "empty", 1, 1),
        new("too large", Encoding.UTF8.GetBytes(Sound + "# " + new string('x', 5_000_000) + "\n"), "too-large", 1, 1),
        new("an alias bomb", Encoding.UTF8.GetBytes(Bomb()), "alias", 1, 4),
        new("not UTF-8", [.. Encoding.UTF8.GetBytes("sheet: 1\ntitle: "), 0xC3, 0x28, (byte)'\n'], "not-utf8", 2, 8),
        new(
            "too deep", Encoding.UTF8.GetBytes("sheet: " + new string('[', 200) + new string(']', 200) + "\n"),
            "too-deep", 1, 31),
    ];

    /// <summary>The sheet the others are broken from.</summary>
    public static byte[] SoundSheet => Encoding.UTF8.GetBytes(Sound);

    private static BrokenSheet Slip(string name, string part, string instead, string code, int line, int column)
    {
        if (!Sound.Contains(part, StringComparison.Ordinal))
            throw new InvalidOperationException($"'{part}' is not in the sound sheet.");
        var broken = Sound.Replace(part, instead, StringComparison.Ordinal);
        return new BrokenSheet(name, Encoding.UTF8.GetBytes(broken), code, line, column);
    }

    private static string Bomb()
    {
        var text = new StringBuilder("a: &a [x, x, x, x, x, x, x, x, x, x]\n");
        for (var c = 'b'; c <= 'j'; c++)
        {
            var tenOfTheLast = string.Join(", ", Enumerable.Repeat($"*{(char)(c - 1)}", 10));
            text.Append(CultureInfo.InvariantCulture, $"{c}: &{c} [{tenOfTheLast}]\n");
        }

        return text.ToString();
    }
}

/// <summary>A broken sheet with the code and position of its fault.</summary>
public sealed record BrokenSheet(string Name, byte[] Bytes, string Code, int Line, int Column)
{
    /// <inheritdoc/>
    public override string ToString() => Name;
}
