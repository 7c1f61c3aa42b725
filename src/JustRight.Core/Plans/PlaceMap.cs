using JustRight.Core.Conditions;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>The sheet's places laid over the estate by an install, and the values conditions take from that.</summary>
internal sealed class PlaceMap
{
    private readonly Dictionary<string, IReadOnlyList<Spot>> _spots = new(StringComparer.Ordinal);
    private readonly Dictionary<string, ConditionValue?> _values = new(StringComparer.Ordinal);

    private readonly Sheet _sheet;
    private readonly Estate _estate;

    private PlaceMap(Sheet sheet, Estate estate) => (_sheet, _estate) = (sheet, estate);

    /// <summary>The spots of a place; empty when the install gave none and none is needed.</summary>
    public IReadOnlyList<Spot> this[string place] => _spots.GetValueOrDefault(place, []);

    /// <summary>The value of a name in a condition, or null when it is not known.</summary>
    public ConditionValue? Value(string name) => _values.GetValueOrDefault(name);

    /// <summary>Lays the places out; faults name the install's lines, or the install itself for what is missing.</summary>
    public static PlaceMap Make(Sheet sheet, Estate estate, Install install, List<Fault> faults)
    {
        var map = new PlaceMap(sheet, estate);
        foreach (var (key, binding) in install.Places.Where(b => sheet.Places.All(p => p.Key != b.Key)))
            faults.Add(new Fault(
                "unknown-place", binding.At, $"places.{key}",
                $"'{key}' is not a place of {sheet.Name}.")
            {
                Expected = "a place of the sheet",
                Nearest = Spelling.Nearest(
                    key, sheet.Places.Select(p => p.Key))
            });
        foreach (var place in sheet.Places) map.Lay(place, sheet, estate, install, faults);
        map.Answer(sheet, install, faults);
        map.Settle();
        return map;
    }

    /// <summary>The same with one spot alone for a place: what conditions say there.</summary>
    public PlaceMap At(string place, Spot spot)
    {
        var map = new PlaceMap(_sheet, _estate);
        foreach (var (key, spots) in _spots) map._spots[key] = spots;
        foreach (var (name, value) in _values) map._values[name] = value;
        map._spots[place] = [spot];
        map.Say(_sheet.Places.First(p => p.Key == place), [spot]);
        map.Settle();
        return map;
    }

    /// <summary>What the sheet's facts say.</summary>
    private void Settle()
    {
        foreach (var fact in _sheet.Facts)
            _values[fact.Key] = ConditionEvaluator.Evaluate(fact.Condition, Value) is { } known ? ConditionValue.Of(known) : null;
    }

    private void Lay(Place place, Sheet sheet, Estate estate, Install install, List<Fault> faults)
    {
        var field = $"places.{place.Key}";
        install.Places.TryGetValue(place.Key, out var binding);
        var values = binding?.Values ?? [];
        var at = binding?.At ?? install.At;
        if (values.Count < place.AtLeast || values.Count > place.AtMost)
        {
            faults.Add(new Fault(
                "place-count", at, field,
                $"{sheet.Name} needs {Count(place)} for '{place.Key}' ({place.At}).")
            {
                Found = values.Count.ToString(
                    System.Globalization.CultureInfo.InvariantCulture)
            });
            return;
        }

        var spots = new List<Spot>();
        foreach (var value in values)
            if (Find(place, value, estate, at, field, faults) is { } spot)
                spots.Add(spot);
        _spots[place.Key] = spots;
        Say(place, spots);
    }

    /// <summary>The values that conditions take from a place.</summary>
    private void Say(Place place, List<Spot> spots)
    {
        if (place.Kind == PlaceKind.Branch) return;
        _values[place.Key] = _values[place.Key + ".host"] = ConditionValue.Of([.. spots.Select(s => s.Host)]);
        if (place.Kind == PlaceKind.Host || spots.Count == 0) return;
        var instances = spots.Select(s => _estate.Instance(s.Instance!)!).ToList();
        _values[place.Key + ".engine"] = ConditionValue.Of(instances[0].Engine);
        // what holds for the place must hold wherever it may come to run
        var all = instances.Concat(instances.SelectMany(_estate.PartnersOf)).ToList();
        if (all.All(i => i.Release is not null))
            _values[place.Key + ".release"] = ConditionValue.Of(all.Min(i => i.Release!.Value));
    }

