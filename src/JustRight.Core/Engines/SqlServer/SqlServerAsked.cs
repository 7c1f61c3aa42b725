using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>A permission and what it is asked for on, in the words that are the same however they were written.</summary>
/// <param name="Permission">In capitals.</param>
/// <param name="On">What it is on, as a sheet writes it; null for the instance or the database as a whole.</param>
/// <param name="Thing">What it is on; null for the whole, and for what is not known here.</param>
internal readonly record struct SqlServerAsked(string Permission, string? On, SqlServerSecurable? Thing)
{
    /// <summary>As a sheet writes it.</summary>
    public string Words => new Securable(Permission, On).Words;

    /// <summary>Reads what it is on.</summary>
    public static SqlServerAsked Of(string permission, string? on)
    {
        var thing = on is null ? null : SqlServerSecurable.TryParse(on);
        return new SqlServerAsked(permission.ToUpperInvariant(), thing?.Words ?? on, thing);
    }
}
