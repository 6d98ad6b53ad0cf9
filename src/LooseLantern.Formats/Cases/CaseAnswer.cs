using System.Buffers;
using System.Text;
using System.Text.Json;
using LooseLantern.Core.Openings;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Formats.Cases;

/// <summary>Writes what came of a case, on one line.</summary>
public static class CaseAnswer
{
    /// <summary>{"openings": […]}, or {"faults": […]}, with {"case": name} before it where a name is given.</summary>
    public static string Write(CaseReading reading, string? name = null)
    {
        var buffer = new ArrayBufferWriter<byte>();
        using (var writer = new Utf8JsonWriter(buffer, new JsonWriterOptions { Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping }))
        {
            writer.WriteStartObject();
            if (name is not null) writer.WriteString("case", name);
            if (reading.Input is { } input) Openings(writer, OpeningsComputation.Openings(input));
            else Faults(writer, reading.Faults);
            writer.WriteEndObject();
        }

        return Encoding.UTF8.GetString(buffer.WrittenSpan);
    }

    private static void Openings(Utf8JsonWriter writer, IReadOnlyList<Opening> openings)
    {
        writer.WriteStartArray("openings");
        foreach (var opening in openings)
        {
            writer.WriteStartObject();
            writer.WriteString("start", At(opening.Start));
            writer.WriteString("end", At(opening.End));
            writer.WriteNumber("placesLeft", opening.PlacesLeft);
            writer.WriteEndObject();
        }

        writer.WriteEndArray();
    }

    private static void Faults(Utf8JsonWriter writer, IReadOnlyList<CaseFault> faults)
    {
        writer.WriteStartArray("faults");
        foreach (var fault in faults)
        {
            writer.WriteStartObject();
            writer.WriteString("path", fault.Path);
            writer.WriteString("fault", fault.Fault);
            writer.WriteEndObject();
        }

        writer.WriteEndArray();
    }

    private static string At(Instant instant) => InstantPattern.General.Format(instant);
}
