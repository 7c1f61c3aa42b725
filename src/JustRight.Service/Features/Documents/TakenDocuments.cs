namespace JustRight.Service.Features.Documents;

/// <summary>What calls that take a document say of it in the API's description.</summary>
internal static class TakenDocuments
{
    /// <summary>The document comes as it is, or as <see cref="Contracts.DocumentOrder"/>.</summary>
    public static RouteHandlerBuilder AcceptsDocument(this RouteHandlerBuilder endpoint) =>
        endpoint.Accepts<string>("application/yaml", "text/plain", "application/json");
}
