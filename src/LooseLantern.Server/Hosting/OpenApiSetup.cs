using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// How the API's OpenAPI document is made: NodaTime values are described as the strings they are on the wire.
/// </summary>
public static partial class OpenApiSetup
{
    public static void Configure(OpenApiOptions options)
    {
        options.OpenApiVersion = OpenApiSpecVersion.OpenApi3_1;
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info.Title = "Loose Lantern";
                document.Info.Version = "1";
                document.Info.Description =
                    "Routes under /api/public are for guests and need no sign-in; the rest needs the cookie of a sign-in and, to change "
                    + "something, the token of GET /api/token in the header X-Lantern-Token. Problems are RFC 9457.";
                document.Servers?.Clear();
                foreach (var schema in document.Components?.Schemas?.Values ?? [])
                {
                    Unwrap(schema);
                    DropNull(schema);
                }

                return Task.CompletedTask;
            }
        );
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
                if (type == typeof(Instant))
                    Describe(schema, "date-time");
                if (type == typeof(LocalDate))
                    Describe(schema, "date");
                if (type == typeof(LocalDateTime))
                    Describe(schema, "local-date-time");
                if (type == typeof(LocalTime))
                    Describe(schema, "time");
                // Members of any name and kind, as in a merge patch.
                if (type == typeof(JsonObject))
                    schema.AdditionalProperties = new OpenApiSchema();
                // Of a list of such values nothing is told by itself.
                if (context.JsonTypeInfo.ElementType == typeof(LocalDate))
                    schema.Items = new OpenApiSchema { Type = JsonSchemaType.String, Format = "date" };
                if (context.JsonTypeInfo.ElementType == typeof(Instant))
                    schema.Items = new OpenApiSchema { Type = JsonSchemaType.String, Format = "date-time" };
                return Task.CompletedTask;
            }
        );
    }

    /// <summary>Descriptions come from comments, which are wrapped where a line of code ends.</summary>
    private static void Unwrap(IOpenApiSchema schema)
    {
        // What only refers to another takes its description from there.
        if (schema is not OpenApiSchema)
            return;
        if (schema.Description is { } text)
            schema.Description = Space().Replace(text, " ");
        foreach (var property in schema.Properties?.Values ?? [])
            Unwrap(property);
    }

    /// <summary>
    /// Where a kind is met first as one that may be left out, its description takes null for one of its values; where
    /// it may be null, that is said beside it.
    /// </summary>
    private static void DropNull(IOpenApiSchema schema)
    {
        if (schema is OpenApiSchema { Enum: { } values } kind)
            kind.Enum = [.. values.Where(value => value is not null && !value.IsJsonNullSentinel())];
    }

    [GeneratedRegex(@"\s+")]
    private static partial Regex Space();

    private static void Describe(OpenApiSchema schema, string format)
    {
        schema.Type = JsonSchemaType.String;
        schema.Format = format;
        schema.Properties?.Clear();
        schema.Required?.Clear();
    }
}
