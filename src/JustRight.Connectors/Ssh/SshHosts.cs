using System.Text;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SecretUses;
using JustRight.Core.Surveys;
using JustRight.Formats.Hosts;

namespace JustRight.Connectors.Ssh;

/// <summary>
/// Hosts over SSH: the same two scripts that are handed over run on the host, one for reading, one for each change.
/// </summary>
/// <param name="secrets">The secrets that the estate names.</param>
/// <param name="sidOf">The SID of a principal where it is known.</param>
public sealed class SshHosts(Estate estate, ISecretSource secrets, Func<string, Sid?> sidOf, TimeProvider time) : IHostConnector
{
    private const int MostErrorCharacters = 400;

    /// <inheritdoc/>
    public async Task<HostSnapshot> ReadAsync(string host, CancellationToken cancel)
    {
        var run = await (await RunnerAsync(host, cancel)).RunAsync(HostScripts.Collect, "", null, cancel);
        var start = run.Output.IndexOf('{', StringComparison.Ordinal);
        if (start < 0)
            throw new ConnectorException(
                ConnectorFailure.NotFound, $"{host} answered with something other than host facts{Said(run)}");
        var (facts, faults) = HostFactsReader.Read(Encoding.UTF8.GetBytes(run.Output[start..]), $"what {host} answered");
        if (facts is null)
            throw new ConnectorException(ConnectorFailure.NotFound, $"the host facts of {host} are not valid: {faults[0]}");
        if (!IsSame(facts.Snapshot.Name, host))
            throw new ConnectorException(
                ConnectorFailure.Conflict,
                $"the host that answers for {host} is named {facts.Snapshot.Name}: check the address in the estate");
        // Ages are judged by our clock: a host whose clock is off must not look fresher or older than it is.
        return facts.Snapshot with { Name = host, ReadAt = time.GetUtcNow() };
    }

    /// <inheritdoc/>
    public async Task<Observation> ObserveAsync(HostChange change, CancellationToken cancel)
    {
        var record = await RunAsync(change, "-FromInput -WhatIf", null, cancel);
        return record.Result switch
        {
            "already" => new Observation(ObservedState.Done, record.Before),
            "would" => new Observation(ObservedState.NotDone, record.Before),
            _ => new Observation(ObservedState.Impossible, record.After),
        };
    }

    /// <inheritdoc/>
    public async Task MakeAsync(HostChange change, NewPassword? password, CancellationToken cancel)
    {
        var record = await RunAsync(change, "-FromInput", password, cancel);
        if (record.Result is not ("made" or "already"))
            throw new ConnectorException(ConnectorFailure.Conflict, $"{change.Host}: {record.After}");
    }

    private async Task<HostRecord> RunAsync(HostChange change, string arguments, NewPassword? password, CancellationToken cancel)
    {
        var run = await (await RunnerAsync(change.Host, cancel))
            .RunAsync(HostScripts.Change, arguments, HostChangesJson.WriteLine(change, sidOf, password?.Reveal()), cancel);
        string Struck(string text) => password?.StrikeFrom(text) ?? text;
        return HostRecord.Read(run.Output) is [var record, ..]
            ? record with { Before = Struck(record.Before), After = Struck(record.After) }
            : throw new ConnectorException(
                ConnectorFailure.Unreachable,
                $"{change.Host} did not report the result of the change{Said(run with { Output = Struck(run.Output), Errors = Struck(run.Errors) })}");
    }

    private async Task<SshScriptRunner> RunnerAsync(string host, CancellationToken cancel)
    {
        var reach = estate.Host(host)?.Ssh
            ?? throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(host));
        var secret = await secrets.GetAsync(
            reach.Secret, EstateSecretUses.OfHost(estate, estate.Host(host)!.Name, reach), cancel);
        return new SshScriptRunner(reach, secret);
    }

    /// <summary>The short names are compared: the estate may write the name in full.</summary>
    private static bool IsSame(string told, string host) =>
        string.Equals(told.Split('.')[0], host.Split('.')[0], StringComparison.OrdinalIgnoreCase);

    private static string Said(SshScriptRunner.Run run)
    {
        var text = (run.Errors.Trim().Length > 0 ? run.Errors : run.Output).Trim();
        return text.Length == 0 ? run.ExitCode is { } code ? $" (exit code {code})"
            : ": the connection broke"
            : $": {(text.Length > MostErrorCharacters ? text[..MostErrorCharacters] + "…" : text)}";
    }
}
