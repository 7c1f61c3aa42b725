using System.Text;
using JustRight.Core.Plans;

namespace JustRight.Formats.Tests;

/// <summary>
/// The plan of every install of the demo, line by line, in <c>demo-plans.txt</c>. Written anew with
/// <c>JUSTRIGHT_WRITE_PLANS=yes</c>, and read before it is kept.
/// </summary>
public sealed class DemoPlansTests
{
    private static readonly string Kept = Path.Combine(Checkout.Top, "tests", "JustRight.Formats.Tests", "demo-plans.txt");

    [Fact]
    public void Every_plan_is_as_it_is_kept()
    {
        var told = new StringBuilder();
        var files = Directory.EnumerateFiles(Path.Combine(Checkout.Top, "demo-data", "installs"));
        foreach (var file in files.Order(StringComparer.Ordinal))
        {
            var install = Path.GetFileNameWithoutExtension(file);
            var (plan, faults) = DemoFiles.Plan(
                install[..install.LastIndexOf('-')], install: DemoFiles.Text($"installs/{install}.yaml"));
            faults.ShouldBeEmpty();
            foreach (var line in Lines(plan!)) told.Append(line).Append('\n');
        }

        if (Environment.GetEnvironmentVariable("JUSTRIGHT_WRITE_PLANS") is not null) File.WriteAllText(Kept, told.ToString());
        told.ToString().ShouldBe(File.ReadAllText(Kept));
    }

    private static IEnumerable<string> Lines(Plan plan)
    {
        yield return $"{plan.Install}: {plan.Sheet}, {plan.Title}, in {plan.Estate} ({plan.Domain}, {plan.UpnSuffix}), "
            + $"{plan.Stage}";
        foreach (var note in plan.Notes) yield return $"  note: {note}";
        foreach (var b in plan.Branches) yield return $"  branch {b.Dn} {b.At}";
        foreach (var g in plan.Groups)
        {
            yield return $"  group {g.Key} = {g.Name}, {g.Dn ?? "there already"}, {g.Scope}{If(g.Closed, ", closed")}"
                + $", of {string.Join(", ", g.Members)}, '{g.Description}' {g.At}";
        }

        foreach (var a in plan.Accounts)
        {
            yield return $"  account {a.Key} = {a.Name}, {a.Dn ?? "there already"}, as {a.WorksAs}"
                + $"{If(a.PasswordNeverExpires, ", never expires")}{If(a.PasswordCannotChange, ", cannot change its password")}"
                + $"{If(a.NeverExpires is not null, $", because {a.NeverExpires?.Why}")}, '{a.Description}' {a.At}";
        }

        foreach (var g in plan.Grants)
        {
            yield return $"  {g.Id}: {g.Right}, by {g.GivenBy}, until {g.Until}, {g.Team}{If(g.MadeBySetup, ", made by setup")}"
                + $"{If(g.Through is not null, $", through {g.Through}")}{If(g.Place is not null, $", at {g.Place}")}"
                + $"{If(g.Decision is not null, $", decided {g.Decision}")}{If(g.Why is not null, $", '{g.Why}'")} {g.At}";
        }

        foreach (var d in plan.Decisions)
        {
            yield return $"  decision {d.Id}: {d.Taken}{If(d.ByInstall, " by the install")}, {d.Reason} {d.At}";
            foreach (var a in d.Alternatives)
                yield return $"    {a.Label} ({a.Reach}, {a.ReachReason}): {string.Join("; ", a.Rights)}";
        }

        foreach (var f in plan.Forbidden) yield return $"  forbidden {f.Account} {f.Group}{f.Act}: {f.Why} {f.At}";
        foreach (var s in plan.Separate) yield return $"  separate {string.Join(", ", s.Accounts)}: {s.Why} {s.At}";
        foreach (var (instance, engine) in plan.Engines.OrderBy(e => e.Key, StringComparer.Ordinal))
            yield return $"  {instance}: {engine}";
        foreach (var s in plan.SecretStores) yield return $"  secrets in {s.Instance}/{s.Database} {s.At}";
        foreach (var p in plan.TypedIn) yield return $"  typed in {p.Id}: {p.Words}, {p.Product}, {p.Install}";
        foreach (var s in plan.Services)
        {
            yield return $"  service {s.Name} on {s.Host} ({s.Place}) as {s.Account}, starts {s.Start}"
                + $", after {string.Join(", ", s.After)}, by {s.GivenBy} {s.At}";
        }

        if (plan.SignIn is { } signIn)
        {
            yield return $"  sign-in by {signIn.Directory.Key}: {signIn.Security}, on {string.Join(", ", signIn.TypedOn)}"
                + $", binds as {signIn.BindLogonName} {signIn.BindDn}, enters {signIn.EnterName} {signIn.EnterDn}";
        }
    }

    private static string If(bool holds, string words) => holds ? words : "";
}
