using System.Globalization;
using JustRight.Core.Conditions;
using JustRight.Core.Faults;
using JustRight.Core.Passwords;

namespace JustRight.Core.Sheets;

/// <summary>
/// The rules a sheet must keep beyond its shape: names that resolve, conditions that type, groups without a ring.
/// </summary>
public static class SheetRules
{
    /// <summary>Every fault of a sheet, in file order. An empty list means that the sheet is sound.</summary>
    public static IReadOnlyList<Fault> Check(Sheet sheet) => new Checker(sheet).Run();

    /// <summary>Whether a directory act has the attributes and the class it needs.</summary>
    public static IEnumerable<Fault> CheckAct(
        DirectoryActRow act, IReadOnlyList<string> attributes, string? of, Origin at, string field)
    {
        if (act.NamesAttributes && attributes.Count == 0)
            yield return new Fault("missing-key", at, field + ".attributes", $"'{act.Words}' needs the attributes.")
            {
                Expected = "attributes: a list of attribute names",
            };
        if (!act.NamesAttributes && attributes.Count > 0)
            yield return new Fault("needless-key", at, field + ".attributes", $"'{act.Words}' goes with no attributes.")
            {
                Found = string.Join(", ", attributes),
            };
        if (act.Class is null && of is null)
            yield return new Fault("missing-key", at, field + ".of", $"'{act.Words}' needs an object class.")
            {
                Expected = "of: user, group, computer or another class",
            };
    }

    /// <summary>The names that conditions of a sheet may use, with their types. Facts come in the order written.</summary>
    public static Dictionary<string, Conditions.ValueType> Names(Sheet sheet)
    {
        var names = new Dictionary<string, Conditions.ValueType>(StringComparer.Ordinal);
        foreach (var place in sheet.Places.Where(p => p.Kind != PlaceKind.Branch))
        {
            names[place.Key] = names[place.Key + ".host"] = Conditions.ValueType.Hosts;
            if (place.Kind == PlaceKind.Host) continue;
            names[place.Key + ".release"] = Conditions.ValueType.Number;
            names[place.Key + ".engine"] = Conditions.ValueType.Text;
        }

        foreach (var question in sheet.Questions) names[question.Key] = question.Type;
        return names;
    }

    private sealed class Checker(Sheet sheet)
    {
        private readonly List<Fault> _faults = [];
        private readonly Dictionary<string, Conditions.ValueType> _names = Names(sheet);
        private readonly Dictionary<string, Place> _places = sheet.Places.ToDictionary(p => p.Key);
        private readonly HashSet<string> _accounts = [.. sheet.Accounts.Select(a => a.Key)];
        private readonly Dictionary<string, SheetGroup> _groups = sheet.Groups.ToDictionary(g => g.Key);

        public IReadOnlyList<Fault> Run()
        {
            foreach (var fact in sheet.Facts)
            {
                WantYesNo(fact.Condition, $"facts.{fact.Key}");
                _names[fact.Key] = Conditions.ValueType.YesNo;
            }

            foreach (var group in sheet.Groups) CheckGroup(group);
            foreach (var account in sheet.Accounts)
                for (var i = 0; i < account.Needs.Count; i++)
                    CheckClause(account.Needs[i], $"accounts.{account.Key}.needs[{i}]");
            _faults.AddRange(TaskRules.Check(sheet));
            _faults.AddRange(KeptOutRules.Check(sheet));
            _faults.AddRange(ServiceNameRules.Check(sheet));
            foreach (var account in sheet.Accounts) CheckPassword(account);
            foreach (var separation in sheet.Separate)
                foreach (var key in separation.Accounts)
                    Known("unknown-account", key, _accounts, separation.At, "separate", "an account of this sheet");
            foreach (var service in sheet.Services) CheckService(service);
            if (sheet.SignIn is { } signIn) CheckSignIn(signIn);
            return [.. _faults.OrderBy(f => f.At.Line).ThenBy(f => f.At.Column)];
        }

