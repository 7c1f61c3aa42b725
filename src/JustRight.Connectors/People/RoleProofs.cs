using JustRight.Core.SignIn;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>Proves each role of a product with one person who must have it.</summary>
internal static class RoleProofs
{
    /// <summary>A check for each role.</summary>
    public static async Task RunAsync(SignInTestRun run, IPeopleSession session)
    {
        foreach (var role in run.Plan.Roles)
            await run.NeedAsync(
                $"role/{role.Key}", $"Does somebody have the role {role.Called}?",
                (id, asks) => Prove(run, session, role, id, asks));
    }

    private static void Prove(SignInTestRun run, IPeopleSession session, PlannedRole role, string id, string asks)
    {
        if (role.Groups.FirstOrDefault(g => g.Dn is null) is { } unknown)
        {
            run.Unseen(
                id, asks, SignInCause.NotKnownYet, $"The location of {unknown.Name} is not known yet.",
                "Verify the install first, or carry out its worklist.");
            return;
        }

        if (role.Groups.FirstOrDefault(g => session.Read(g.Dn!, "objectClass") is null) is { } missing)
        {
            run.Fail(
                id, asks, SignInCause.GroupMissing, $"No: {missing.Dn} does not exist, or the bind account may not see it.",
                "Create the group, or name one that exists.");
            return;
        }

        if (role.Person is not { } name)
        {
            run.Unseen(
                id, asks, SignInCause.NothingExpected, "The install names nobody who must have it.",
                $"Name somebody in the install: sign-in.roles.{role.Key}.person.");
            return;
        }

        var found = PersonChecks.Search(run, session, name);
        if (found.Count != 1 || !PersonChecks.Enters(run, session, found[0]))
        {
            var absent = AbsenceFinder.Why(run, session, name);
            run.Fail(
                id, asks, absent?.Cause ?? SignInCause.NobodyFound,
                $"No: {name} cannot sign in at all: {absent?.Words ?? "no reason was found"}.",
                SignInRemedies.Of(absent?.Cause ?? SignInCause.NobodyFound, run.Plan, name));
            return;
        }

        var reasons = role.Groups.Select(g => WhyNot(run, session, found[0], g)).ToList();
        if (reasons.Exists(r => r is null))
        {
            var others = run.Plan.Roles
                .Where(o => o != role && o.Groups.Any(g => g.Dn is not null && WhyNot(run, session, found[0], g) is null))
                .Select(o => o.Called).ToList();
            run.Pass(id, asks, $"Yes: {name}{(others.Count > 0 ? $", who is also {string.Join(" and ", others)}" : "")}");
            return;
        }

        run.Fail(
            id, asks, reasons[0]!.Cause, $"No: {name} is {string.Join("; ", reasons.Select(r => r!.Words))}.",
            $"Put {name} into {string.Join(" or ", role.Groups.Select(g => g.Name))}, as a member that the product counts.");
    }

    private static WhyAbsent? WhyNot(
        SignInTestRun run, IPeopleSession session, Core.SignIn.Objects.PeopleObject person, RoleGroup group) =>
        AbsenceFinder.NotIn(run, session, person, group.Dn!, group.Name, byBackLink: false);
}
