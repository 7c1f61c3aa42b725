using System.Diagnostics;
using System.Globalization;
using JustRight.Bench;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Plans;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.Traces;

// Compares the cost of planning and judging at two sizes in one run, each in a process of its own so that peak memory is its own:
//   dotnet run -c Release --project bench/JustRight.Bench
// The directory connector against a real controller (Debian's samba-ad-dc; it takes some minutes to lay the objects):
//   dotnet run -c Release --project bench/JustRight.Bench directory
// A survey of 200 simulated hosts over SSH against a plain client (what ./test hosts installs; some ten minutes):
//   dotnet run -c Release --project bench/JustRight.Bench ssh
// A survey of a large simulated database instance against the client library alone (some two minutes):
//   dotnet run -c Release --project bench/JustRight.Bench instance
// A sign-in test among 70,000 people of a real inetOrgPerson directory (Debian's slapd; some two minutes):
//   dotnet run -c Release --project bench/JustRight.Bench sign-in
// Lists of an estate with 1,000 installs, among 200 readers, and of a log of 1,000,000 entries (some five minutes):
//   dotnet run -c Release --project bench/JustRight.Bench lists
// The client against a plain HTTP client, both as programs of their own (some ten seconds; what ./test client builds):
//   dotnet run -c Release --project bench/JustRight.Bench client
// Three years of an estate with 200 installs, a survey a day (some half hour):
//   dotnet run -c Release --project bench/JustRight.Bench years
// A rehearsal of an estate with 2,000 hosts and 20,000 accounts (some seconds):
//   dotnet run -c Release --project bench/JustRight.Bench rehearsal
// Planning and judging of today against those of an earlier commit, which is built beside it (some ten minutes):
//   dotnet run -c Release --project bench/JustRight.Bench since COMMIT
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["measure", var what, var size]) return Measure(what, double.Parse(size, CultureInfo.InvariantCulture));
if (args is ["directory"]) return await DirectoryBench.RunAsync();
if (args is ["directory", var reading, var place, var folder]) return await DirectoryBench.MeasureAsync(reading, place, folder);
if (args is ["ssh"]) return await SshBench.RunAsync(200);
if (args is ["instance"]) return await InstanceBench.RunAsync();
if (args is ["instance", var how, var port, var certificate]) return await InstanceBench.MeasureAsync(how, port, certificate);
if (args is ["lists"]) return await ListsBench.RunAsync("all");
if (args is ["lists", var part]) return await ListsBench.RunAsync(part);
if (args is ["rehearsal"]) return await RehearsalBench.RunAsync();
if (args is ["client"]) return await ClientBench.RunAsync();
if (args is ["years"]) return await YearsBench.RunAsync(1096);
if (args is ["years", var days]) return await YearsBench.RunAsync(int.Parse(days, CultureInfo.InvariantCulture));
if (args is ["since", var commit]) return await EarlierBench.RunAsync(commit);
if (args is ["sign-in"]) return await SignInBench.RunAsync();
if (args is ["sign-in", var reading2, var port2]) return await SignInBench.MeasureAsync(reading2, port2);
if (args.Length > 0)
{
    Console.Error.WriteLine(
        "Usage: dotnet run -c Release --project bench/JustRight.Bench [directory | ssh | instance | sign-in | lists [pages | readers | log | people] | client | rehearsal | years [DAYS] | since COMMIT]");
    return 2;
}

Console.WriteLine("what      size    accounts   groups   installs   seconds   peak MB   result");
foreach (var measured in new[] { "fit", "closure", "access", "answers", "hosts", "database", "filter" })
{
    var small = await OwnProcess.MeasureAsync(5, "measure", measured, "0.1");
    var large = await OwnProcess.MeasureAsync(5, "measure", measured, "1");
    Console.WriteLine($"{measured,-9} ratio of seconds for ten times the input: {large / small:0.0} (linear is 10, the mark is 11)");
}

return 0;

static int Measure(string what, double size)
{
    Warm(what);
    var estate = new SyntheticEstate(what is "access" or "answers" or "hosts" or "database" or "filter" ? 0.01 : size);
    var (seconds, result) = what switch
    {
        "fit" => Fit(estate),
        "closure" => Closure(estate),
        "database" => Database(new SyntheticInstance(size)),
        "filter" => Filters(new SyntheticPeople((int)(100_000 * size))),
        "answers" => Answers(new SyntheticTree((int)(1_000_000 * size), 5_000)),
        "hosts" => Hosts(new SyntheticHosts((int)(2_000 * size))),
        _ => Access(new SyntheticTree((int)(1_000_000 * size), 5_000)),
    };
    var peak = Process.GetCurrentProcess().PeakWorkingSet64 / 1_000_000.0;
    Console.WriteLine($"{what,-9} {size,-7} {100_000 * size,-10} {20_000 * size,-8} {estate.Installs,-10} {seconds,-9:0.00} {peak,-9:0} {result}");
    return 0;
}

// The compiler's own work must not count against the small size, nor against either: a service has run for a while.
static void Warm(string what)
{
    for (var clock = Stopwatch.StartNew(); clock.Elapsed.TotalSeconds < 4;)
    {
        var estate = new SyntheticEstate(0.01);
        if (what == "fit") Fit(estate);
        else if (what == "closure") Closure(estate);
        else if (what == "access") Access(new SyntheticTree(20_000, 500));
        else if (what == "answers") Answers(new SyntheticTree(20_000, 500));
        else if (what == "database") Database(new SyntheticInstance(0.1));
        else if (what == "filter") Filters(new SyntheticPeople(2_000));
        else Hosts(new SyntheticHosts(20));
    }
}

