using JustRight.Core.Faults;

namespace JustRight.Core.Estates;

/// <summary>What an estate that is a rehearsal must keep, so that nothing of it can reach a real system.</summary>
public static class RehearsalRules
{
    private const string Ending = "-rehearsal";

    /// <summary>What the rehearsal of an estate, or of an install, is called.</summary>
    public static string NameOf(string name) => name + Ending;

    /// <summary>Its faults.</summary>
    /// <param name="estate">A rehearsal.</param>
    public static IEnumerable<Fault> Check(Estate estate)
    {
        if (estate.Rehearses is not { } of) yield break;
        if (estate.Name != NameOf(of))
            yield return new Fault("rehearsal-name", estate.At, "name", "The rehearsal of an estate is called after it.")
            {
                Found = estate.Name,
                Expected = NameOf(of),
            };
        if (estate.Directory is not { Reach: Reach.Simulation, SignInAs: null, Secret: null })
            yield return Real(estate.Directory.At, "directory");
        foreach (var host in estate.Hosts.Where(h => h.Reach is not (Reach.Simulation or Reach.None)))
            yield return Real(host.At, $"hosts.{host.Name}");
        foreach (var instance in estate.Instances.Where(i => i.Reach is not (Reach.Simulation or Reach.None)))
            yield return Real(instance.At, $"instances.{instance.Name}");
        foreach (var people in estate.PeopleDirectories)
            if (people.Reach is not (Reach.Simulation or Reach.None) || people.SignInAs is not null || people.Secret is not null)
                yield return Real(people.At, $"people-directories.{people.Key}");
        if (estate.Rules.Notifications.Mail.Count > 0 || estate.Rules.Notifications.Webhook is not null)
            yield return new Fault("rehearsal-tells", estate.At, "rules.notices",
                "Nobody is told of what happens in a rehearsal.")
            {
                Expected = "no notices",
            };
    }

    private static Fault Real(Origin at, string field) =>
        new("rehearsal-reach", at, field, "A rehearsal reaches nothing that is real, and names no secret.")
        {
            Expected = "reach: simulation or none, without an account and a secret",
        };
}
