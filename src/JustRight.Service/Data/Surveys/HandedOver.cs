namespace JustRight.Service.Data.Surveys;

/// <summary>Hosts that their owners change, by what is handed over to them.</summary>
internal static class HandedOver
{
    /// <summary>What is said when something is to be changed there.</summary>
    public const string ByOwner =
        "its owner makes this change (reach: handed-over): justright handover INSTALL makes the bundle";
}