        private void CheckGroup(SheetGroup group)
        {
            var field = $"groups.{group.Key}.members";
            if (_accounts.Contains(group.Key))
                _faults.Add(new Fault(
                    "duplicate-name", group.At, $"groups.{group.Key}",
                    $"'{group.Key}' is an account too: members would be ambiguous."));
            foreach (var member in group.Members)
                Known(
                    "unknown-member", member, [.. _accounts, .. _groups.Keys], group.At, field,
                    "an account or a group of this sheet");
            if (Ring(group) is { } ring)
                _faults.Add(new Fault(
                    "cyclic-group", group.At, field,
                    $"Group '{group.Key}' contains itself.")
                {
                    Found = string.Join(" -> ", ring),
                    Expected = "groups without a ring",
                });
        }

        private List<string>? Ring(SheetGroup start)
        {
            var path = new List<string> { start.Key };
            return Walk(start, []) ? path : null;

            bool Walk(SheetGroup group, HashSet<string> seen)
            {
                foreach (var member in group.Members)
                {
                    path.Add(member);
                    if (member == start.Key) return true;
                    if (_groups.TryGetValue(member, out var inner) && seen.Add(member) && Walk(inner, seen)) return true;
                    path.RemoveAt(path.Count - 1);
                }

                return false;
            }
        }

        private void CheckClause(NeedClause clause, string field)
        {
            if (clause.When is not null) WantYesNo(clause.When, field + ".when");
            switch (clause)
            {
                case AnyOf any:
                    for (var i = 0; i < any.Alternatives.Count; i++) CheckClause(any.Alternatives[i], $"{field}.any-of[{i}]");
                    foreach (var inner in any.Alternatives.Where(HasAnyOf))
                        _faults.Add(new Fault(
                            "nested-any-of", inner.At, field,
                            "An alternative cannot contain alternatives.")
                        {
                            Expected = "the alternatives written out side by side",
                        });
                    foreach (var twice in any.Alternatives.Where(a =>
                        a.Called is not null).GroupBy(a => a.Called).Where(g => g.Count() > 1))
                        _faults.Add(new Fault(
                            "duplicate-name", twice.Last().At, field, $"Two alternatives are called '{twice.Key}'."));
                    break;
                case AllOf all:
                    for (var i = 0; i < all.Parts.Count; i++) CheckClause(all.Parts[i], $"{field}.all-of[{i}]");
                    break;
                case Need need:
                    CheckNeed(need, field);
                    break;
            }
        }

        private static bool HasAnyOf(NeedClause clause) => clause is AnyOf || (clause is AllOf all && all.Parts.Any(HasAnyOf));

        private void CheckNeed(Need need, string field)
        {
            var row = NeedKinds.ByKind[need.Kind];
            if (row.Values is not null && !row.Values.Contains(need.Value))
                Known(
                    "unknown-value", need.Value, row.Values, need.At, $"{field}.{row.Key}",
                    "one of " + string.Join(", ", row.Values));
            if (need.Kind is NeedKind.InstancePermission or NeedKind.DatabasePermission
                && !DatabaseNeedRules.IsPermission(need.Value))
                _faults.Add(new Fault(
                    "unknown-value", need.At, $"{field}.{row.Key}",
                    $"'{need.Value}' cannot be a permission.")
                {
                    Found = need.Value,
                    Expected = DatabaseNeedRules.Expected(need.Kind),
                });
            if (need.Kind == NeedKind.Directory && DirectoryActs.Of(need.Value) is { } act)
                _faults.AddRange(CheckAct(act, need.Attributes, need.Of, need.At, field));
            if (need.Through is not null)
                Known("unknown-group", need.Through, _groups.Keys, need.At, field + ".through", "a group of this sheet");
            if (row.Qualifier is null || need.Place is null) return;
            if (!Known("unknown-place", need.Place, _places.Keys, need.At, $"{field}.{row.Qualifier}", "a place of this sheet"))
                return;
            var place = _places[need.Place];
            if (!row.Places.Contains(place.Kind))
            {
                _faults.Add(new Fault(
                    "wrong-place", need.At, $"{field}.{row.Qualifier}", $"A '{row.Key}' cannot hold at '{place.Key}'.")
                {
                    Found = "a " + place.Kind.ToString().ToLowerInvariant(),
                    Expected = "a " + string.Join(" or ", row.Places.Select(p => p.ToString().ToLowerInvariant())),
                });
            }
            else if (need.Kind is NeedKind.DatabaseRole or NeedKind.DatabasePermission or NeedKind.DatabaseOwner
                && place.Kind == PlaceKind.Instance && need.Database is null)
            {
                _faults.Add(new Fault(
                    "no-database", need.At, $"{field}.{row.Qualifier}",
                    $"'{place.Key}' is an instance: say which database.")
                { Expected = $"{place.Key}/name-of-database" });
            }
        }

