using System.Text.Json;
using System.Text.Json.Serialization;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// How JSON is written and read everywhere: camelCase, enums by name, NodaTime values in ISO form, numbers as numbers
/// only.
/// </summary>
public static class Json
{
    public static JsonSerializerOptions Options { get; } =
        Configure(new JsonSerializerOptions(JsonSerializerDefaults.Web));

    /// <summary>
    /// As everywhere, but whoever sends a field that nobody reads is told: it may be a name mistyped.
    /// </summary>
    public static void ConfigureRequests(JsonSerializerOptions options) =>
        Configure(options).UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;

    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
        options.NumberHandling = JsonNumberHandling.Strict;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        return options;
    }
}
