using JustRight.Core.Hosts;
using JustRight.Core.Sheets;
using JustRight.Formats.Shapes;

namespace JustRight.Formats.Sheets;

/// <summary>The shape of a sheet, version 1.</summary>
internal static class SheetShape
{
    /// <summary>The keys of a clause that say what it is.</summary>
    public static readonly IReadOnlyList<string> ClauseKinds = [.. NeedKinds.All.Select(k => k.Key), "any-of", "all-of"];

    private static readonly Shape Clause = new Shape.Ref("need", () => ClauseMap!);

    private static readonly Shape.Map ClauseMap = new(
        "one right at one place, or a combination of needs",
        [
            .. NeedKinds.All.Select(k =>
                new Key(k.Key, k.ValueIsKey ? Words.Key(Summary(k)) : new Shape.Text(Summary(k), null, null, k.Values))),
            new("any-of", new Shape.List("alternatives, one of which will do", Clause)),
            new("all-of", new Shape.List("needs that belong together", Clause)),
            new("on", new Shape.Text("the host place; for a task, any place of this sheet")),
            new("at", new Shape.Text("an instance, or the instance of a database")),
            new("in", new Shape.Text("the database place, or place/name for another database of the same instance")),
            new("below", new Shape.Text("the branch of the directory")),
            new(
                "of",
                new Shape.Text(
                    "for a directory need: the class of object", "[A-Za-z][A-Za-z0-9-]{0,63}",
                    "the name of a class, such as user")),
            new(
                "attributes",
                new Shape.List(
                    "for a directory need: the attributes",
                    new Shape.Text("an attribute", "[A-Za-z][A-Za-z0-9-]{0,63}", "the name of an attribute, such as mail"))),
            new(
                "lets",
                new Shape.List(
                    "for an identity inside the product: the only operations that it must allow",
                    new Shape.Text("an operation"))),
            new(
                "confirmed-for-days",
                new Shape.Number(
                    "for an identity inside the product and for a task: for how many days a confirmation is valid", 1, 3650)),
            new("do", new Shape.Text("for a task: what is to be done, as a sentence that tells somebody to do it")),
            new("done-when", new Shape.Text("for a task: how one sees that it is done")),
            new("team", new Shape.Text(
                "for a task: who does it; product by default", null, null, ["directory", "host", "database", "product"])),
            new(
                "waits-for",
                new Shape.List(
                    "for a task: what must be so before it can be done",
                    new Shape.Text("another task of this sheet, installed (setup has run) or account (the account is there)"))),
            new("through", new Shape.Text("the group of this sheet through which it is held")),
            new("given-by", new Shape.Text("who gives it", null, null, ["us", "setup"])),
            new("made-by", new Shape.Text("for a group: who creates the group", null, null, ["us", "setup"])),
            new("until", new Shape.Text("how long it is needed", null, null, ["always", "installed"])),
            new("when", new Shape.Text("the condition under which it is needed")),
            new("why", new Shape.Text("the reason")),
            new("called", new Shape.Text("the name by which an install can choose this alternative")),
            new("decision", Words.Key("the name of the decision among these alternatives")),
        ])
    {
        ExactlyOneOf = ClauseKinds,
    };

    /// <summary>The whole file.</summary>
    public static readonly Shape.Map Root = new(
        "What one product release needs",
        [
            new("sheet", new Shape.Number("the version of the sheet language", 1, 1), true),
            new("product", Words.Key("the product, as one word"), true),
            new("release", Words.Release("the release of the product"), true),
            new("title", new Shape.Text("the product's name in full"), true),
            new("source", new Shape.Text("the source: the setup guide and its chapter"), true),
            new("places", Words.Named("where needs apply", new Shape.Map("a place", [
                new("kind", new Shape.Text("what it is", null, null, ["host", "instance", "database", "branch"]), true),
                new(
                    "count",
                    new Shape.Text(
                        "how many an install gives", "[0-9]{1,3}( or more| to [0-9]{1,3})?",
                        "a count such as 1, 1 or more, 0 to 3")),
                new("engine", new Shape.Text("the family of database server", null, null, ["sqlserver", "postgresql"])),
                new("name", new Shape.Text("the name setup gives the database")),
                new("made-by", new Shape.Text("for a database: who creates it", null, null, ["us", "setup"])),
                new(
                    "holds-secrets",
                    new Shape.YesNo("for a database: whether the product keeps credentials of other systems in it")),
            ])), true),
            new("questions", Words.Named("questions that the install answers", new Shape.Map("a question", [
                new("ask", new Shape.Text("the question"), true),
                new("answer", new Shape.Text("the type of the answer", null, null, ["yes-no", "number", "text"])),
                new("default", new Shape.Text("the answer when none is given")),
            ]))),
            new("facts", Words.Named("named conditions", new Shape.Text("a condition"))),
            new("groups", Words.Named("domain groups that gather accounts", new Shape.Map("a group", [
                new("purpose", new Shape.Text("what it is for"), true),
                new("scope", new Shape.Text("its scope", null, null, ["global", "universal", "domain-local"])),
                new("members", new Shape.List("accounts and groups of this sheet", new Shape.Text("a member"))),
                new("closed", new Shape.YesNo("whether it must have no other members")),
            ]))),
            new("accounts", Words.Named("the accounts", new Shape.Map("an account", [
                new("purpose", new Shape.Text("what it is for"), true),
                new("works-as", new Shape.Text("how it is used", null, null, WorksAsWords.All)),
                new("password-never-expires", new Shape.YesNo("whether its password never expires")),
                new("password-cannot-change", new Shape.YesNo("whether it must not be able to change its own password")),
                new("password", PasswordSection.Shape),
                new(
                    "kept-out",
                    new Shape.List(
                        "the types of log-on that it is kept from, on every host of an install",
                        new Shape.Text("a type of log-on", null, null, LogonKind.All), OneWillDo: true)),
                new(
                    "kept-out-through",
                    Words.Key("the group of this sheet through which it is kept out; itself, unless this stands")),
                new("needs", new Shape.List("what it needs, in the order of the setup guide", Clause)),
                new("forbidden", new Shape.List("what it must not hold", ForbiddenEntry.ShapeOf(false))),
            ])), true),
            new("separate", new Shape.List("accounts that must be separate", new Shape.Map("a separation", [
                new("accounts", new Shape.List("the accounts", new Shape.Text("an account")), true),
                new("why", new Shape.Text("the reason"), true),
            ]))),
            new("services", new Shape.List("the services of the product", new Shape.Map("a service", [
                new("name", new Shape.Text("its name"), true),
                new("on", new Shape.Text("the host place"), true),
                new("as", new Shape.Text("the account"), true),
                new(
                    "start",
                    new Shape.Text("its start type", null, null, ["automatic", "automatic-delayed", "manual", "disabled"])),
                new("after", new Shape.List("services it waits for", new Shape.Text("a service"))),
                new(
                    "given-by",
                    new Shape.Text(
                        "who sets its account, start type and dependencies: setup by default", null, null, ["us", "setup"])),
            ]))),
            new("sign-in", SignInSection.Shape),
        ]);

    private static string Summary(NeedKindRow row) =>
        $"a {row.Key.Replace('-', ' ')}{(row.Qualifier is null ? "" : $", with '{row.Qualifier}'")}"
        + (row.PlaceIsOptional ? " where it has a place" : "");
}
