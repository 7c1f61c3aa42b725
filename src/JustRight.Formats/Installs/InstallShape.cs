using JustRight.Formats.Shapes;

namespace JustRight.Formats.Installs;

/// <summary>The shape of an install, version 1.</summary>
internal static class InstallShape
{
    private static readonly Shape.Map NameChoice = new("a name chosen here", [
        new("name", new Shape.Text("a name other than the pattern's")),
        new("existing", new Shape.Text("an existing object")),
    ])
    {
        ExactlyOneOf = ["name", "existing"],
    };

    /// <summary>The whole file.</summary>
    public static readonly Shape.Map Root = new(
        "One product in one estate",
        [
            new("install", new Shape.Number("the version of the install language", 1, 1), true),
            new("name", Words.Key("the install, as one word"), true),
            new("product", Words.Key("the sheet's product"), true),
            new("release", Words.Release("the sheet's release"), true),
            new("estate", Words.Key("the estate"), true),
            new("stage", new Shape.Text("how far it has come", null, null, ["planned", "installed", "retiring"])),
            new(
                "places",
                Words.Named(
                    "which hosts, instances or databases are which place",
                    new Shape.List("hosts, instances, or instance/database", new Shape.Text("one of them"), true)),
                true),
            new("accounts", Words.Named("names of accounts that the pattern does not make", NameChoice)),
            new("groups", Words.Named("names of groups that the pattern does not make", NameChoice)),
            new("never-expires", Words.Named("accounts whose password never expires, and why", new Shape.Map("a choice", [
                new("why", new Shape.Text("the reason"), true),
                new("by", new Shape.Text("who chose"), true),
                new(
                    "review-by",
                    new Shape.Text(
                        "the day by which somebody must look at it again", "[0-9]{4}-[0-9]{2}-[0-9]{2}",
                        "a day such as 2027-03-01"),
                    true),
            ]))),
            new("answers", Words.Named("answers to the sheet's questions", new Shape.Text("an answer"))),
            new("choices", new Shape.Named("choices among alternatives, by account.decision", "[a-z][a-z0-9-]*\\.[a-z][a-z0-9-]*", "account.decision", new Shape.Map("a choice", [
                new("take", new Shape.Text("the alternative's name"), true),
                new("why", new Shape.Text("the reason"), true),
                new("by", new Shape.Text("who chose"), true),
            ]))),
            new("sign-in", InstallSignInSection.Shape),
            new("succeeded-by", Words.Key("the install of a later release that took its place")),
        ]);
}
