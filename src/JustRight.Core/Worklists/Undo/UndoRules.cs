using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Core.Worklists.Undo;

/// <summary>
/// What undoing a job may do, as careful as retiring. It is blocked while a service runs as what would go, another install needs
/// it, or it holds what the job did not give. Accounts are disabled first. Deleted is only what the job made, still carries its
/// note and is known to be unused; what is not known counts as use.
/// </summary>
public sealed class UndoRules
{
    private readonly UndoFacts _facts;
    private readonly IReadOnlyList<Change> _made;
    private readonly IReadOnlyList<Change> _inverses;
    private readonly List<string> _blocked = [];
    private readonly List<string> _left = [];
    private readonly List<Change> _disable = [];
    private readonly HashSet<Change> _kept = [];

    private UndoRules(IReadOnlyList<Change> made, UndoFacts facts)
    {
        (_made, _facts) = (made, facts);
        _inverses = Undoing.Of(made);
    }

    /// <summary>The changes that undo others, or why they may not be made.</summary>
    /// <param name="made">The changes in the order in which they were made; none of them final.</param>
    public static UndoPlan Of(IReadOnlyList<Change> made, UndoFacts facts) => new UndoRules(made, facts).Plan();

    /// <summary>
    /// The accounts of which the controllers are to be asked, and the passwords looked for: those that the job created.
    /// </summary>
    public static IReadOnlyList<string> AccountsOf(IReadOnlyList<Change> made) =>
        [.. made.OfType<CreateAccount>().Select(c => c.Name)];

    private UndoPlan Plan()
    {
        if (_facts.View is not { Survey.Directory.Unread: null } view)
        {
            var unread = _facts.View?.Survey.Directory.Unread;
            return _inverses.OfType<DirectoryChange>().Any(c => c is DeleteAccount or DeleteGroup)
                ? new UndoPlan(
                    [], [unread is null ? "no survey was taken: survey the estate first"
                    : $"the directory could not be read: {unread}"], [])
                : new UndoPlan(_inverses, [], []);
        }

        var cuts = new UndoCuts(view, _inverses);
        foreach (var account in _made.OfType<CreateAccount>()) Account(view, cuts, account);
        foreach (var group in _made.OfType<CreateGroup>()) Group(view, cuts, group);
        Doors(view, cuts);
        Services();
        Inheritance(view);
        if (BrokenNeeds.Of(view, _facts.Needs, cuts.Cuts, cuts.Touched, Counts) is { } broken)
            _blocked.Add($"it would break {broken}");
        Branches();
        return new UndoPlan(Ordered(), [.. _blocked.Distinct()], [.. _left.Distinct()]);
    }

    /// <summary>What the job itself was for is what undoing takes away.</summary>
    private bool Counts(string account, StandingNeed need) =>
        need.Install != _facts.Install && !Same(account, _facts.Fixed ?? "");

    /// <summary>Services go back first; then accounts are disabled, and only then anything is taken from them.</summary>
    private List<Change> Ordered()
    {
        var changes = _inverses.Where(c => !_kept.Contains(c)).ToList();
        var first = changes.FindIndex(c => c is not (ServiceChange or RefreshPolicy));
        changes.InsertRange(first < 0 ? changes.Count : first, _disable);
        return changes;
    }

    private void Account(SurveyView view, UndoCuts cuts, CreateAccount made)
    {
        var node = view.Graph.IndexOf(made.Name);
        if (node < 0 || view.Graph.PrincipalOf(node) is not { } found) return; // gone already
        if (!IsOurs(made.Note, found.Note))
        {
            _blocked.Add($"{made.Name} does not carry the note of this job: it is another account");
            return;
        }

        foreach (var running in Running(view, made)) _blocked.Add(running);
        Users(made.Name);
        Holds(view, cuts, made.Name, node);
        if (!found.State.HasFlag(AccountState.Disabled)) _disable.Add(new DisableAccount(made.Domain, made.Name));
        if (WhyUsed(view, made) is not { } why) return;
        Keep<DeleteAccount>(c => c.Name == made.Name);
        _left.Add($"{made.Name} stays, disabled: {why}. {Retire}");
    }

    private void Group(SurveyView view, UndoCuts cuts, CreateGroup made)
    {
        var node = view.Graph.IndexOf(made.Name);
        if (node < 0 || view.Graph.PrincipalOf(node) is not { } found) return;
        if (!IsOurs(made.Note, found.Note))
        {
            _blocked.Add($"{made.Name} does not carry the note of this job: it is another group");
            return;
        }

        Users(made.Name);
        Holds(view, cuts, made.Name, node);
        var added = _made.OfType<AddMember>().Where(c => Same(c.Group, made.Name)).Select(c => view.Graph.IndexOf(c.Member))
            .ToHashSet();
        foreach (var member in found.Members.Select(view.Graph.IndexOf).Where(m => !added.Contains(m)))
            _blocked.Add($"{view.Graph.NameOf(member)} is in {made.Name}, and this job did not put it there");
        if (found.MembersUnread is { } unread) _blocked.Add($"who is in {made.Name} could not be read: {unread}");
        if (WhyNotPlanned() is not { } why) return;
        Keep<DeleteGroup>(c => c.Name == made.Name);
        _left.Add($"{made.Name} stays, empty: {why}. {Retire}");
    }

