using System.Data.Common;
using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.SqlServer;

/// <summary>Reads the jobs of an instance's agent.</summary>
internal static class AgentJobsReading
{
    private const string Master = "master";

    /// <summary>All jobs, in order of names; why not, when the instance refuses.</summary>
    public static async Task<AgentJobs> ReadAsync(SqlServerSession session, CancellationToken cancel)
    {
        try
        {
            var rows = await session.AskAsync(SqlServerCatalog.Jobs, ReadAsync, cancel);
            return new AgentJobs(
                null,
                [
                    .. rows.GroupBy(r => r.Name, StringComparer.Ordinal).OrderBy(g => g.Key, StringComparer.Ordinal).Select(g =>
                        new AgentJob(
                            g.Key, g.First().Owner, g.First().OwnerName, g.First().IsOn,
                            [
                                .. g.Select(r => r.Database).OfType<string>().Distinct(StringComparer.OrdinalIgnoreCase)
                                    .Order(StringComparer.Ordinal),
                            ])),
                ]);
        }
        catch (ConnectorException e) when (e.Failure is ConnectorFailure.NotFound or ConnectorFailure.NotAllowed)
        {
            return AgentJobs.NotRead(e.Message);
        }

        async Task<List<Row>> ReadAsync(DbDataReader r)
        {
            var read = new List<Row>();
            while (await r.ReadAsync(cancel))
                read.Add(new Row(
                    r.GetString(0),
                    Sid.TryFromBytes(r.IsDBNull(1) ? null : r.GetFieldValue<byte[]>(1), out var sid) ? sid : default,
                    r.IsDBNull(2) ? null : r.GetString(2), Convert.ToInt32(r.GetValue(3), CultureInfo.InvariantCulture) == 1,
                    r.IsDBNull(4) ? null : r.IsDBNull(5) ? Master : r.GetString(5)));
            return read;
        }
    }

    private sealed record Row(string Name, Sid Owner, string? OwnerName, bool IsOn, string? Database);
}
