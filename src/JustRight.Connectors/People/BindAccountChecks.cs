using System.DirectoryServices.Protocols;
using System.Globalization;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>What the account that the product binds as holds and could do besides reading.</summary>
internal static class BindAccountChecks
{
    private const int DomainUsers = 513;
    private const int SoonDays = 30;
    // [MS-ADTS 3.1.1.4.5.21, 3.1.1.4.5.22]
    private const string Effective = "allowedAttributesEffective", Children = "allowedChildClassesEffective";

    public static async Task RunAsync(SignInTestRun run, IPeopleSession session)
    {
        PeopleObject? own = null;
        await run.CheckAsync("bind-groups", "Is the bind account in no group beyond the default one?", (id, asks) =>
        {
            own = Own(run, session);
            Groups(run, session, own, id, asks);
        });
        await run.CheckAsync(
            "bind-password-end", "Does its password expire?", (id, asks) => PasswordEnd(run, session, own, id, asks));
        await run.CheckAsync(
            "bind-writes", "Is the bind account unable to write?", (id, asks) => Writes(run, session, own, id, asks));
        await run.CheckAsync(
            "confidential", "Are confidential attributes hidden from it?", (id, asks) => Confidential(run, session, id, asks));
    }

    private static PeopleObject? Own(SignInTestRun run, IPeopleSession session)
    {
        string[] attributes = ["memberOf", "primaryGroupID", "userAccountControl"];
        if (run.Plan.BindDn is { } dn) return session.Read(dn, attributes);
        return session.Search(
            run.Plan.Directory.Root.Text, SearchScope.Subtree, new Filter.Same(run.Map.LogonName, FilterValue.Of(run.Plan.BindLogonName!)).Text,
            null, attributes)
            .FirstOrDefault();
    }

    private static void Groups(SignInTestRun run, IPeopleSession session, PeopleObject? own, string id, string asks)
    {
        if (own is null)
        {
            run.Unseen(
                id, asks, SignInCause.NotSaid, $"{run.Settings[SettingKeys.BindName]} cannot see itself.", "Ask somebody who can.");
            return;
        }

        List<string> groups = [.. own.All("memberOf")];
        if (run.Map.MemberOf is null)
            groups.AddRange(session.Search(
                run.Plan.Directory.Root.Text, SearchScope.Subtree, new Filter.Same(run.Map.Member, FilterValue.Of(own.Dn)).Text,
                SignInTestRun.OwnPageSize).Select(g => g.Dn));
        var primary = int.TryParse(own.First("primaryGroupID"), out var rid) ? rid : DomainUsers;
        if (groups.Count == 0 && primary == DomainUsers)
            run.Pass(id, asks, run.IsAdLike ? "Yes: Domain Users alone" : "Yes: it is in none");
        else
            run.Fail(
                id, asks, SignInCause.HoldsMore,
                $"No: {(groups.Count > 0 ? SignInTestRun.Few(groups) : string.Create(CultureInfo.InvariantCulture, $"its primary group has the number {primary}"))}.",
                "An ordinary user can bind and read: remove the account from them.");
    }

    private static void PasswordEnd(SignInTestRun run, IPeopleSession session, PeopleObject? own, string id, string asks)
    {
        const string attribute = "msDS-UserPasswordExpiryTimeComputed"; // [MS-ADTS 3.1.1.4.5.45]
        if (!run.IsAdLike || own is null
            || !long.TryParse(session.Read(own.Dn, attribute)?.First(attribute), CultureInfo.InvariantCulture, out var ticks))
        {
            run.Unseen(
                id, asks, SignInCause.NotSaid, "The directory does not say when it expires.", "Ask the directory team for its password rules.");
            return;
        }

        if (ticks is 0 or long.MaxValue)
        {
            if (ticks == 0)
                run.Fail(
                    id, asks, SignInCause.MustChangePassword, "Yes: it must be changed at the next sign-in.", "Set the password again without that.");
            else run.Pass(id, asks, "No: it never ends");
            return;
        }

        var end = DateTimeOffset.FromFileTime(ticks).ToUniversalTime();
        var days = (int)Math.Floor((end - run.Now).TotalDays);
        var fact = string.Create(
            CultureInfo.InvariantCulture,
            $"It expires {end:u}, in {days} {(days == 1 ? "day" : "days")}: from then on nobody can sign in to the product");
        if (days < SoonDays)
            run.Fail(
                id, asks, SignInCause.PasswordExpires, fact + ".",
                $"Renew it before, in every place where it is typed: {string.Join(", ", run.Plan.TypedOn)}.");
        else run.Pass(id, asks, fact, "Note the date in a calendar.");
    }

