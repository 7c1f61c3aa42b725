using JustRight.Core.Conditions;
using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Faults;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Formats.Shapes;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Sheets;

/// <summary>Reads sheets from YAML.</summary>
public static class SheetReader
{
    /// <summary>The published JSON Schema.</summary>
    public static string JsonSchema() => JsonSchemaWriter.Write(SheetShape.Root, "Just Right sheet, version 1");

    /// <summary>Reads and checks a sheet; null with every fault when it is not sound.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="file">Its name, for positions.</param>
    /// <param name="stored">
    /// Whether it was stored by an earlier release: its words are read on, and what this release does not know is left aside, and
    /// named in the faults beside what was read.
    /// </param>
    public static (Sheet? Sheet, IReadOnlyList<Fault> Faults) Read(ReadOnlySpan<byte> bytes, string file, bool stored = false)
    {
        var faults = new List<Fault>();
        var remarks = new List<Fault>();
        if (DocumentReader.Read(bytes, file, SheetShape.Root, stored ? remarks : null, faults) is not { } root)
            return (null, faults);
        var sheet = new Binder(faults).Bind(root);
        if (faults.Count == 0) faults.AddRange(SheetRules.Check(sheet));
        if (faults.Count == 0 && !stored) faults.AddRange(NewSheetRules.Check(sheet));
        return faults.Count == 0 ? (sheet, remarks) : (null, faults);
    }

    /// <summary>What a task must say, with what is expected of it.</summary>
    private static readonly (string Key, string Words)[] TaskSays =
    [
        ("do", "what is to be done, as a sentence that tells somebody to do it"), ("done-when", "how one sees that it is done"),
    ];

    private sealed class Binder(List<Fault> faults)
    {
        public Sheet Bind(YamlNode.Mapping root) => new(
            root.Text("product"),
            root.Text("release"),
            root.Text("title"),
            root.Text("source"),
            [.. root.Named("places").Select(p => Place(p.Key, p.Value))],
            [.. root.Named("questions").Select(q => Question(q.Key, q.Value))],
            [.. root.Texts("facts").Select(Fact).OfType<Fact>()],
            [.. root.Named("groups").Select(g => Group(g.Key, g.Value))],
            [.. root.Named("accounts").Select(a => Account(a.Key, a.Value))],
            [.. root.Maps("separate").Select(s => new Separation(s.List("accounts"), s.Text("why"), s.At))],
            [.. root.Maps("services").Select(s => new SheetService(
                s.Text("name"), s.Text("on"), s.Text("as"), s.TextOrNull("start") is { } start ? ServiceWords.StartOf(start)
                    : null, s.List("after"), s.TextOr("given-by", "setup") == "us" ? GivenBy.Us
                    : GivenBy.Setup, s.At))],
            root.At)
        {
            SignIn = root["sign-in"] is YamlNode.Mapping signIn ? SignInSection.Read(signIn, faults) : null,
        };

        private Place Place(YamlNode.Scalar key, YamlNode.Mapping map)
        {
            var words = map.TextOr("count", "1").Split(' ');
            var least = int.Parse(words[0], System.Globalization.CultureInfo.InvariantCulture);
            var most = words.Length == 1 ? least
                : words[1] == "or" ? int.MaxValue
                : int.Parse(words[2], System.Globalization.CultureInfo.InvariantCulture);
            if (most < least || most == 0)
                faults.Add(new Fault(
                    "wrong-value", map["count"]!.At, $"places.{key.Text}.count",
                    "A place with a count of 0 has no use.")
                {
                    Found = map.Text("count"),
                    Expected = "a count such as 1, 1 or more, 0 to 3",
                });
            var kind = Enum.Parse<PlaceKind>(map.Text("kind"), true);
            if (kind != PlaceKind.Database && map["holds-secrets"] is { } needless)
                faults.Add(new Fault(
                    "needless-key", needless.At, $"places.{key.Text}.holds-secrets",
                    $"A place of kind '{map.Text("kind")}' does not go with 'holds-secrets'.")
                { Expected = "kind: database" });
            if (kind != PlaceKind.Database && map["made-by"] is { } made)
            {
                faults.Add(new Fault(
                    "needless-key", made.At, $"places.{key.Text}.made-by",
                    $"A place of kind '{map.Text("kind")}' does not go with 'made-by'.")
                {
                    Expected = "kind: database",
                });
            }

            return new Place(key.Text, kind, least, most, map.TextOrNull("engine"), map.TextOrNull("name"), key.At)
            {
                HoldsSecrets = map.YesNo("holds-secrets"),
                MadeBySetup = map.TextOr("made-by", "us") == "setup",
            };
        }

        private static Question Question(YamlNode.Scalar key, YamlNode.Mapping map) => new(
            key.Text,
            map.Text("ask"),
            map.TextOr("answer", "yes-no") switch { "yes-no" => Core.Conditions.ValueType.YesNo, "number" => Core.Conditions.ValueType.Number, _ => Core.Conditions.ValueType.Text },
            map.TextOrNull("default"),
            key.At);

        private Fact? Fact((YamlNode.Scalar Key, YamlNode.Scalar Value) entry) =>
            Condition(entry.Value, $"facts.{entry.Key.Text}") is { } condition
                ? new Fact(entry.Key.Text, condition, entry.Key.At)
                : null;

        private static SheetGroup Group(YamlNode.Scalar key, YamlNode.Mapping map) => new(
            key.Text,
            map.Text("purpose"),
            map.TextOr("scope", "global") switch { "universal" => GroupScope.Universal, "domain-local" => GroupScope.DomainLocal, _ => GroupScope.Global },
            map.List("members"),
            map.YesNo("closed"),
            key.At);

