using System.ComponentModel.DataAnnotations;
using System.Text.Json.Nodes;
using JustRight.Contracts;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Mvc.Infrastructure;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace JustRight.Service.Hosting;

/// <summary>
/// The description of the API as others use it [OpenAPI 3.1]: how to sign in, what each call may refuse, what each parameter is,
/// and which answers are files and streams.
/// </summary>
internal static class ApiDescription
{
    private const string Bearer = "token", Cookie = "session", Problem = "application/problem+json", Json = "application/json",
        Events = "text/event-stream";

    /// <summary>Answers whose bytes are no text.</summary>
    private static readonly string[] Binary =
    [
        "application/gzip", "application/zip", "application/octet-stream",
        "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    ];

    /// <summary>What a call is about, by the part of its path that says so: the first that stands in it.</summary>
    private static readonly (string Part, string Tag)[] Tags =
    [
        ("passwords", "Passwords"), ("renewals", "Passwords"), ("sign-in", "Sign-in"), ("people", "Sign-in"), ("trace", "Traces"),
        ("remedies", "Traces"), ("fix", "Traces"), ("handovers", "Handovers"), ("handed", "Handovers"),
        ("ldif", "Handovers"), ("host-scripts", "Handovers"), ("host-facts", "Surveys"), ("directory-file", "Surveys"),
        ("survey", "Surveys"), ("replicas", "Surveys"), ("schedule", "Schedules"), ("calendar", "Schedules"),
        ("notifications", "Schedules"), ("history", "History"), ("drift", "History"), ("reviews", "Reviews"),
        ("exceptions", "Reviews"), ("adoptions", "Adoptions"), ("proposals", "Proposals"), ("secrets", "Secrets"),
        ("tokens", "Access"), ("sessions", "Access"), ("enter", "Access"), ("me", "Access"), ("leave", "Access"), ("log", "Log"),
        ("backup", "Backup"), ("runs", "Runs"), ("jobs", "Jobs"), ("sheets", "Documents"), ("evidence", "Reports"),
            ("evidence-key", "Reports"),
        ("report", "Reports"), ("installs", "Installs"), ("estates", "Estates"),
    ];

    /// <summary>What parameters are, by their names.</summary>
    private static readonly Dictionary<string, string> Parameters = new(StringComparer.Ordinal)
    {
        ["name"] = "its name",
        ["id"] = "its identifier, as lists show it",
        ["account"] = "an account: its logon name, or its name in the sheet",
        ["file"] = "the name of the file that is sent, for positions in faults; it is only shown",
        ["number"] = "its number, as lists show it",
        ["remove"] = "what is to be removed, instead of what is to be granted",
        ["object"] = "the distinguished name of an object",
        ["form"] = "the form of the file",
        ["directory"] = "a people-directory of the estate",
        ["use"] = "the use of a secret, as the list of secrets shows it",
        ["right"] = "a right, as the fit names it",
        ["words"] = "only what has this in the name of its account, right or place, in capital or small letters",
        ["off"] = "whether only what is off is asked for",
        ["column"] = "a column of the matrix, by its name",
        ["remedy"] = "a remedy, as the trace names it",
        ["read-at"] = "when the file was read from the directory, with zone",
        ["script"] = "the name of a script",
        ["host"] = "a host of the estate",
        ["instance"] = "a database instance of the estate",
        ["policy"] = "a group policy: its display name, or its GUID in braces",
        ["folder"] = "the folder of a bundle, as the list of bundles shows it",
        ["from"] = "the earlier one",
        ["to"] = "the later one",
        ["search"] = "only what contains all of these words, in capital or small letters",
        ["sort"] = "the column to sort by, with - before it from its end; another word is refused with those that there are",
        ["skip"] = "how many to leave out from the beginning",
        ["wait"] = "how many seconds to wait, at most, for what is being judged anew",
        ["sheet"] = "only those of this sheet",
        ["stage"] = "only those in this stage: `planned`, `installed` or `retiring`",
        ["fit"] = "only those with something `missing`, `excess`, `pending` or `unseen`, those with `nothing-off`, or those "
            + "`not-verified` yet",
        ["state"] = "only those in this state",
        ["before"] = "only what is older than this number",
        ["take"] = "how many at most",
        ["estate"] = "only what is of this estate and its installs",
        ["install"] = "only what is of this install",
        ["kind"] = "a kind of document: `sheet`, `estate` or `install`",
        ["forget"] = "remove it although what it was given is still there",
        ["page"] = "the page of a workbook, by its name; the first unless said otherwise",
        ["product"] = "the product as one word; from the file's name unless said otherwise",
        ["release"] = "the release of the product; 1 unless said otherwise",
        ["title"] = "the product's name in full",
        ["account-column"] = "the head of the column that says the account, where it cannot be guessed",
        ["right-column"] = "the head of the column that says what is needed, where it cannot be guessed",
        ["where-column"] = "the head of the column that says where, where it cannot be guessed",
        ["until-column"] = "the head of the column that says until when, where it cannot be guessed",
        ["given-by-column"] = "the head of the column that says who gives it, where it cannot be guessed",
        ["why-column"] = "the head of the column that says why, where it cannot be guessed",
        ["Last-Event-ID"] = "the id of the event that was seen last: what came after it is sent",
    };

    /// <summary>What the fields of a problem are.</summary>
    private static readonly Dictionary<string, string> OfProblems = new(StringComparer.Ordinal)
    {
        ["type"] = "A stable word below `urn:justright:`",
        ["title"] = "What is wrong, in one sentence",
        ["status"] = "The HTTP status",
        ["detail"] = "What to do, or null",
        ["instance"] = "Not used",
        ["faults"] = "What is wrong in a file, place by place; null where it is about none",
    };

    /// <summary>Describes the API.</summary>
    public static void Describe(OpenApiOptions options) => options
        .AddDocumentTransformer(async (document, context, cancel) =>
        {
            document.Info.Title = "Just Right";
            document.Info.Version = ProgramRelease.Number;
            document.Info.Description =
                "Calls and fields are added within a major release, and not taken away. Every refusal is a "
                + "problem [RFC 9457]; its type is a stable word below urn:justright:.";
            document.Servers?.Clear();
            document.Tags = Tags.Select(t => t.Tag).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)
                .Select(t => new OpenApiTag { Name = t }).ToHashSet();
            AddSchemes(document);
            foreach (var type in new[] { typeof(DocumentOrder), typeof(FaultView) })
                document.AddComponent(type.Name, await context.GetOrCreateSchemaAsync(type, null, cancel));
            DescribeSchemas(document);
        })
        .AddSchemaTransformer((schema, context, _) =>
        {
            NameValues(schema, context);
            return Task.CompletedTask;
        })
        .AddOperationTransformer(Roles.Describe)
        .AddOperationTransformer((operation, context, _) =>
        {
            Describe(operation, context);
            return Task.CompletedTask;
        });