    private static void Writes(SignInTestRun run, IPeopleSession session, PeopleObject? own, string id, string asks)
    {
        if (run.Plan.Directory.IsCatalog)
        {
            run.Unseen(
                id, asks, SignInCause.NotSaid, "The catalog takes no changes from anybody.", "Run the sign-in test on the directory itself once.");
            return;
        }

        var could = new List<string>();
        var (seen, asked) = (0, 0);
        var sample = run.SearchPeople(session, run.Settings.People.Text, null, run.Map.LogonName)
            .FirstOrDefault(p => p.Dn != own?.Dn);
        string[] bases = [.. run.PeopleBases.Concat(run.GroupsBases).DistinctBy(ComparedName.KeyOf)];
        foreach (var (dn, attribute) in new[]
        {
            (sample?.Dn, "description"), (run.Plan.EnterDn, run.Map.Member), (sample?.Dn, "telephoneNumber"),
            (own?.Dn, "description"),
        }.Concat(bases.Select(b => ((string?)b, "description"))))
        {
            if (dn is null) continue;
            asked++;
            if (session.CouldWrite(dn, attribute) is not { } answer) continue;
            seen++;
            if (answer) could.Add($"{attribute} of {dn}");
        }

        if (run.IsAdLike)
        {
            foreach (var dn in bases.Append(sample?.Dn).Append(run.Plan.EnterDn).OfType<string>()
                .Distinct(StringComparer.OrdinalIgnoreCase))
            {
                var read = session.Read(dn, Effective, Children);
                if (read?.All(Effective) is { Count: > 0 } attributes)
                    could.Add($"{SignInTestRun.Number(attributes.Count, "attribute")} of {dn}");
                if (read?.All(Children) is { Count: > 0 } children) could.Add($"new {SignInTestRun.Few(children, 3)} below {dn}");
            }
        }

        if (could.Count > 0)
            run.Fail(
                id, asks, SignInCause.HoldsMore, $"No: it could write {SignInTestRun.Few([.. could.Distinct()])}.",
                "A bind account needs only to read: remove these rights. justright trace shows where they come from.");
        else if (seen == 0) run.Unseen(id, asks, SignInCause.NotSaid, "The directory does not say.", "Ask somebody who can read its ACL.");
        else
            run.Pass(
                id, asks,
                $"Yes: it was refused on {SignInTestRun.Number(seen, "object")}{(seen < asked ? $", and {asked - seen} gave no answer" : "")}. The test was to delete a value that does not exist, which changes nothing");
    }

    private static void Confidential(SignInTestRun run, IPeopleSession session, string id, string asks)
    {
        var attributes = run.IsAdLike ? ConfidentialAttributes(run, session) : ["userPassword"];
        if (attributes.Count == 0)
        {
            run.Unseen(id, asks, SignInCause.NotSaid, "The schema names none, or it may not be read.", "Nothing need be done.");
            return;
        }

        var any = new Filter.Or([.. attributes.Select(a => new Filter.Present(a))]).Text;
        var shown = run.SearchPeople(session, any, SignInTestRun.OwnPageSize, attributes)
            .Select(o => attributes.Where(a => o.All(a).Count > 0)).SelectMany(a => a).Distinct().ToList();
        if (shown.Count == 0)
            run.Pass(id, asks, $"Yes: of {SignInTestRun.Number(attributes.Count, "such attribute")} it sees none on anybody");
        else
            run.Fail(
                id, asks, SignInCause.HoldsMore, $"No: it reads {SignInTestRun.Few(shown)}.",
                "Remove that right: a bind account does not need these attributes.");
    }

    /// <summary>Attributes that the schema marks as confidential [MS-ADTS 2.2.10, bit 7].</summary>
    private static List<string> ConfidentialAttributes(SignInTestRun run, IPeopleSession session) =>
        session.Read("", "schemaNamingContext")?.First("schemaNamingContext") is { } schema
            ? [.. session.Search(
                schema, SearchScope.Subtree, $"(&(objectClass=attributeSchema)(searchFlags:{MatchingRules.AllBits}:=128))",
                SignInTestRun.OwnPageSize, "lDAPDisplayName").Select(a => a.First("lDAPDisplayName")).OfType<string>().Order()]
            : [];
}