    /// <summary>An object from before notes were written carries none: whether it is ours is not known.</summary>
    private static bool IsOurs(string wanted, string found) => wanted.Length == 0 || wanted == found;

    /// <summary>Services that are set to run as an account, or run as it now, and that the job did not set so.</summary>
    private IEnumerable<string> Running(SurveyView view, CreateAccount made)
    {
        var upnSuffix = made.Upn[(made.Upn.IndexOf('@', StringComparison.Ordinal) + 1)..];
        var sid = view.Graph.SidOf(view.Graph.IndexOf(made.Name));
        foreach (var host in view.Survey.Hosts)
        {
            foreach (var service in host.Services)
            {
                if (_made.OfType<SetServiceAccount>().Any(
                    s => Same(s.Host, host.Name) && Same(s.Service, service.Name))) continue;
                if (ServiceJudge.IsAccount(service.Account, host.Name, made.Name, made.Domain, upnSuffix))
                    yield return $"{service.Name} on {host.Name} is set to run as {made.Name}: {OtherAccount}";
                else if (service.RunsNowAsSid == sid || service.RunsNowAs is { } now && ServiceJudge.IsAccount(
                    now, host.Name, made.Name, made.Domain, upnSuffix))
                    yield return $"{service.Name} on {host.Name} still runs as {made.Name}: restart it first";
            }
        }
    }

    private const string OtherAccount = "give it another account first, or uninstall it";

    private void Users(string name)
    {
        foreach (var user in _facts.Needs.UsersOf(name).Distinct().Where(u => u != _facts.Install)) _blocked.Add(
            $"{user} uses {name}");
    }

    /// <summary>Whatever is left of its rights when what the job gave is thought away came from elsewhere.</summary>
    private void Holds(SurveyView view, UndoCuts cuts, string name, int node)
    {
        foreach (var right in RestOf(view, cuts, node, ownOnly: false).Take(MostNamed)) _blocked.Add(
            $"{name} holds {right}, which this job did not give");
    }

    private const int MostNamed = 5;

    /// <summary>
    /// What a principal still holds when what the job gave is thought away. What a role brings along goes with the role.
    /// </summary>
    /// <param name="ownOnly">Whether only its own entries count, and not those of groups that it is in.</param>
    private IEnumerable<Right> RestOf(SurveyView view, UndoCuts cuts, int node, bool ownOnly)
    {
        var doors = _inverses.OfType<InstanceChange>().Where(c => c is DropLogin or DropDatabaseUser).Select(c => c.Instance)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        return view.HoldingsOf(node, cuts.Cuts).All()
            .Where(h => view.Baseline.Of(h.Right).Count == 0)
            .Where(h =>
                h.Tails.Any(
                t => !view.Graph.Baseline.Contains(t.Node) && !(ownOnly && t.Node != node) && !t.Tail.Steps.Any(
                s => s.Kind == StepKind.Role)))
            .Select(h => h.Right)
            .Where(r => !(r.OnlyLetsIn && doors.Contains(r.AtInstance ?? "")));
    }

    /// <summary>A login or user that is dropped takes along what else it holds there: also that must be of this job.</summary>
    private void Doors(SurveyView view, UndoCuts cuts)
    {
        foreach (var door in _inverses.OfType<InstanceChange>().Where(c => c is DropLogin or DropDatabaseUser))
        {
            var node = view.Graph.IndexOf(LogonName.WithoutDomain(door.Principal));
            if (node < 0 || view.Instance(door.Instance) is not { Unread: null }) continue;
            var what = door is DropLogin ? "login" : "user";
            var rest = RestOf(view, cuts, node, ownOnly: true).Where(r => Same(r.AtInstance ?? "", door.Instance));
            foreach (var right in rest.Take(MostNamed))
                _blocked.Add($"{door.Principal} holds {right}, which this job did not give and which would go with its {what}");
        }
    }

    /// <summary>What a service is set to may be what another install needs.</summary>
    private void Services()
    {
        foreach (var change in _made.OfType<ServiceChange>())
        {
            var (aspect, account) = change switch
            {
                SetServiceAccount c => (ServiceAspect.Identity, c.Account),
                SetServiceStart => (ServiceAspect.Start, null),
                SetServiceOrder => (ServiceAspect.Order, null),
                RestartService or GiveServicePassword => (ServiceAspect.Restarted, null),
                _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
            };
            if (aspect == ServiceAspect.Restarted) continue;
            var right = AllEngines.OfService(new ServiceAsked(change.Host, change.Service, aspect));
            var names = account is null ? _facts.Needs.Accounts : [LogonName.WithoutDomain(account)];
            foreach (var user in names.SelectMany(n => _facts.Needs.Installs(n, right)).Distinct().Where(
                u => u != _facts.Install))
                _blocked.Add($"{user} needs {change.Service} on {change.Host} as it is set");
        }
    }