        private SheetAccount Account(YamlNode.Scalar key, YamlNode.Mapping map) => new(
            key.Text,
            map.Text("purpose"),
            WorksAsWords.Read(map.TextOr("works-as", "service")),
            map.YesNo("password-never-expires"),
            [.. map.Maps("needs").Select((n, i) => Clause(n, $"accounts.{key.Text}.needs[{i}]"))],
            [.. map.Maps("forbidden").Select((b, i) => ForbiddenEntry.Read(b, $"accounts.{key.Text}.forbidden[{i}]", faults))],
            key.At)
        {
            PasswordCannotChange = map.YesNo("password-cannot-change"),
            KeptOut = [.. map.List("kept-out").Distinct()],
            KeptOutThrough = map.TextOrNull("kept-out-through"),
            KeptOutAt = map.Entries.FirstOrDefault(e => e.Key.Text is "kept-out" or "kept-out-through").Key?.At ?? key.At,
            Password = map["password"] is YamlNode.Mapping password
                ? PasswordSection.Read(password)
                : SheetPassword.Unsaid(key.At),
        };

        private NeedClause Clause(YamlNode.Mapping map, string field)
        {
            var when = map["when"] is YamlNode.Scalar text ? Condition(text, field + ".when") : null;
            var called = map.TextOrNull("called");
            if (map["any-of"] is not null)
                return new AnyOf(
                    map.TextOrNull("decision"), [.. map.Maps("any-of").Select((n, i) => Clause(n, $"{field}.any-of[{i}]"))], when,
                    called, map.At);
            if (map["all-of"] is not null)
                return new AllOf(
                    [.. map.Maps("all-of").Select((n, i) => Clause(n, $"{field}.all-of[{i}]"))], when, called, map.At);

            var row = NeedKinds.All.First(k => map[k.Key] is not null);
            foreach (var (qualifier, value) in map.Entries.Where(e =>
                NeedKinds.Qualifiers.Contains(e.Key.Text) && e.Key.Text != row.Qualifier))
                faults.Add(new Fault(
                    "wrong-qualifier", qualifier.At, $"{field}.{qualifier.Text}",
                    $"'{row.Key}' does not go with '{qualifier.Text}'.")
                {
                    Expected = row.Qualifier is null ? "no place" : $"'{row.Qualifier}'",
                });
            Belongs(NeedKind.Directory, "a directory need", "of", "attributes");
            if (row.Kind is not (NeedKind.LocalGroup or NeedKind.DomainGroup)) Belongs(NeedKind.LocalGroup, "a group", "made-by");
            Belongs(NeedKind.ProductRole, "an identity inside the product", "lets");
            if (row.Kind != NeedKind.Task)
                Belongs(NeedKind.ProductRole, "an identity inside the product, or a task", "confirmed-for-days");
            Belongs(NeedKind.Task, "a task", "do", "done-when", "team", "waits-for");
            if (row.Qualifier is not null && map[row.Qualifier] is null && !row.PlaceIsOptional)
                faults.Add(new Fault(
                    "missing-key", map.At, $"{field}.{row.Qualifier}",
                    $"'{row.Key}' needs '{row.Qualifier}'.")
                { Expected = $"{row.Qualifier}: a place of this sheet" });
            var place = row.Qualifier is null ? null : map.TextOrNull(row.Qualifier);
            var slash = place?.IndexOf('/', StringComparison.Ordinal) ?? -1;
            return new Need(
                row.Kind, map.Text(row.Key), slash < 0 ? place
                    : place![..slash], slash < 0 ? null
                    : place![(slash + 1)..], map.TextOrNull("through"),
                map.TextOr("given-by", "us") == "setup" ? GivenBy.Setup
                    : GivenBy.Us, map.TextOr("until", "always") == "installed" ? Until.Installed
                    : Until.Always,
                map.TextOrNull("why"), when, called, map.At)
            {
                MadeBySetup = map.TextOr("made-by", "us") == "setup",
                Attributes = map.List("attributes"),
                Of = map.TextOrNull("of"),
                Lets = map.List("lets"),
                Task = row.Kind == NeedKind.Task ? Task(map, field) : null,
                ConfirmedForDays = map.NumberOrNull("confirmed-for-days") ?? Need.DefaultConfirmedForDays,
            };

            void Belongs(NeedKind kind, string words, params string[] keys)
            {
                foreach (var key in keys.Where(k => row.Kind != kind && map[k] is not null))
                    faults.Add(new Fault(
                        "needless-key", map[key]!.At, $"{field}.{key}",
                        $"'{row.Key}' does not go with '{key}'.")
                    { Expected = words });
            }
        }

        private TaskNeed Task(YamlNode.Mapping map, string field)
        {
            foreach (var (key, words) in TaskSays.Where(k => map[k.Key] is null))
                faults.Add(new Fault("missing-key", map.At, $"{field}.{key}", $"'task' needs '{key}'.") { Expected = words });
            var team = map.TextOr("team", "product") switch
            {
                "directory" => Team.Directory,
                "host" => Team.Host,
                "database" => Team.Database,
                _ => Team.Product,
            };
            return new TaskNeed(map.TextOr("do", ""), map.TextOr("done-when", ""), team, map.List("waits-for"));
        }

        private Condition? Condition(YamlNode.Scalar text, string field)
        {
            var start = text.Plain ? text.At : text.At.Right(1);
            if (ConditionParser.TryParse(text.Text, start, field, out var condition, out var fault)) return condition;
            faults.Add(fault!);
            return null;
        }
    }
}