        private void CheckService(SheetService service)
        {
            var field = $"services.{service.Name}";
            if (Known("unknown-place", service.On, _places.Keys, service.At, field + ".on", "a place of this sheet")
                && _places[service.On].Kind != PlaceKind.Host)
                _faults.Add(new Fault(
                    "wrong-place", service.At, field + ".on", "A service runs on hosts.")
                { Expected = "a host" });
            Known("unknown-account", service.RunsAs, _accounts, service.At, field + ".as", "an account of this sheet");
        }

        private void CheckPassword(SheetAccount account)
        {
            var field = $"accounts.{account.Key}.password";
            if (account.Password.ChangedBy == PasswordKeeper.Product && account.WorksAs != WorksAs.Pool
                && !sheet.Services.Any(s => s.RunsAs == account.Key))
                _faults.Add(new Fault(
                    "wrong-value", account.Password.At, $"{field}.changed-by",
                    $"A product changes only the passwords of accounts under which it runs its services, and no service of this sheet runs as '{account.Key}'.")
                {
                    Found = "product",
                    Expected = "us, or a service with as: " + account.Key,
                });
            for (var i = 0; i < account.Password.TypedIn.Count; i++)
            {
                var typed = account.Password.TypedIn[i];
                if (typed.On is { } on
                    && Known("unknown-place", on, _places.Keys, typed.At, $"{field}.typed-in[{i}].on", "a place of this sheet")
                    && _places[on].Kind != PlaceKind.Host)
                    _faults.Add(new Fault(
                        "wrong-place", typed.At, $"{field}.typed-in[{i}].on",
                        "A password is typed on hosts.")
                    {
                        Expected = "a host, or no 'on' for one setting of the whole product",
                    });
                if (typed.ReadBy is not { } service) continue;
                Known(
                    "unknown-service", service, sheet.Services.Select(s => s.Name), typed.At, $"{field}.typed-in[{i}].read-by",
                    "a service of this sheet");
                if (typed.On is null)
                    _faults.Add(new Fault(
                        "missing-key", typed.At, $"{field}.typed-in[{i}].on",
                        "A service reads a password at its start on its own host.")
                    { Expected = "on: the host place" });
            }
        }

        private void CheckSignIn(SheetSignIn signIn)
        {
            if (signIn.BindAccount is { } account
                && Known(
                    "unknown-account", account, _accounts, signIn.Line("bind.account"), "sign-in.bind.account",
                    "an account of this sheet")
                && sheet.Accounts.First(a => a.Key == account).WorksAs != WorksAs.Bind)
                _faults.Add(new Fault(
                    "wrong-value", signIn.Line("bind.account"), "sign-in.bind.account",
                    $"'{account}' has other duties besides the bind.")
                { Expected = "an account with works-as: bind" });
            if (signIn.BindAccount is not null && signIn.BindsAs == BindsAs.Person)
                _faults.Add(new Fault(
                    "needless-key", signIn.Line("bind.account"), "sign-in.bind.account",
                    "A product that binds as the person who signs in has no account of its own."));
            if (signIn.BindsAs == BindsAs.Person && signIn.TypedName is null)
                _faults.Add(new Fault(
                    "missing-key", signIn.Line("bind.who"), "sign-in.typed-name",
                    "A name to bind with needs the product's placeholder for what a person types.")
                { Expected = "typed-name: such as {0}" });
            if (signIn.Enter is { } enter)
                Known("unknown-group", enter, _groups.Keys, signIn.Line("enter"), "sign-in.enter", "a group of this sheet");
            foreach (var role in signIn.Roles)
                if (role.Group is { } group)
                    Known(
                        "unknown-group", group, _groups.Keys, role.At, $"sign-in.roles.{role.Key}.group", "a group of this sheet");
            for (var i = 0; i < signIn.Settings.Count; i++)
                CheckSettings(
                    signIn, signIn.Settings[i],
                    signIn.Settings.Count == 1 ? "sign-in.settings" : string.Create(
                        CultureInfo.InvariantCulture, $"sign-in.settings[{i}]"));
        }