    /// <summary>Where inheritance would be disabled again, a right over a branch around it may be lost.</summary>
    private void Inheritance(SurveyView view)
    {
        foreach (var off in _inverses.OfType<SwitchInheritance>().Where(c => !c.On))
        {
            if (view.Tree is not { } tree || tree.IndexOf(off.Dn) is not (>= 0 and var at)
                || tree.DescriptorOf(at) is not { } list)
            {
                _blocked.Add($"the ACL of {off.Dn} was not read: who loses something by disabling its inheritance is not known");
                continue;
            }

            var made = new Dictionary<int, SecurityDescriptor> { [at] = AccessListChanges.Made(off, list, default) };
            var then = view.With(tree.With(made));
            foreach (var account in _facts.Needs.Accounts.Where(a => view.Graph.IndexOf(a) >= 0))
                foreach (var need in _facts.Needs.Of(account).Where(n => Counts(account, n) && IsAround(n.Grant.Right, off.Dn)))
                    if (Reach(view, account, need) > Reach(then, account, need))
                        _blocked.Add($"{need.Install} needs {need.Grant.Right} for {account}, by inheritance at {off.Dn}");
        }
    }

    private static bool IsAround(Right right, string dn) => right.Below is { } asked
        && (DistinguishedName.IsAtOrBelow(dn, asked.Branch) || DistinguishedName.IsAtOrBelow(asked.Branch, dn));

    /// <summary>How many objects grant an account what it needs.</summary>
    private static int Reach(SurveyView view, string account, StandingNeed need) =>
        need.Grant.Right.BranchIn(view.HoldingsOf(view.Graph.IndexOf(account))).Facts?.Can ?? 0;

    /// <summary>A branch stays with what stays in it.</summary>
    private void Branches()
    {
        var staying = _kept.OfType<DeleteAccount>().Select(c => c.Dn).Concat(_kept.OfType<DeleteGroup>().Select(c => c.Dn))
            .ToList();
        foreach (var branch in _inverses.OfType<DeleteBranch>().Where(
            b => staying.Any(dn => DistinguishedName.IsAtOrBelow(dn, b.Dn))))
        {
            _kept.Add(branch);
            _left.Add($"{branch.Dn} stays: it is not empty");
        }

        Protections();
    }

    /// <summary>
    /// An OU that stays, stays protected. What was entered above it, to protect it, protects the OUs beside it by now.
    /// </summary>
    private void Protections()
    {
        var stay = _kept.OfType<DeleteBranch>().Select(b => b.Dn).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var above = _made.OfType<CreateBranch>().Select(b => DistinguishedName.Parse(b.Dn).Parent?.Text).OfType<string>()
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        foreach (var denial in _inverses.OfType<RemoveAccessRule>().Where(r => r.Rule.Denies))
        {
            if (stay.Contains(denial.Dn)) _kept.Add(denial);
            if (!above.Contains(denial.Dn) || !DeletionProtection.ProtectsChildren(denial.Rule)) continue;
            _kept.Add(denial);
            _left.Add($"what is below {denial.Dn} stays protected from deletion: that is also for other OUs there");
        }
    }

    /// <summary>Why an account is not known to be unused, or null when it is.</summary>
    private string? WhyUsed(SurveyView view, CreateAccount made)
    {
        if (made.Note.Length == 0) return "it carries no note of its creation";
        if (WhyNotPlanned() is { } stage) return stage;
        if (_facts.PasswordsOut.Contains(
            made.Name)) return "its password was handed over, so it may be in use where nobody looked";
        if (!_facts.Uses.TryGetValue(made.Name, out var use)) return "the domain controllers were not asked whether it signed in";
        if (use.WhyNotUnused() is { } used) return used;
        return view.UnreadParts.Count == 0 ? null
            : $"{view.UnreadParts[0].Place} could not be read: whether it is used there is not known";
    }

    private string? WhyNotPlanned() => _facts.Stage switch
    {
        Stage.Planned => null,
        Stage.Installed => "its product is installed",
        Stage.Retiring => "its install is being retired, which takes it away when its time comes",
        null => "the stage of its install is not known",
    };

    private string Retire => _facts.Install is { } install
        ? $"To have it deleted, retire the install: justright install stage {install} retiring"
        : "Whoever uses it decides when it is deleted";

    private void Keep<T>(Func<T, bool> which)
        where T : Change
    {
        foreach (var change in _inverses.OfType<T>().Where(which)) _kept.Add(change);
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
