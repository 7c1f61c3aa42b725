namespace JustRight.Connectors.Tests;

public sealed class NewPasswordTests
{
    [Fact]
    public void Generated_passwords_are_long_mixed_never_the_same_and_never_print_themselves()
    {
        var passwords = Enumerable.Range(0, 200).Select(_ => NewPassword.Generate()).ToList();
        passwords.Select(p => p.Reveal()).Distinct().Count().ShouldBe(200);
        passwords.ShouldAllBe(p => p.Reveal().Length == 32 && p.Reveal().Any(char.IsUpper) && p.Reveal().Any(char.IsLower) && p.Reveal().Any(char.IsDigit) && p.Reveal().Any(c => !char.IsLetterOrDigit(c)));
        $"{passwords[0]} {new[] { passwords[0] }[0]}".ShouldNotContain(passwords[0].Reveal());
    }

    [Theory]
    [InlineData("plain-7.K", "host said plain-7.K twice: PLAIN-7.K", "host said (a password) twice: (a password)")]
    [InlineData("Kein+Käse\"7", """{"password":"Kein\u002BK\u00E4se\u00227"}""", """{"password":"(a password)"}""")] // as we write JSON
    [InlineData("Kein+Käse\"7", """{"password":"Kein+Käse\"7"}""", """{"password":"(a password)"}""")] // as others do
    [InlineData("", "nothing to strike", "nothing to strike")]
    public void A_password_is_struck_from_what_somebody_else_said(string password, string said, string struck) => new NewPassword(password).StrikeFrom(said).ShouldBe(struck);
}