        private void CheckSettings(SheetSignIn signIn, SheetSettings settings, string at)
        {
            var typedOn = settings.Line("typed-on");
            if (Known("unknown-place", settings.TypedOn, _places.Keys, typedOn, $"{at}.typed-on", "a place of this sheet")
                && _places[settings.TypedOn].Kind != PlaceKind.Host)
                _faults.Add(new Fault("wrong-place", typedOn, $"{at}.typed-on", "Settings are typed on hosts.")
                {
                    Expected = "a host",
                });
            for (var i = 0; i < settings.Fields.Count; i++)
                CheckField(signIn, settings.Fields[i], string.Create(CultureInfo.InvariantCulture, $"{at}.fields[{i}]"));
        }

        private void CheckField(SheetSignIn signIn, SettingsField field, string at)
        {
            if (field.Is is not { } key)
            {
                if (field.Role is not null) Needless(field, at, "role", "A fixed text is about no role.");
                return;
            }

            if (!Known(
                "unknown-value", key, SettingKeys.All.Select(k => k.Key), field.At, $"{at}.is", "a neutral name of a setting"))
                return;
            if (key == SettingKeys.SignInFilter && signIn.TypedName is null)
                _faults.Add(new Fault(
                    "missing-key", field.At, "sign-in.typed-name",
                    "A filter for the typed name needs the product's placeholder.")
                { Expected = "typed-name: such as {0}" });
            if (field.Role is { } role)
            {
                Known(
                    "unknown-role", role, signIn.Roles.Select(r => r.Key), field.At, $"{at}.role", "a role of this sheet");
                if (!SettingKeys.OfRole.Contains(key)) Needless(field, at, "role", $"'{key}' is about no role.");
            }
            else if (SettingKeys.OfRole.Contains(key))
            {
                _faults.Add(new Fault("missing-key", field.At, $"{at}.role", $"'{key}' is said of a role.")
                {
                    Expected = "role: a role of this sheet",
                });
            }

            if (field.Milliseconds && !SettingKeys.Seconds.Contains(key))
                Needless(field, at, "unit", $"'{key}' is no number of seconds.");
            var fits = field.As switch
            {
                ValueKind.Text => true,
                ValueKind.Number => SettingKeys.Numbers.Contains(key),
                ValueKind.YesNo => SettingKeys.YesNo.Contains(key) && field.Words.Count == 0,
                ValueKind.List => SettingKeys.Several.Contains(key),
            };
            if (!fits)
                _faults.Add(new Fault("wrong-value", field.At, $"{at}.as", $"'{key}' is not of that kind.")
                {
                    Expected = "text; number for numbers, boolean for yes or no without words of the product, list for what has several values",
                });
        }

        private void Needless(SettingsField field, string at, string key, string text) =>
            _faults.Add(new Fault("needless-key", field.At, $"{at}.{key}", text));

        private bool Known(string code, string word, IEnumerable<string> known, Origin at, string field, string expected)
        {
            var all = known.ToList();
            if (all.Contains(word)) return true;
            _faults.Add(new Fault(
                code, at, field,
                $"'{word}' is not declared.")
            {
                Found = $"'{word}'",
                Expected = expected,
                Nearest = Spelling.Nearest(word, all),
            });
            return false;
        }

        private void WantYesNo(Condition condition, string field)
        {
            if (ConditionTypes.Check(condition, _names, field, _faults) is { } type && type != Conditions.ValueType.YesNo)
                _faults.Add(new Fault(
                    "condition-type", condition.At, field, "A condition must be yes or no.")
                { Expected = "a yes or no" });
        }
    }
}