// A filter such as products want, with groups inside groups, over all people: as the workbench does it again with each letter typed.
static (double Seconds, string Result) Filters(SyntheticPeople synthetic)
{
    var table = synthetic.Table();
    var filter = FilterParser.Parse(
        $"(&(objectCategory=person)(objectClass=user)(!(userAccountControl:{MatchingRules.AllBits}:=2))(memberOf:{MatchingRules.Chain}:={SyntheticPeople.Top})(|(mail=person.1*)(cn=*7*)))");
    GC.Collect();
    var clock = Stopwatch.StartNew();
    FilterEvaluator.Matching(filter, table);
    var first = clock.Elapsed;
    GC.Collect();
    clock.Restart();
    var found = FilterEvaluator.Matching(filter, table).Count;
    return (
        clock.Elapsed.TotalSeconds, $"{found} found; the first time {first.TotalSeconds:0.00} s, with the columns to prepare");
}

// One account in 400 groups over every object of a tree, three attributes, on one core.
static (double Seconds, string Result) Access(SyntheticTree synthetic)
{
    var tree = new AccessTree(synthetic.Snapshot());
    var right = new BranchAsked(DirectoryAct.WriteAttributes, ["mail", "roomNumber", "wWWHomePage"], "user", SyntheticTree.Root);
    GC.Collect();
    var clock = Stopwatch.StartNew();
    var (answer, _) = new BranchJudge(new AccessSweep(tree, SyntheticTree.Token()), SyntheticTree.DomainSid, _ => false)
        .Judge(right);
    return (clock.Elapsed.TotalSeconds, $"{answer!.Can} can, {answer.Cannot} cannot, {answer.Failures.Count} causes");
}

// As many questions as a tenth of the objects, each about another object and one of five attributes, with why not.
static (double Seconds, string Result) Answers(SyntheticTree synthetic)
{
    var tree = new AccessTree(synthetic.Snapshot());
    var answers = new AccessAnswers(_ => new BranchJudge(
        new AccessSweep(tree, SyntheticTree.Token()), SyntheticTree.DomainSid, _ => false));
    var asked = new[] { "mail", "roomNumber", "wWWHomePage", "telephoneNumber", "info" }
        .Select(a => new BranchAsked(DirectoryAct.WriteAttributes, [a], "", "")).ToList();
    var questions = tree.Count / 10;
    GC.Collect();
    var clock = Stopwatch.StartNew();
    var can = 0;
    for (var i = 0; i < questions; i++)
        if (answers.OfObject(0, asked[i % asked.Count], i * 10 % tree.Count).Answer == AccessAnswer.Yes) can++;
    return (
        clock.Elapsed.TotalSeconds,
        $"{questions} questions, {can} can: {questions / clock.Elapsed.TotalSeconds:0} answers a second");
}

// The fit of one install over every host, 50 lists of rights and 40 services each, the survey's preparation included.
static (double Seconds, string Result) Hosts(SyntheticHosts synthetic)
{
    var (survey, plan) = (synthetic.Survey(), synthetic.Plan());
    GC.Collect();
    var clock = Stopwatch.StartNew();
    var fit = new FitJudge(AllEngines.View(survey), new NeedsIndex([plan]), new OrganizationRules([], null, []), new Present(survey.TakenAt))
        .Judge(plan);
    return (
        clock.Elapsed.TotalSeconds,
        $"{fit.Accounts[0].Judgements.Count} verdicts, {fit.Counts.Met} met, {fit.Counts.Excess} excess");
}

// The fit of a hundred accounts against one large instance; the survey's preparation, which every install shares, is told beside it.
static (double Seconds, string Result) Database(SyntheticInstance synthetic)
{
    var (survey, plan) = (synthetic.Survey(), synthetic.Plan());
    GC.Collect();
    var clock = Stopwatch.StartNew();
    var view = AllEngines.View(survey);
    var prepared = clock.Elapsed.TotalSeconds;
    var fit = new FitJudge(view, new NeedsIndex([plan]), new OrganizationRules([], null, []), new Present(survey.TakenAt)).Judge(plan);
    return (
        clock.Elapsed.TotalSeconds - prepared,
        $"{fit.Accounts.Sum(a => a.Judgements.Count)} verdicts, {fit.Counts.Met} met, {fit.Counts.Excess} excess; prepared in {prepared:0.00} s");
}

// Plan and fit of every install over one survey, the survey's preparation included.
static (double Seconds, string Result) Fit(SyntheticEstate estate)
{
    var survey = estate.Survey();
    GC.Collect();
    var clock = Stopwatch.StartNew();
    var plans = Enumerable.Range(0, estate.Installs)
        .Select(i => Planner.Make(estate.Sheet, estate.Estate, estate.Install(i), NameIndex.Empty).Plan!).ToList();
    var judge = new FitJudge(AllEngines.View(survey), new NeedsIndex(plans), new OrganizationRules([], null, []), new Present(survey.TakenAt));
    long rights = 0, met = 0;
    foreach (var plan in plans)
    {
        var fit = judge.Judge(plan);
        rights += fit.Accounts.Sum(a => a.Judgements.Count);
        met += fit.Counts.Met;
    }

    return (clock.Elapsed.TotalSeconds, $"{rights} verdicts, {met} met");
}

// The closure of every account, on one core, the graph's making included.
static (double Seconds, string Result) Closure(SyntheticEstate estate)
{
    var directory = estate.Directory();
    GC.Collect();
    var clock = Stopwatch.StartNew();
    var graph = new MembershipGraph(directory);
    var scratch = new ClosureScratch(graph.Count);
    long memberships = 0;
    for (var node = 0; node < graph.Count; node++)
        if (graph.PrincipalOf(node) is { PrimaryGroupRid: > 0 }) memberships += graph.Closure(node, scratch).Count;
    return (clock.Elapsed.TotalSeconds, $"{memberships} memberships");
}
