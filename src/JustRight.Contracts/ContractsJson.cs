using System.Text.Json.Serialization;

namespace JustRight.Contracts;

/// <summary>Serialization of the wire types without reflection, for service and client alike.</summary>
[JsonSourceGenerationOptions(PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase, PropertyNameCaseInsensitive = true)]
[JsonSerializable(typeof(ProblemView))]
[JsonSerializable(typeof(SheetView))]
[JsonSerializable(typeof(IReadOnlyList<SheetSummary>))]
[JsonSerializable(typeof(EstateView))]
[JsonSerializable(typeof(IReadOnlyList<EstateSummary>))]
[JsonSerializable(typeof(InstallView))]
[JsonSerializable(typeof(IReadOnlyList<InstallSummary>))]
[JsonSerializable(typeof(PlanView))]
[JsonSerializable(typeof(FitView))]
[JsonSerializable(typeof(WorklistView))]
[JsonSerializable(typeof(GrantOrder))]
[JsonSerializable(typeof(JobView))]
[JsonSerializable(typeof(JobEvent))]
[JsonSerializable(typeof(SignInCode))]
[JsonSerializable(typeof(TokenClaim))]
[JsonSerializable(typeof(WhoView))]
[JsonSerializable(typeof(TokenOrder))]
[JsonSerializable(typeof(NewTokenView))]
[JsonSerializable(typeof(IReadOnlyList<TokenView>))]
[JsonSerializable(typeof(IReadOnlyList<SecretView>))]
[JsonSerializable(typeof(SecretValue))]
[JsonSerializable(typeof(IReadOnlyList<PasswordView>))]
[JsonSerializable(typeof(SealOrder))]
[JsonSerializable(typeof(SealedPassword))]
[JsonSerializable(typeof(IReadOnlyList<LogEntryView>))]
[JsonSerializable(typeof(IReadOnlyList<JudgementView>))]
[JsonSerializable(typeof(LogCheckView))]
public sealed partial class ContractsJson : JsonSerializerContext;