    private static void AddSchemes(OpenApiDocument document)
    {
        document.Components ??= new OpenApiComponents();
        document.Components.SecuritySchemes = new Dictionary<string, IOpenApiSecurityScheme>
        {
            [Bearer] = new OpenApiSecurityScheme
            {
                Type = SecuritySchemeType.Http,
                Scheme = "bearer",
                Description = "A token: claimed once with a sign-in link, or made by an owner",
            },
            [Cookie] = new OpenApiSecurityScheme
            {
                Type = SecuritySchemeType.ApiKey,
                In = ParameterLocation.Cookie,
                Name = "justright",
                Description = "A session of the console, of 12 hours at most",
            },
        };
    }

    private static void Describe(OpenApiOperation operation, OpenApiOperationTransformerContext context)
    {
        var path = context.Description.RelativePath ?? "";
        operation.Tags = new HashSet<OpenApiTagReference> { new(TagOf(path), context.Document) };
        foreach (var parameter in operation.Parameters?.OfType<OpenApiParameter>() ?? [])
        {
            parameter.Description = Parameters.GetValueOrDefault(parameter.Name ?? "");
            parameter.Example = ApiExamples.InPath(path, parameter.Name ?? "");
        }

        foreach (var (type, content) in operation.RequestBody?.Content ?? new Dictionary<string, OpenApiMediaType>())
            ShowBody(path, type, content, context.Document);
        var isOpen = context.Description.ActionDescriptor.EndpointMetadata.OfType<IAuthorizeData>().All(a => a.Policy is null);
        operation.Responses ??= [];
        if (!isOpen)
        {
            operation.Security =
            [
                new OpenApiSecurityRequirement { [new OpenApiSecuritySchemeReference(Bearer, context.Document)] = [] },
                new OpenApiSecurityRequirement { [new OpenApiSecuritySchemeReference(Cookie, context.Document)] = [] },
            ];
            Refuses(operation, context, 401, "Not signed in, or the token is revoked or expired");
            Refuses(operation, context, 403, "The role does not allow it");
        }

        if (context.Description.ActionDescriptor.EndpointMetadata.OfType<IAcceptsMetadata>().Any())
            Refuses(operation, context, 415, "The body is of another content type");
        foreach (var (type, content) in operation.Responses.Values.SelectMany(r => r.Content?.ToList() ?? []))
        {
            if (Binary.Contains(type)) content.Schema = new OpenApiSchema { Type = JsonSchemaType.String, Format = "binary" };
            if (type == Events)
                content.Schema =
                    new OpenApiSchema { Type = JsonSchemaType.String, Description = "Each event's data is a JobEvent as JSON" };
        }
    }

