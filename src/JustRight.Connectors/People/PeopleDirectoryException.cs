using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>What a directory of people answers instead of doing what was asked, with the cause.</summary>
public sealed class PeopleDirectoryException(
    SignInCause cause, ConnectorFailure failure, string message, Exception? inner = null)
    : ConnectorException(failure, message, inner)
{
    /// <summary>What is behind it.</summary>
    public SignInCause Cause { get; } = cause;
}
