using System.Text;
using System.Text.Json;
using JustRight.Core.Directory;
using JustRight.Core.SignIn.Objects;

namespace JustRight.SignIn.Tests;

/// <summary>Letters are folded as another program's table B.2 of RFC 3454 has it: every character of Unicode 3.2.</summary>
public sealed class CaseFoldingTests
{
    [Fact]
    public async Task Each_letter_is_folded_as_the_table_has_it()
    {
        const string script = """
            import json, stringprep, unicodedata
            old = unicodedata.ucd_3_2_0
            print(json.dumps([[c, stringprep.map_table_b2(c)] for c in map(chr, range(0x80, 0x110000))
                if not 0xD800 <= ord(c) < 0xE000 and old.category(c) not in ('Cn', 'Co')
                and old.normalize('NFKC', c) == unicodedata.normalize('NFKC', c)]))
            """;
        var end = await Programs.RunAsync("/usr/bin/python3", ["-c", script]);
        end.Code.ShouldBe(0, end.Error);
        var table = JsonSerializer.Deserialize<string[][]>(end.Output)!;
        table.Length.ShouldBeGreaterThan(90_000);
        var different = new List<string>();
        foreach (var pair in table)
        {
            var folded = DistinguishedName.Escape(pair[1].Normalize(NormalizationForm.FormKC));
            var theirs = ComparedName.KeyOf($"cn=x{folded}x");
            if (ComparedName.KeyOf($"cn=x{pair[0]}x") != theirs)
                different.Add($"U+{char.ConvertToUtf32(pair[0], 0):X4} {pair[0]}");
        }

        different.ShouldBeEmpty($"{different.Count} of {table.Length}");
    }

    [Theory]
    [InlineData("cn=Große Straße", "cn=GROSSE STRASSE")]
    [InlineData("cn=ΟΔΟΣ", "cn=οδος")]
    [InlineData("cn=İzmir", "cn=i\u0307zmir")]
    [InlineData("cn=\u1f80", "CN=\u1f88")]
    public void Spellings_of_one_name_are_one(string one, string other) =>
        ComparedName.KeyOf(one).ShouldBe(ComparedName.KeyOf(other));
}
