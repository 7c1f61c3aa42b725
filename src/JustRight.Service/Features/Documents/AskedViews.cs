using JustRight.Contracts;
using JustRight.Core.Installs;

namespace JustRight.Service.Features.Documents;

/// <summary>What a sheet leaves open, for the wire.</summary>
internal static class AskedViews
{
    public static AskedView Of(OpenQuestion question) => new(
        question.Field, question.Asks, question.Known, question.AtLeast, question.AtMost, question.Default);
}
