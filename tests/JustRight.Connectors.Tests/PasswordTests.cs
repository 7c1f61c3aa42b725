using System.DirectoryServices.Protocols;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Changes;

namespace JustRight.Connectors.Tests;

/// <summary>Passwords on a real controller: what it counts, what it asks for, that none is spent that would lock an account, that a new one counts.</summary>
public sealed class PasswordTests(Controller controller)
{
    private const string Root = "DC=fennmoor,DC=example";
    private readonly LdapDirectory _directory = new(controller.Target, new DirectorySchemas(), TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task The_policy_of_its_own_counts_and_the_last_try_is_never_spent()
    {
        var right = await MakeAsync("svc-tried");
        (await _directory.ReadPasswordAsync("svc-tried", Cancel)).ShouldSatisfyAllConditions(
            f => f.SetAt.ShouldNotBeNull()
                .ShouldBe(DateTimeOffset.UtcNow, TimeSpan.FromMinutes(5)), f =>
                    f.WrongPasswords.ShouldBe(0), f => f.LockedAfter.ShouldBe(0), f => f.LeastLength.ShouldNotBeNull()
                .ShouldBeGreaterThan(0), f => f.WhyNotTried(DateTimeOffset.UtcNow).ShouldBeNull());
        Policy("svc-tried", lockedAfter: 3, leastLength: 40);
        (await _directory.ReadPasswordAsync("svc-tried", Cancel))
            .ShouldSatisfyAllConditions(
                f => f.LockedAfter.ShouldBe(3), f => f.LeastLength.ShouldBe(40),
                f => f.CountedFor.ShouldBe(TimeSpan.FromMinutes(30)));

        (await _directory.TryPasswordAsync("svc-tried", right, Cancel)).Works.ShouldBe(true);
        var tries = 0;
        while ((await _directory.ReadPasswordAsync("svc-tried", Cancel)).WhyNotTried(DateTimeOffset.UtcNow) is null)
        {
            var tried = await _directory.TryPasswordAsync("svc-tried", NewPassword.Generate(), Cancel);
            tried.Works.ShouldBe(false);
            tried.Words.ShouldContain("wrong name or password");
            (++tries).ShouldBeLessThan(5);
        }

        tries.ShouldBe(2);
        var facts = await _directory.ReadPasswordAsync("svc-tried", Cancel);
        facts.WhyNotTried(DateTimeOffset.UtcNow).ShouldNotBeNull()
            .ShouldContain("counts 2 wrong passwords and locks svc-tried at 3");
        facts.Locked.ShouldBeFalse();
        (await _directory.TryPasswordAsync("svc-tried", right, Cancel)).Works.ShouldBe(true); // it was not locked
        (await _directory.ReadPasswordAsync("svc-tried", Cancel)).WrongPasswords.ShouldBe(0);
    }

    [Fact]
    public async Task A_new_one_counts_at_once_and_shows_and_one_that_is_too_short_is_refused_without_being_quoted()
    {
        var old = await MakeAsync("svc-renewed");
        Policy("svc-renewed", lockedAfter: 0, leastLength: 40);
        var before = (await _directory.ReadPasswordAsync("svc-renewed", Cancel)).SetAt;
        var change = new SetPassword("FENNMOOR", "svc-renewed", before);
        (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.NotDone);
        var shorter = NewPassword.Generate();
        (await _directory.MakeAsync(
            change, shorter, Cancel).ShouldThrowAsync<ConnectorException>()).Message.ShouldNotContain(shorter.Reveal());
        (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.NotDone);

        var fresh = NewPassword.Generate(40);
        await _directory.MakeAsync(change, fresh, Cancel);
        (await _directory.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.Done);
        (await _directory.TryPasswordAsync("svc-renewed", fresh, Cancel)).Works.ShouldBe(true);
        (await _directory.ReadPasswordAsync("svc-renewed", Cancel)).SetAt.ShouldNotBe(before);
        (await _directory.ReadPasswordAsync("svc-nobody", Cancel).ShouldThrowAsync<ConnectorException>()).Message.ShouldContain(
            "there is no svc-nobody");
        (await _directory.ObserveAsync(change with { Name = "svc-nobody" }, Cancel)).State.ShouldBe(ObservedState.Impossible);
        old.Reveal().ShouldNotBe(fresh.Reveal());
    }

    private async Task<NewPassword> MakeAsync(string name)
    {
        var password = NewPassword.Generate();
        await _directory.MakeAsync(
            new CreateAccount("FENNMOOR", name, $"CN={name},CN=Users,{Root}", $"{name}@fennmoor.example", "", true), password,
            Cancel);
        return password;
    }

    /// <summary>A policy of passwords for one account alone [MS-ADSC 2.192, msDS-PasswordSettings].</summary>
    private void Policy(string account, int lockedAfter, int leastLength)
    {
        const string halfAnHour = "-18000000000";
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        raw.Do(new AddRequest($"CN=for {account},CN=Password Settings Container,CN=System,{Root}", [
            new("objectClass", "msDS-PasswordSettings"), new("msDS-PasswordSettingsPrecedence", "10"), new(
                "msDS-PasswordReversibleEncryptionEnabled", "FALSE"), new("msDS-PasswordHistoryLength", "0"),
            new("msDS-PasswordComplexityEnabled", "TRUE"), new(
                "msDS-MinimumPasswordLength",
                $"{leastLength}"), new("msDS-MinimumPasswordAge", "0"), new("msDS-MaximumPasswordAge", "-36288000000000"),
            new("msDS-LockoutThreshold", $"{lockedAfter}"), new(
                "msDS-LockoutObservationWindow", halfAnHour), new("msDS-LockoutDuration", halfAnHour), new(
                "msDS-PSOAppliesTo", $"CN={account},CN=Users,{Root}")]));
    }
}