    private static Spot? Find(Place place, string value, Estate estate, Origin at, string field, List<Fault> faults)
    {
        if (place.Kind == PlaceKind.Branch)
        {
            if (value == Estate.WholeDomain) return new Spot("", null, null) { Branch = estate.Domain.Root };
            if (estate.Branches.FirstOrDefault(b => b.Key == value) is { } branch)
                return new Spot("", null, null) { Branch = branch.Name.Text };
            Unknown("branch", estate.Branches.Select(b => b.Key).Append(Estate.WholeDomain));
            return null;
        }

        if (place.Kind == PlaceKind.Host)
        {
            if (estate.Host(value) is { } host) return new Spot(host.Name, null, null);
            Unknown("host", estate.Hosts.Select(h => h.Name));
            return null;
        }

        var slash = value.LastIndexOf('/');
        var instanceName = slash < 0 ? value : value[..slash];
        var database = slash < 0 ? place.DatabaseName : value[(slash + 1)..];
        if (estate.Instance(instanceName) is not { } instance)
        {
            Unknown("instance", estate.Instances.Select(i => i.Name));
            return null;
        }

        if (place.Engine is not null && !Same(place.Engine, instance.Engine))
        {
            faults.Add(new Fault(
                "wrong-engine", at, field,
                $"'{instance.Name}' is of another engine than '{place.Key}' needs.")
            {
                Found = instance.Engine,
                Expected = place.Engine,
            });
            return null;
        }

        if (place.Kind == PlaceKind.Database && string.IsNullOrEmpty(database))
        {
            faults.Add(new Fault(
                "no-database", at, field,
                $"'{place.Key}' is a database: say which.")
            {
                Found = $"'{value}'",
                Expected = $"{instance.Name}/name-of-database",
            });
            return null;
        }

        return new Spot(instance.Host, instance.Name, place.Kind == PlaceKind.Database ? database : null)
        {
            Engine = instance.Engine,
        };

        void Unknown(string what, IEnumerable<string> known)
        {
            var word = what == "instance" ? instanceNameOf(value) : value;
            faults.Add(new Fault(
                $"unknown-{what}", at, field,
                $"'{word}' is not a{(what == "instance" ? "n" : "")} {what} of estate {estate.Name}.")
            {
                Nearest = Spelling.Nearest(word, known),
                Expected = $"a{(what == "instance" ? "n" : "")} {what} of the estate",
            });
        }

        static string instanceNameOf(string text) => text.LastIndexOf('/') is var at && at < 0 ? text : text[..at];
    }

    private void Answer(Sheet sheet, Install install, List<Fault> faults)
    {
        foreach (var (key, answer) in install.Answers.Where(a => sheet.Questions.All(q => q.Key != a.Key)))
            faults.Add(new Fault(
                "unknown-question", answer.At, $"answers.{key}",
                $"'{key}' is not a question of {sheet.Name}.")
            {
                Expected = "a question of the sheet",
                Nearest = Spelling.Nearest(
                    key, sheet.Questions.Select(q => q.Key))
            });
        foreach (var question in sheet.Questions)
        {
            install.Answers.TryGetValue(question.Key, out var answer);
            var text = answer?.Text ?? question.Default;
            if (text is null)
            {
                faults.Add(new Fault(
                    "no-answer", install.At, $"answers.{question.Key}",
                    $"{sheet.Name} asks: {question.Ask}")
                { Expected = $"an answer under answers.{question.Key}" });
                continue;
            }

            var value = Read(question.Type, text);
            if (value is null)
                faults.Add(new Fault(
                    "answer-type", answer?.At ?? question.At, $"answers.{question.Key}",
                    "This answer is of the wrong type.")
                {
                    Found = $"'{text}'",
                    Expected = question.Type == Conditions.ValueType.YesNo
                        ? "yes or no"
                        : "a number"
                });
            _values[question.Key] = value;
        }
    }

    private static ConditionValue? Read(Conditions.ValueType type, string text) => type switch
    {
        Conditions.ValueType.YesNo => text is "yes" or "no" ? ConditionValue.Of(text == "yes") : null,
        Conditions.ValueType.Number => DottedNumber.TryParse(text, out var number) ? ConditionValue.Of(number) : null,
        Conditions.ValueType.Text or Conditions.ValueType.Hosts => ConditionValue.Of(text),
    };

    private static string Count(Place place) => (place.AtLeast, place.AtMost) switch
    {
        (1, 1) => "exactly one",
        (var n, int.MaxValue) => $"{n} or more",
        (var n, var m) when n == m => $"exactly {n}",
        (var n, var m) => $"{n} to {m}",
    };

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
