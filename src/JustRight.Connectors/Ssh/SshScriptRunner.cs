using System.Security.Cryptography;
using System.Text;
using JustRight.Core.Estates;
using Renci.SshNet;
using Renci.SshNet.Common;

namespace JustRight.Connectors.Ssh;

/// <summary>
/// Runs a script on a host over SSH. The script and what it is to do go through the standard input, never through the command
/// line: nothing of either shows in a list of processes, and a secret in the input is data, not part of a script that the host
/// may log. The host key must be the one that the estate names.
/// </summary>
/// <param name="secret">The private key, in any format OpenSSH writes, or the password.</param>
internal sealed class SshScriptRunner(SshReach reach, NewPassword secret)
{
    private const int MostOutputBytes = 32_000_000;

    /// <summary>
    /// Reads one line that holds the script, makes it a block and runs it. It holds no quote and no variable, so that every
    /// shell passes it on alike.
    /// </summary>
    private const string Bootstrap = "& ([scriptblock]::Create([Text.Encoding]::UTF8.GetString([Convert]::FromBase64String([Console]::In.ReadLine()))))";

    /// <summary>The whole output of a run, and how it ended.</summary>
    /// <param name="Errors">What it wrote to the error output.</param>
    public sealed record Run(string Output, string Errors, int? ExitCode);

    /// <summary>Runs a script.</summary>
    /// <param name="arguments">Its switches, fixed words of ours.</param>
    /// <param name="input">A line for its standard input, or null.</param>
    /// <exception cref="ConnectorException">The host does not answer in time, has another key, or refuses the
    /// sign-in.</exception>
    public async Task<Run> RunAsync(string script, string arguments, string? input, CancellationToken cancel)
    {
        using var deadline = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        deadline.CancelAfter(reach.Timeout);
        string? wrongKey = null;
        var connected = false;
        try
        {
            using var client = new SshClient(Connection());
            client.HostKeyReceived += (_, e) =>
            {
                e.CanTrust = IsExpected(e.FingerPrintSHA256);
                if (!e.CanTrust) wrongKey = "SHA256:" + e.FingerPrintSHA256;
            };
            await client.ConnectAsync(deadline.Token);
            connected = true;
            using var command = client.CreateCommand(
                $"powershell.exe -NoProfile -NonInteractive -ExecutionPolicy Bypass -Command \"{Bootstrap}{(arguments.Length == 0 ? "" : " " + arguments)}\"");
            var running = command.ExecuteAsync(deadline.Token);
            await using (var stdin = command.CreateInputStream())
            {
                var text = Convert.ToBase64String(Encoding.UTF8.GetBytes(script)) + "\n" + (input is null ? "" : input + "\n");
                await stdin.WriteAsync(Encoding.ASCII.GetBytes(text), deadline.Token);
            }

            var reading = ReadAsync(command.OutputStream, deadline.Token);
            var errors = ReadAsync(command.ExtendedOutputStream, deadline.Token);
            await running;
            return new Run(await reading, await errors, command.ExitStatus);
        }
        catch (Exception) when (wrongKey is not null)
        {
            throw new ConnectorException(
                ConnectorFailure.NotTrusted,
                $"{Place} showed the host key {wrongKey}, and the estate names {reach.HostKey}: nothing was sent to it. If the host was reinstalled, ask its owner for the new fingerprint and set it in the estate.");
        }
        catch (Exception e) when (e is SshOperationTimeoutException
            || (e is OperationCanceledException && !cancel.IsCancellationRequested))
        {
            throw new ConnectorException(
                ConnectorFailure.Unreachable,
                $"{Place} did not {(connected ? "finish" : "answer")} within {reach.Timeout.TotalSeconds:0} s.");
        }
        catch (SshAuthenticationException e)
        {
            throw new ConnectorException(
                ConnectorFailure.SignIn,
                $"{Place} refused to let {reach.SignInAs} sign in with the secret '{reach.Secret}': {e.Message}", e);
        }
        catch (SshPassPhraseNullOrEmptyException e)
        {
            throw new ConnectorException(
                ConnectorFailure.SignIn,
                $"the private key in the secret '{reach.Secret}' has a pass phrase: use a key without one.", e);
        }
        catch (Exception e) when (
            e is SshException or System.Net.Sockets.SocketException or IOException or ObjectDisposedException)
        {
            throw new ConnectorException(
                ConnectorFailure.Unreachable,
                connected ? $"the connection to {Place} broke: {e.Message}" : $"{Place} could not be reached: {e.Message}", e);
        }
    }

    private string Place => $"{reach.Address}:{reach.Port}";

    private bool IsExpected(string shown) =>
        CryptographicOperations.FixedTimeEquals(
            Encoding.ASCII.GetBytes(shown.TrimEnd('=')), Encoding.ASCII.GetBytes(reach.HostKey["SHA256:".Length..].TrimEnd('=')));

    private ConnectionInfo Connection()
    {
        var text = secret.Reveal();
        AuthenticationMethod method;
        if (text.Contains("PRIVATE KEY", StringComparison.Ordinal))
        {
            // A secret that was typed or piped may have lost its last line end, which the format wants.
            using var key = new MemoryStream(Encoding.ASCII.GetBytes(text.TrimEnd() + "\n"));
            method = new PrivateKeyAuthenticationMethod(reach.SignInAs, new PrivateKeyFile(key));
        }
        else
        {
            method = new PasswordAuthenticationMethod(reach.SignInAs, text);
        }

        return new ConnectionInfo(reach.Address, reach.Port, reach.SignInAs, method) { Timeout = reach.Timeout };
    }

    private static async Task<string> ReadAsync(Stream stream, CancellationToken cancel)
    {
        using var kept = new MemoryStream();
        var buffer = new byte[32_768];
        while (await stream.ReadAsync(buffer, cancel) is > 0 and var read)
        {
            if (kept.Length + read > MostOutputBytes) throw new IOException($"more than {MostOutputBytes} bytes came back");
            kept.Write(buffer, 0, read);
        }

        return Encoding.UTF8.GetString(kept.GetBuffer(), 0, (int)kept.Length);
    }
}
