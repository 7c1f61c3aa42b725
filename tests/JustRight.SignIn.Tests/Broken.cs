using System.DirectoryServices.Protocols;
using System.Net;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.SignIn.Tests;

/// <summary>A directory that people cannot sign in with, or should not, for one reason.</summary>
/// <param name="Name">What is broken.</param>
/// <param name="Check">The check that has to tell it.</param>
/// <param name="Cause">The cause it has to tell.</param>
/// <param name="Remedy">What its remedy has to say.</param>
public sealed record Broken(string Name, string Check, CheckVerdict Verdict, SignInCause Cause, string Remedy)
{
    /// <summary>The plan; that of the scene as it is when it is not given.</summary>
    public Func<SignInTestScene, IPeopleServer, PlannedSignIn>? Plan { get; init; }

    /// <summary>What is written before.</summary>
    public Action<SignInTestScene, IPeopleServer, LdapConnection>? Write { get; init; }

    /// <summary>What is done to the server before.</summary>
    public Func<IPeopleServer, Task>? Before { get; init; }

    /// <summary>The addresses of the server's name; its own when it is not given.</summary>
    public IPAddress[]? Addresses { get; init; }

    /// <summary>The bind account's password.</summary>
    public string Bind { get; init; } = SignInTestScene.BindPassword;

    /// <summary>The password of the person who must be able to sign in.</summary>
    public string? Person { get; init; } = SignInTestScene.PersonPassword;

    /// <summary>Runs the test and judges what it tells.</summary>
    public async Task ShouldBeToldAsync(SignInTestScene scene, IPeopleServer server)
    {
        if (Before is not null) await Before(server);
        if (Write is not null)
        {
            using var connection = server.Write();
            Write(scene, server, connection);
        }

        var plan = Plan?.Invoke(scene, server) ?? scene.Plan(Core.Directory.WireSecurity.Tls);
        var test = await scene.TryAsync(
            plan, Bind, Person, resolve: Addresses is null ? null : (_, _) => Task.FromResult(Addresses));
        var words = string.Join('\n', test.Checks.Select(c => $"{c.Verdict} {c.Id} ({c.Cause}): {c.Fact} -> {c.Fix}"));
        var check = test.Checks.SingleOrDefault(c => c.Id == Check).ShouldNotBeNull($"{Name}\n{words}");
        (check.Verdict, check.Cause).ShouldBe((Verdict, (SignInCause?)Cause), $"{Name}\n{words}");
        check.Fix.ShouldNotBeNull(words).ShouldContain(Remedy, customMessage: words);
        words.ShouldNotContain(Bind);
    }
}
