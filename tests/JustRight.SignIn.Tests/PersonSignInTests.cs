using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Directory;

namespace JustRight.SignIn.Tests;

/// <summary>People signing in to ourselves with their directory account, against a real server of each family.</summary>
public abstract class PersonSignInTests(IPeopleServer server, SignInTestScene scene)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private bool AdLike => server.Directory.Family == DirectoryFamily.AdLike;

    [Theory]
    [InlineData("emil", "roster-drivers,roster-staff")]
    [InlineData("ANNA", "roster-staff")]
    [InlineData("greta", "other")]
    public async Task Somebody_is_found_with_all_their_groups_and_let_in_with_their_own_password_alone(
        string typed, string groups)
    {
        var person = (await FindAsync(typed)).ShouldNotBeNull();
        person.LogonName.ShouldBe(typed.ToLowerInvariant()); // as the directory writes it
        person.Dn.ShouldBe(scene.DnOf(typed.ToLowerInvariant()), StringCompareShould.IgnoreCase);
        person.Groups.Select(g => g.Split(',')[0][3..]).Order().ShouldBe(groups.Split(','));
        (await PersonSignIn.IsPasswordOfAsync(
            People, WireSecurity.Tls, person, new NewPassword(SignInTestScene.PersonPassword), Cancel))
            .ShouldBeTrue();
        (await PersonSignIn.IsPasswordOfAsync(
            People, WireSecurity.StartTls, person, new NewPassword(SignInTestScene.PersonPassword + "!"), Cancel))
            .ShouldBeFalse();
        // nobody's password, whatever the server makes of it
        (await PersonSignIn.IsPasswordOfAsync(People, WireSecurity.Tls, person, new NewPassword(""), Cancel)).ShouldBeFalse();
    }

    [Theory]
    [InlineData("*")]
    [InlineData("anna*")]
    [InlineData(" anna")]
    [InlineData("anna)(objectClass=*")]
    [InlineData("*)(|(objectClass=*")]
    [InlineData("nobody")]
    public async Task A_name_that_means_something_in_filters_is_nobody(string typed) => (await FindAsync(typed)).ShouldBeNull();

    [Fact]
    public async Task A_disabled_account_is_nobody_where_the_family_has_such_a_thing()
    {
        var fritz = await FindAsync("fritz");
        if (AdLike) fritz.ShouldBeNull();
        else fritz.ShouldNotBeNull();
    }

    private LdapPeopleDirectory People => new(server.Directory);

    private async Task<KnownPerson?> FindAsync(string name)
    {
        using var session = await People.BindAsync(
            WireSecurity.Tls, scene.Bind, new NewPassword(SignInTestScene.BindPassword), Cancel);
        return PersonSignIn.Find(session, server.Directory, name);
    }
}

/// <summary>Against a real controller.</summary>
[Collection("the controller's address")]
public sealed class AdLikePersonSignInTests(SceneOn<StaffServer> on)
    : PersonSignInTests(on.Server, on.Scene), IClassFixture<SceneOn<StaffServer>>;

/// <summary>Against a real server of the other family.</summary>
public sealed class InetOrgPersonSignInTests(SceneOn<ContractorsServer> on)
    : PersonSignInTests(on.Server, on.Scene), IClassFixture<SceneOn<ContractorsServer>>;
