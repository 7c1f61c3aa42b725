namespace JustRight.Core.Sheets;

/// <summary>Who changes the password of an account.</summary>
public enum PasswordKeeper
{
    /// <summary>We: in the directory, and then in every place where it is typed.</summary>
    Us,

    /// <summary>
    /// The product, in the directory and in its own services at once; whoever changes it elsewhere breaks them.
    /// </summary>
    Product,

    /// <summary>The directory: the account is group managed, and hosts fetch its password [MS-ADTS 3.1.1.4.5.39].</summary>
    Directory,
}