    private static void DescribeSchemas(OpenApiDocument document)
    {
        var words = ApiWords.Read();
        document.Components!.Schemas!.Remove("SseItemOfJobEvent"); // how events are framed is the standard's affair
        foreach (var (name, schema) in document.Components.Schemas)
            if (schema is OpenApiSchema own) words.Describe(name, own);
        var problem = (OpenApiSchema)document.Components.Schemas["ProblemDetails"];
        problem.Description = "A refusal [RFC 9457]";
        problem.Properties!["faults"] = new OpenApiSchema
        {
            Type = JsonSchemaType.Array | JsonSchemaType.Null,
            Items = new OpenApiSchemaReference(nameof(FaultView), document),
        };
        foreach (var (name, property) in problem.Properties) property.Description = OfProblems[name];
    }

    /// <summary>An example of what may be sent. A document is sent as it is, or as JSON that has it.</summary>
    private static void ShowBody(string path, string type, OpenApiMediaType content, OpenApiDocument? document)
    {
        var order = ApiExamples.Document(path);
        if (type != Json)
        {
            content.Example = order is null ? null : JsonValue.Create(order.Text);
        }
        else if (content.Schema is OpenApiSchemaReference { Reference.Id: { } id })
        {
            content.Example = ApiExamples.Body(id);
        }
        else
        {
            content.Schema = new OpenApiSchemaReference(nameof(DocumentOrder), document);
            content.Example = order is null ? null : ApiExamples.Json(order);
        }
    }

    /// <summary>A closed set of words is an enumeration.</summary>
    private static void NameValues(OpenApiSchema schema, OpenApiSchemaTransformerContext context)
    {
        var declared = context.JsonPropertyInfo?.AttributeProvider
            ?? (context.ParameterDescription?.ParameterDescriptor as IParameterInfoParameterDescriptor)?.ParameterInfo;
        if (declared?.GetCustomAttributes(typeof(AllowedValuesAttribute), true) is not [AllowedValuesAttribute allowed]) return;
        schema.Enum = [.. allowed.Values.OfType<string>().Select(v => (JsonNode)JsonValue.Create(v))];
        if (schema.Type?.HasFlag(JsonSchemaType.Null) == true) schema.Enum.Add(null!);
    }

    private static string TagOf(string path)
    {
        var parts = path.Split('/');
        return Tags.FirstOrDefault(t => parts.Contains(t.Part)).Tag ?? "Installs";
    }

    private static void Refuses(OpenApiOperation operation, OpenApiOperationTransformerContext context, int status, string why)
    {
        var code = $"{status}";
        if (operation.Responses!.ContainsKey(code)) return;
        operation.Responses[code] = new OpenApiResponse
        {
            Description = why,
            Content = new Dictionary<string, OpenApiMediaType>
            {
                [Problem] = new() { Schema = new OpenApiSchemaReference("ProblemDetails", context.Document) },
            },
        };
    }
}
